import { memo, useCallback, useEffect, useMemo, useRef, useState } from "react";
import type { Mark, WorkOut } from "../api/client";
import { useBench } from "../state/bench";
import { MarkShape } from "./MarkShape";
import { Rules } from "./Rules";

const EDGE = 9;
const LIGHT = new Set(["construction", "point", "letter", "guide"]);

interface View {
  x: number;
  y: number;
  w: number;
  h: number;
}

/** The sheet on the board, with a rule along two edges; strokes light up, and can be picked. */
export function Sheet({ work }: { work: WorkOut }) {
  const { step, construction, pick, hover, ghosts, letter, spot, open, regions, opened, point, set } =
    useBench();
  const [cursor, setCursor] = useState<readonly [number, number]>([
    work.sheet.width / 2,
    work.sheet.height / 2,
  ]);
  const { display, widths } = work;
  const whole = useMemo<View>(
    () => ({ x: -EDGE, y: -EDGE, w: display.width + EDGE + 3, h: display.height + EDGE + 3 }),
    [display.width, display.height],
  );
  const [view, setView] = useState<View>(whole);
  const svg = useRef<SVGSVGElement>(null);
  const drag = useRef<{ x: number; y: number; view: View } | null>(null);

  const marks = display.marks as unknown as Mark[];
  const shown = useMemo(() => {
    const last = step ?? Infinity;
    return marks.filter((mark) => {
      if (mark.step > last) return false;
      return !(construction === "away" && LIGHT.has(mark.role) && mark.step !== step);
    });
  }, [marks, step, construction]);
  const current = step === null ? undefined : work.steps[step - 1];
  const lit = hover ?? null;
  const candidates = work.entries.find((entry) => entry.line === (ghosts ?? open))?.candidates ?? [];
  const undecided = candidates.length > 0 && (ghosts !== null || !candidates.some((c) => c.chosen));

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

  const paperAt = (event: { clientX: number; clientY: number }) => {
    const matrix = svg.current?.getScreenCTM();
    if (!matrix) return undefined;
    const point = new DOMPoint(event.clientX, event.clientY).matrixTransform(matrix.inverse());
    return { x: point.x, y: point.y };
  };
  useEffect(() => {
    const element = svg.current;
    if (!element) return;
    const wheel = (event: WheelEvent) => {
      event.preventDefault();
      zoom(event.deltaY > 0 ? 1.15 : 1 / 1.15, paperAt(event));
    };
    element.addEventListener("wheel", wheel, { passive: false });
    return () => element.removeEventListener("wheel", wheel);
  }, [zoom]);

  const keys: Record<string, () => void> = {
    "+": () => zoom(1 / 1.25),
    "=": () => zoom(1 / 1.25),
    "-": () => zoom(1.25),
    "0": () => setView(whole),
    ArrowLeft: () => slide(-1, 0),
    ArrowRight: () => slide(1, 0),
    ArrowUp: () => slide(0, -1),
    ArrowDown: () => slide(0, 1),
  };
  /** While regions are pointed at, the arrow keys move a cross over the sheet and Enter points. */
  const pointing = (event: { key: string; shiftKey: boolean }): (() => void) | undefined => {
    const reach = event.shiftKey ? 1 : 5;
    const go = (dx: number, dy: number) => () => setCursor(([x, y]) => [x + dx * reach, y + dy * reach]);
    return {
      ArrowLeft: go(-1, 0),
      ArrowRight: go(1, 0),
      ArrowUp: go(0, 1),
      ArrowDown: go(0, -1),
      Enter: () => void point(cursor),
    }[event.key];
  };

  return (
    <div className="relative min-h-0 flex-1">
      {}
      <svg
        ref={svg}
        className={`sheet block h-full w-full touch-none ${pick ? "picking" : ""}`}
        viewBox={`${view.x} ${view.y} ${view.w} ${view.h}`}
        role="application"
        aria-label={`The sheet: ${work.title || "untitled"}, ${work.sheet.name} at ${work.sheet.scale}. Arrow keys slide it, plus and minus come nearer and go back, 0 shows all.`}

        tabIndex={0}
        fill="none"
        strokeLinecap="round"
        data-step={step ?? work.steps.length}
        onKeyDown={(event) => {
          const action = (regions && pointing(event)) ?? keys[event.key];
          if (action && !event.ctrlKey && !event.metaKey) {
            action();
            event.preventDefault();
          }
        }}
        onPointerDown={(event) => {
          drag.current = { x: event.clientX, y: event.clientY, view };
        }}
        onPointerMove={(event) => {
          const from = drag.current;
          if (!from || event.buttons !== 1) return;
          const scale = from.view.w / (svg.current?.clientWidth ?? 1);
          if (Math.hypot(event.clientX - from.x, event.clientY - from.y) < 4) return;
          setView({
            ...from.view,
            x: from.view.x - (event.clientX - from.x) * scale,
            y: from.view.y - (event.clientY - from.y) * scale,
          });
        }}
        onPointerUp={(event) => {
          const from = drag.current;
          drag.current = null;
          if (!regions || !from || Math.hypot(event.clientX - from.x, event.clientY - from.y) >= 4) return;
          const place = paperAt(event);
          if (place) void point([place.x, display.height - place.y]);
        }}
      >
        <rect
          x={0}
          y={0}
          width={display.width}
          height={display.height}
          fill="var(--color-paper)"
          stroke="#4a5049"
          strokeWidth={0.25}
        />
        <Rules width={display.width} height={display.height} unit={work.unit} />
        <Strokes marks={shown} height={display.height} construction={construction} widths={widths} />
        {lit !== null && <Lit marks={shown.filter((mark) => mark.line === lit)} height={display.height} />}
        {current && (
          <g data-testid="current-step" aria-hidden="true">
            <Lit marks={shown.filter((mark) => mark.step === step)} height={display.height} />
            {current.needle && (
              <g className="now" data-testid="needle">
                <circle
                  cx={current.needle[0]}
                  cy={display.height - current.needle[1]}
                  r={1.6}
                  strokeWidth={0.35}
                />
                <circle
                  className="now dot"
                  cx={current.needle[0]}
                  cy={display.height - current.needle[1]}
                  r={0.55}
                />
              </g>
            )}
          </g>
        )}
        {undecided &&
          candidates.map((candidate) => (
            <g key={candidate.letter} data-testid={`ghost-${candidate.letter}`}>
              {(candidate.marks as unknown as Mark[]).map((mark, i) => (
                <MarkShape
                  key={i}
                  mark={mark}
                  height={display.height}
                  className={mark.kind === "text" ? "now" : "mark-ghost"}
                  width={mark.kind === "dot" || candidate.letter === letter ? 0.9 : widths.ghost}
                />
              ))}
            </g>
          ))}
        {opened && (
          <g data-testid="opened" aria-hidden="true">
            {(opened.found.marks as unknown as Mark[])
              .filter((mark) => mark.step <= opened.upTo)
              .map((mark, i) => (
                <MarkShape
                  key={i}
                  mark={mark}
                  height={display.height}
                  className="now"
                  width={mark.kind === "dot" ? 0.7 : mark.step === opened.upTo ? 0.5 : 0.25}
                />
              ))}
          </g>
        )}
        {regions && (
          <g data-testid="regions" aria-hidden="true">
            {(regions.found?.marks as unknown as Mark[] | undefined)?.map((mark, i) => (
              <MarkShape key={i} mark={mark} height={display.height} className="now" width={0.9} />
            ))}
            {regions.spots.map(([x, y]) => (
              <circle key={`${x} ${y}`} className="now dot" cx={x} cy={display.height - y} r={1.2} />
            ))}
            <path
              className="now"
              data-testid="cross"
              strokeWidth={0.4}
              d={`M${cursor[0] - 4} ${display.height - cursor[1]}h8m-4 -4v8`}
            />
          </g>
        )}
        {spot && (
          <circle
            className="now"
            data-testid="finding-place"
            cx={spot[0]}
            cy={display.height - spot[1]}
            r={4}
            strokeWidth={0.6}
          />
        )}
        {!regions && <Touches marks={shown} height={display.height} picking={pick !== null} />}
      </svg>
      <div className="absolute right-2 bottom-1 flex gap-1" role="group" aria-label="Looking at the sheet">
        <button className="act" onClick={() => zoom(1 / 1.4)} aria-label="Nearer">
          +
        </button>
        <button className="act" onClick={() => zoom(1.4)} aria-label="Further">
          −
        </button>
        <button className="act" onClick={() => setView(whole)}>
          Whole sheet
        </button>
      </div>
      {regions && <RegionBar />}
      {pick && (
        <p className="absolute top-1 left-1/2 -translate-x-1/2 bg-[var(--color-ink)] px-3 py-1 text-[var(--color-page)]">
          Click {pick.wanted} on the sheet{" "}
          <button className="underline" onClick={() => set({ pick: null })}>
            leave off (Esc)
          </button>
        </p>
      )}
    </div>
  );
}

