import type { Work } from "../api/client";
import { MarkShape } from "./MarkShape";

interface Props {
  drawn: Work["drawn"];
  /** Up to which step what is drawn is shown. */
  shown: number;
  /** The part that is looked at. */
  part: { x: number; y: number; width: number; height: number };
}

/** Roles of strokes that are seen on a map. */
const SEEN = new Set(["construction", "outline", "border", "strip"]);

/** The whole sheet, small, with the part one is near to. */
export function Map({ drawn, shown, part }: Props) {
  const { width, height, origin, layers } = drawn;
  const thin = width / 250;
  return (
    <svg
      className="absolute top-2 right-2 h-28 border border-[#4a5049] bg-paper"
      viewBox={`0 0 ${width} ${height}`}
      aria-hidden="true"
      data-testid="map"
      fill="none"
    >
      <g transform={`translate(${origin[0]} ${height - origin[1]})`} stroke="#8b8f85">
        {layers.flatMap((layer) =>
          layer.marks
            .filter((mark) => mark.step <= shown && mark.kind !== "text" && SEEN.has(mark.role))
            .map((mark, i) => (
              <MarkShape key={`${layer.key} ${i}`} mark={mark} height={0} className="" width={thin} />
            )),
        )}
      </g>
      <rect {...part} stroke="var(--color-accent)" strokeWidth={thin * 2} />
    </svg>
  );
}
