import { useLayoutEffect, useRef, useState } from "react";
import type { Mark, Work } from "../api/client";
import { useAfterPaint } from "../state/afterPaint";
import { look, useLook } from "../state/looks";
import { pointAt } from "../state/asking";
import { Map } from "./Map";
import { MarkShape } from "./MarkShape";
import { Cloud, FindingPlace, Ghosts, Needle, OpenedUp, RegionMarks, Wrong } from "./Overlays";
import { RegionBar } from "./RegionBar";
import { Rules } from "./Rules";
import { Hovered, Layers, Lit } from "./Strokes";
import { Touches } from "./Touches";
import { useView } from "./useView";
import { Button } from "../ui/Button";

/** The sheet on the board, with a rule along two edges; strokes light up, and can be picked. */
export function Sheet({ work, near = false }: { work: Work; near?: boolean }) {
  const { step, construction, pick, ghosts, open, regions } = useLook(
    "step",
    "construction",
    "pick",
    "ghosts",
    "open",
    "regions",
  );
  const point = pointAt;
  const { drawn, strokes } = work;
  const { width, height, layers } = drawn;
  // The sheet is drawn first; what can be pointed at follows it a moment later.
  const touched = useAfterPaint(drawn);
  const svg = useRef<SVGSVGElement>(null);
  const view = useView(svg, width, height);
  const act = useRef<SVGGElement>(null);
  const { lookAt } = view;
  useLayoutEffect(() => {
    // The picture comes to the act: a mark of four millimetres is nothing on a whole sheet.
    const box = near ? act.current?.getBBox() : undefined;
    if (!box || box.width + box.height === 0) return;
    const { width: wide, height: tall } = box;
    lookAt({ x: box.x + drawn.origin[0], y: box.y + height - drawn.origin[1], width: wide, height: tall });
  }, [near, step, drawn, height, lookAt]);
  const [cursor, setCursor] = useState<readonly [number, number]>([width / 2, height / 2]);

  const current = step === null ? undefined : work.steps[step - 1];
  const shown = step ?? Infinity;
  // What is undecided is lettered without being asked for, unless another entry is looked at.
  const waiting = work.entries.find((entry) => entry.error && entry.candidates?.length)?.line;
  const asked = ghosts ?? open ?? waiting;
  const candidates = work.entries.find((entry) => entry.line === asked)?.candidates ?? [];
  const undecided = candidates.length > 0 && (ghosts !== null || !candidates.some((c) => c.chosen));

  const keys: Record<string, () => void> = {
    "+": () => view.zoom(1 / 1.25),
    "=": () => view.zoom(1 / 1.25),
    "-": () => view.zoom(1.25),
    "0": view.showAll,
    ArrowLeft: () => view.slide(-1, 0),
    ArrowRight: () => view.slide(1, 0),
    ArrowUp: () => view.slide(0, -1),
    ArrowDown: () => view.slide(0, 1),
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
    <div className="relative min-h-0 flex-1 flex flex-col contain-strict">
      {}
      <svg
        ref={svg}
        id="sheet"
        className={`sheet block h-full min-h-0 w-full flex-1 touch-none ${pick ? "picking" : ""}`}
        viewBox={view.box}
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
        onPointerDown={view.hold}
        onPointerMove={(event) => event.buttons === 1 && view.pull(event)}
        onPointerUp={(event) => {
          const place = view.letGo(event) && regions ? view.paperAt(event) : undefined;
          if (place) void point([place.x, height - place.y]);
        }}
      >
        <rect
          x={0}
          y={0}
          width={width}
          height={height}
          fill="var(--color-paper)"
          stroke="#4a5049"
          strokeWidth={0.25}
        />
        <Rules width={width} height={height} rule={work.edge_rule} />
        <g>
          {drawn.ground.map((mark, i) => (
            <MarkShape
              key={i}
              mark={mark}
              height={height}
              className={`mark-${mark.role}`}
              width={strokes[mark.role]?.width}
            />
          ))}
        </g>
        {/* Layers count from the datum, upwards: an edit that moves the view moves this one group. */}
        <clipPath id="space">
          <rect
            x={drawn.space[0] - drawn.origin[0]}
            y={drawn.origin[1] - drawn.space[3]}
            width={drawn.space[2] - drawn.space[0]}
            height={drawn.space[3] - drawn.space[1]}
          />
        </clipPath>
        <g transform={`translate(${drawn.origin[0]} ${height - drawn.origin[1]})`}>
          <g data-testid="strokes">
            <Layers drawn={drawn} strokes={strokes} construction={construction} step={step} />
          </g>
          <Hovered layers={layers} shown={shown} />
          {current && (
            <g data-testid="current-step" ref={act} aria-hidden="true">
              <Lit layers={layers} meant={(mark: Mark) => mark.step === step} />
              <Needle step={current} />
            </g>
          )}
        </g>
        {undecided && <Ghosts line={asked ?? 0} candidates={candidates} strokes={strokes} height={height} />}
        <OpenedUp height={height} />
        <Wrong height={height} />
        {regions && <RegionMarks regions={regions} cursor={cursor} height={height} />}
        <FindingPlace height={height} />
        <Cloud height={height} />
        {!regions && (
          <g transform={`translate(${touched.origin[0]} ${touched.height - touched.origin[1]})`}>
            <Touches drawn={touched} picking={pick !== null} step={step} />
          </g>
        )}
      </svg>
      <div
        className="flex shrink-0 justify-end gap-1 p-1 pr-2"
        role="group"
        aria-label="Looking at the sheet"
      >
        <Button onClick={() => view.zoom(1 / 1.4)} aria-label="Nearer">
          +
        </Button>
        <Button onClick={() => view.zoom(1.4)} aria-label="Further">
          −
        </Button>
        <Button onClick={view.showAll}>Whole sheet</Button>
      </div>
      {near && view.isNear && <Map drawn={drawn} shown={shown} part={view.part} />}
      {regions && <RegionBar />}
      {pick && (
        <p className="absolute bottom-11 left-1/2 max-w-[90%] -translate-x-1/2 bg-[var(--color-ink)] px-3 py-1 text-[var(--color-page)]">
          Click {pick.wanted} on the sheet{" "}
          <button className="underline" onClick={() => look({ pick: null })}>
            leave off (Esc)
          </button>
        </p>
      )}
    </div>
  );
}
