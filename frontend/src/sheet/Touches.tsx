import { memo } from "react";
import type { Mark, Work } from "../api/client";
import { look, useLooks } from "../state/looks";
import { MarkShape } from "./MarkShape";

interface Props {
  drawn: Work["drawn"];
  picking: boolean;
  /** Up to which step can be pointed at. */
  step: number | null;
}

/** What can be pointed at: wide, unseen strokes over the drawn ones, points over lines. */
export const Touches = memo(function Touches({ drawn, picking, step }: Props) {
  return (
    <g aria-hidden="true">
      {[false, true].map((dots) =>
        drawn.layers.map((layer, i) => (
          <LayerTouches
            key={`${drawn.places[i]} ${dots}`}
            marks={layer.marks}
            picking={picking}
            dots={dots}
            upTo={step === null || step >= layer.last ? Infinity : step}
          />
        )),
      )}
    </g>
  );
});

interface LayerProps {
  marks: readonly Mark[];
  picking: boolean;
  dots: boolean;
  upTo: number;
}

const name = (mark: Mark) => ("name" in mark ? mark.name : "");

const LayerTouches = memo(function LayerTouches({ marks, picking, dots, upTo }: LayerProps) {
  const touched = marks.filter(
    (mark) =>
      mark.line > 0 &&
      mark.kind !== "text" &&
      (mark.kind === "dot") === dots &&
      mark.step <= upTo &&
      (!picking || name(mark)),
  );
  return (
    <>
      {touched.map((mark, i) => (
        <g
          key={i}
          data-name={name(mark)}
          onMouseEnter={() => look({ hover: mark.line })}
          onMouseLeave={() => look({ hover: null })}
          onClick={() => {
            const { pick } = useLooks.getState();
            if (pick && name(mark)) pick.take(name(mark));
            else if (!pick) look({ open: mark.line });
          }}
        >
          <MarkShape mark={mark} height={0} className="touch" width={mark.kind === "dot" ? 2.2 : 2.6} />
        </g>
      ))}
    </>
  );
});
