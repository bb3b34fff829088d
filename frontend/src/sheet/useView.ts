import { type RefObject, useCallback, useEffect, useMemo, useRef, useState } from "react";

/** Room about the paper for the rules, mm. */
const EDGE = 9;

/** How many times as large as what is looked at the part about it is. */
const ABOUT = 2;

/** Width beyond which one does not come nearer by itself, mm: what is about it is seen as well. */
const NEAREST = 90;

interface View {
  x: number;
  y: number;
  w: number;
  h: number;
}

interface Place {
  clientX: number;
  clientY: number;
}

/** The part of the sheet that is looked at: come nearer, go back, slide, and from a place on screen to one on paper. */
export function useView(svg: RefObject<SVGSVGElement | null>, width: number, height: number) {
  const whole = useMemo<View>(
    () => ({ x: -EDGE, y: -EDGE, w: width + EDGE + 3, h: height + EDGE + 3 }),
    [width, height],
  );
  const [view, setView] = useState<View>(whole);
  const drag = useRef<{ x: number; y: number; view: View } | null>(null);

  const zoom = useCallback((factor: number, at?: { x: number; y: number }) => {
    setView((v) => {
      const w = Math.min(Math.max(v.w * factor, 8), 4000);
      const k = w / v.w;
      const c = at ?? { x: v.x + v.w / 2, y: v.y + v.h / 2 };
      return { x: c.x - (c.x - v.x) * k, y: c.y - (c.y - v.y) * k, w, h: v.h * k };
    });
  }, []);
  const slide = (dx: number, dy: number) =>
    setView((v) => ({ ...v, x: v.x + dx * v.w * 0.1, y: v.y + dy * v.h * 0.1 }));
  const showAll = () => setView(whole);
  /** Come near to something, with room about it. */
  const lookAt = useCallback(
    (box: { x: number; y: number; width: number; height: number }) => {
      const w = Math.min(
        Math.max(box.width * ABOUT, box.height * ABOUT * (whole.w / whole.h), NEAREST),
        whole.w,
      );
      const h = (w * whole.h) / whole.w;
      setView({ x: box.x + box.width / 2 - w / 2, y: box.y + box.height / 2 - h / 2, w, h });
    },
    [whole],
  );

  useEffect(() => {
    const element = svg.current;
    if (!element) return;
    const wheel = (event: WheelEvent) => {
      event.preventDefault();
      zoom(event.deltaY > 0 ? 1.15 : 1 / 1.15, placeOn(element, event));
    };
    element.addEventListener("wheel", wheel, { passive: false });
    return () => element.removeEventListener("wheel", wheel);
  }, [svg, zoom]);

  const hold = ({ clientX, clientY }: Place) => {
    drag.current = { x: clientX, y: clientY, view };
  };
  const pull = ({ clientX, clientY }: Place) => {
    const from = drag.current;
    if (!from || Math.hypot(clientX - from.x, clientY - from.y) < CLICK) return;
    const scale = from.view.w / (svg.current?.clientWidth ?? 1);
    setView({
      ...from.view,
      x: from.view.x - (clientX - from.x) * scale,
      y: from.view.y - (clientY - from.y) * scale,
    });
  };
  /** Let go; tells whether the sheet was pressed without being pulled. */
  const letGo = ({ clientX, clientY }: Place) => {
    const from = drag.current;
    drag.current = null;
    return from !== null && Math.hypot(clientX - from.x, clientY - from.y) < CLICK;
  };
  return {
    box: `${view.x} ${view.y} ${view.w} ${view.h}`,
    zoom,
    slide,
    showAll,
    lookAt,
    /** Whether less than the whole sheet is seen, and which part. */
    isNear: view.w < whole.w * 0.95,
    part: { x: view.x, y: view.y, width: view.w, height: view.h },
    paperAt: (place: Place) => (svg.current ? placeOn(svg.current, place) : undefined),
    hold,
    pull,
    letGo,
  };
}

/** A press that moves less than this is a click, pixels. */
const CLICK = 4;

/** A place on screen in the drawing's own measure, counted downwards from the top of the paper. */
function placeOn(svg: SVGSVGElement, { clientX, clientY }: Place) {
  const matrix = svg.getScreenCTM();
  if (!matrix) return undefined;
  const point = new DOMPoint(clientX, clientY).matrixTransform(matrix.inverse());
  return { x: point.x, y: point.y };
}
