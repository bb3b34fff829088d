import { memo } from "react";

interface Props {
  width: number;
  height: number;
  unit: "mm" | "in";
}

/** Rule graduations along the upper and left edge of the paper, life-size in the plan's unit. */
export const Rules = memo(function Rules({ width, height, unit }: Props) {
  const fine = unit === "mm" ? 1 : 25.4 / 16;
  const major = unit === "mm" ? 10 : 16;
  const middle = unit === "mm" ? 5 : 4;
  const along = (length: number, mark: (at: number, tick: number) => string) => {
    let path = "";
    for (let i = 0; i * fine <= length; i++)
      path += mark(i * fine, i % major === 0 ? 4 : i % middle === 0 ? 2.6 : 1.5);
    return path;
  };
  const every = unit === "mm" ? 20 : 1;
  const labels = (length: number) => {
    const found: number[] = [];
    for (let i = every; i * (unit === "mm" ? 1 : 25.4) < length; i += every) found.push(i);
    return found;
  };
  const mm = unit === "mm" ? 1 : 25.4;
  return (
    <g aria-hidden="true" fontSize={3} stroke="#2c322d" strokeWidth={0.14}>
      <rect x={0} y={-8} width={width} height={7} fill="var(--color-wash)" stroke="none" opacity={0.55} />
      <rect x={-8} y={0} width={7} height={height} fill="var(--color-wash)" stroke="none" opacity={0.55} />
      <path d={along(width, (at, tick) => `M${at} -1v${-tick}`)} />
      <path d={along(height, (at, tick) => `M-1 ${height - at}h${-tick}`)} />
      {labels(width).map((n) => (
        <text key={`x${n}`} x={n * mm + 0.7} y={-5.3} stroke="none">
          {n}
        </text>
      ))}
      {labels(height).map((n) => (
        <text key={`y${n}`} x={-7.4} y={height - n * mm - 0.7} stroke="none">
          {n}
        </text>
      ))}
    </g>
  );
});