/** What is being lined in by region, and what to do with it. */
function RegionBar() {
  const { regions, lineIn, set } = useBench();
  if (!regions) return null;
  const count = regions.spots.length;
  return (
    <div
      role="group"
      aria-label="Line in by region"
      className="absolute inset-x-6 top-1 flex flex-wrap items-center gap-2 bg-ink px-3 py-1 text-page"
    >
      <span role="status" className="min-w-0 flex-1">
        {regions.told ||
          (count === 0
            ? "Click inside every region that is material; or move the cross with the arrow keys, and Enter."
            : `${count} region${count > 1 ? "s" : ""}: ${regions.found?.statements.length ?? 0} to line in`)}
      </span>
      <label className="flex items-center gap-1">
        <input
          type="checkbox"
          className="size-4"
          checked={regions.kind === "hidden"}
          onChange={(event) =>
            set({
              regions: {
                kind: event.target.checked ? "hidden" : "line in",
                spots: [],
                found: null,
                told: "",
              },
            })
          }
        />
        hidden
      </label>
      <button className="act" disabled={!regions.found} onClick={() => void lineIn()}>
        Write it down
      </button>
      <button className="act" onClick={() => set({ regions: null })}>
        Leave off
      </button>
    </div>
  );
}

/** Strokes in the accent: what is meant just now. */
function Lit({ marks, height }: { marks: Mark[]; height: number }) {
  return (
    <g aria-hidden="true">
      {marks.map((mark, i) => (
        <MarkShape
          key={i}
          mark={mark}
          height={height}
          className="now"
          width={mark.kind === "dot" ? 0.9 : 0.6}
        />
      ))}
    </g>
  );
}

