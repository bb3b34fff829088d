import { memo } from "react";
import type { Layer, Mark, StrokeOut, Work } from "../api/client";
import { type Construction, useLooks } from "../state/looks";
import { MarkShape } from "./MarkShape";

export type Strokes = Record<string, StrokeOut>;

interface Props {
  drawn: Work["drawn"];
  strokes: Strokes;
  construction: Construction;
  /** Up to which step is drawn; null for all. */
  step: number | null;
}

/** What every statement draws: light strokes under all others. A layer that is what it was is not drawn again. */
export function Layers({ drawn, strokes, construction, step }: Props) {
  const layers = (light: boolean) =>
    drawn.layers.map((layer, i) => (
      <LayerStrokes
        key={drawn.places[i]}
        marks={layer.marks}
        strokes={strokes}
        light={light}
        away={light && construction === "away"}
        upTo={step === null || step >= layer.last ? Infinity : step}
        now={step !== null && step >= layer.first && step <= layer.last ? step : -1}
      />
    ));
  return (
    <>
      <g clipPath="url(#space)" className={construction === "faded" ? "opacity-35" : undefined}>
        {layers(true)}
      </g>
      {layers(false)}
    </>
  );
}

interface LayerProps {
  marks: readonly Mark[];
  strokes: Strokes;
  light: boolean;
  /** Whether only what is drawn at this step is shown. */
  away: boolean;
  upTo: number;
  now: number;
}

const LayerStrokes = memo(function LayerStrokes({ marks, strokes, light, away, upTo, now }: LayerProps) {
  return marks.map((mark, i) => {
    const stroke = strokes[mark.role];
    if ((stroke?.light ?? false) !== light || mark.step > upTo || (away && mark.step !== now)) return null;
    return (
      <MarkShape
        key={i}
        mark={mark}
        height={0}
        className={`mark-${mark.role}`}
        width={mark.kind === "dot" ? undefined : stroke?.width}
      />
    );
  });
});

/** Strokes in the accent: what is meant just now. */
export function Lit({ layers, meant }: { layers: readonly Layer[]; meant: (mark: Mark) => boolean }) {
  return (
    <g aria-hidden="true">
      {layers.flatMap((layer) =>
        layer.marks
          .filter(meant)
          .map((mark, i) => (
            <MarkShape
              key={`${layer.key} ${i}`}
              mark={mark}
              height={0}
              className="now"
              width={mark.kind === "dot" ? 0.9 : 0.6}
            />
          )),
      )}
    </g>
  );
}

/** What the pointer is over, its entry, or the one whose card is open: what is read of shows on the sheet. By itself,
 * so that the sheet is not drawn again as the pointer moves. */
export function Hovered({ layers, shown }: { layers: readonly Layer[]; shown: number }) {
  const hover = useLooks((looks) => looks.hover ?? (looks.step === null ? looks.open : null));
  if (hover === null) return null;
  return <Lit layers={layers} meant={(mark) => mark.line === hover && mark.step <= shown} />;
}
