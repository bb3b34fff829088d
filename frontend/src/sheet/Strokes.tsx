import { memo } from "react";
import type { Layer, Mark, StrokeOut } from "../api/client";
import type { Construction } from "../state/bench";
import { MarkShape } from "./MarkShape";

export type Strokes = Record<string, StrokeOut>;

interface Props {
  layers: readonly Layer[];
  strokes: Strokes;
  construction: Construction;
  /** Up to which step is drawn; null for all. */
  step: number | null;
}

/** What every statement draws. A layer that is what it was is not drawn again. */
export function Layers({ layers, strokes, construction, step }: Props) {
  return layers.map((layer) => (
    <LayerStrokes
      key={layer.key}
      marks={layer.marks}
      strokes={strokes}
      construction={construction}
      upTo={step === null || step >= layer.last ? Infinity : step}
      now={step !== null && step >= layer.first && step <= layer.last ? step : -1}
    />
  ));
}

interface LayerProps {
  marks: readonly Mark[];
  strokes: Strokes;
  construction: Construction;
  upTo: number;
  now: number;
}

const LayerStrokes = memo(function LayerStrokes({ marks, strokes, construction, upTo, now }: LayerProps) {
  const isLight = (mark: Mark) => strokes[mark.role]?.light ?? false;
  const shown = (mark: Mark, i: number) => {
    const stroke = strokes[mark.role];
    const light = isLight(mark);
    if (mark.step > upTo || (construction === "away" && light && mark.step !== now)) return null;
    return (
      <MarkShape
        key={i}
        mark={mark}
        height={0}
        className={`mark-${mark.role}${light && construction === "faded" ? " opacity-35" : ""}`}
        width={mark.kind === "dot" ? undefined : stroke?.width}
      />
    );
  };
  return (
    <>
      <g clipPath="url(#space)">{marks.map((mark, i) => isLight(mark) && shown(mark, i))}</g>
      {marks.map((mark, i) => !isLight(mark) && shown(mark, i))}
    </>
  );
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