interface StrokesProps {
  marks: Mark[];
  height: number;
  construction: string;
  /** Widths in mm of the kinds of line. */
  widths: Record<string, number>;
}

const Strokes = memo(function Strokes({ marks, height, construction, widths }: StrokesProps) {
  const faint = construction === "faded" ? "opacity-35" : "";
  return (
    <g data-testid="strokes">
      {marks.map((mark, i) => (
        <MarkShape
          key={i}
          mark={mark}
          height={height}
          className={LIGHT.has(mark.role) ? `mark-${mark.role} ${faint}` : `mark-${mark.role}`}
          width={mark.kind === "dot" ? undefined : widths[mark.role]}
        />
      ))}
    </g>
  );
});

/** What can be pointed at: wide, unseen strokes over the drawn ones. */
const Touches = memo(function Touches({
  marks,
  height,
  picking,
}: {
  marks: Mark[];
  height: number;
  picking: boolean;
}) {
  const set = useBench((bench) => bench.set);
  return (
    <g aria-hidden="true">
      {marks
        .filter(
          (mark) => mark.line > 0 && mark.kind !== "text" && (!picking || ("name" in mark && mark.name)),
        )
        .sort((a, b) => Number(a.kind === "dot") - Number(b.kind === "dot"))
        .map((mark, i) => (
          <g
            key={i}
            data-name={"name" in mark ? mark.name : ""}
            onMouseEnter={() => set({ hover: mark.line })}
            onMouseLeave={() => set({ hover: null })}
            onClick={() => {
              const { pick } = useBench.getState();
              if (pick && "name" in mark && mark.name) pick.take(mark.name);
              else if (!pick) set({ open: mark.line });
            }}
          >
            <MarkShape
              mark={mark}
              height={height}
              className="touch"
              width={mark.kind === "dot" ? 2.2 : 2.6}
            />
          </g>
        ))}
    </g>
  );
});
