import { memo } from "react";
import type { EdgeRuleOut } from "../api/client";

interface Props {
  width: number;
  height: number;
  rule: EdgeRuleOut;
}

/** Rule graduations along the upper and left edge of the paper, life-size in the plan's unit. */
export const Rules = memo(function Rules({ width, height, rule }: Props) {
  const { division, middle, long, number, every } = rule;
  const along = (length: number, mark: (at: number, tick: number) => string) => {
    let path = "";
    for (let i = 0; i * division <= length; i++)
      path += mark(i * division, i % long === 0 ? 4 : i % middle === 0 ? 2.6 : 1.5);
    return path;
  };
  const labels = (length: number) => {
    const found: number[] = [];
    for (let i = every; i * number < length; i += every) found.push(i);
    return found;
  };
  return (
    <g aria-hidden="true" fontSize={3} stroke="#2c322d" strokeWidth={0.14}>
      <rect x={0} y={-8} width={width} height={7} fill="var(--color-wash)" stroke="none" opacity={0.55} />
      <rect x={-8} y={0} width={7} height={height} fill="var(--color-wash)" stroke="none" opacity={0.55} />
      <path d={along(width, (at, tick) => `M${at} -1v${-tick}`)} />
      <path d={along(height, (at, tick) => `M-1 ${height - at}h${-tick}`)} />
      {labels(width).map((n) => (
        <text key={`x${n}`} x={n * number + 0.7} y={-5.3} stroke="none">
          {n}
        </text>
      ))}
      {labels(height).map((n) => (
        <text key={`y${n}`} x={-7.4} y={height - n * number - 0.7} stroke="none">
          {n}
        </text>
      ))}
    </g>
  );
});
