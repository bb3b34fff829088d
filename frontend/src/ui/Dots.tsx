const WIDE = 640;
const TALL = 120;
const LEFT = 46;
const EDGE = 8;

interface DotsProps {
  /** What is off, one value after another. */
  values: readonly number[];
  /** When each was, as it is shown. */
  days: readonly string[];
  /** Mean with half its interval; nothing where too few values are known. */
  mean?: { at: number; off: number };
  /** One standard deviation of the hand that is assumed. */
  assumed: number;
  unit: string;
  label: string;
}

/** Values as dots, one after another, with their mean and its interval, against the hand that is assumed. */
export function Dots({ values, days, mean, assumed, unit, label }: DotsProps) {
  const most = Math.max(2 * assumed, ...values.map(Math.abs), 0.1) * 1.1;
  const y = (off: number) => TALL / 2 - (off / most) * (TALL / 2 - EDGE);
  const x = (i: number) => LEFT + ((i + 0.5) / values.length) * (WIDE - LEFT - EDGE);
  const ticks = [most / 1.1, 0, -most / 1.1];
  const told = mean
    ? `${label}: ${values.length} values, mean ${mean.at.toFixed(2)} ± ${mean.off.toFixed(2)} ${unit}`
    : `${label}: ${values.length} values`;
  return (
    <svg viewBox={`0 0 ${WIDE} ${TALL}`} className="w-full max-w-3xl" role="img" aria-label={told}>
      <rect
        x={LEFT}
        y={y(assumed)}
        width={WIDE - LEFT}
        height={y(-assumed) - y(assumed)}
        fill="var(--color-ruling)"
      />
      {mean && (
        <rect
          x={LEFT}
          y={y(mean.at + mean.off)}
          width={WIDE - LEFT}
          height={Math.max(1, y(mean.at - mean.off) - y(mean.at + mean.off))}
          fill="var(--color-accent)"
          opacity={0.25}
        />
      )}
      <line x1={LEFT} x2={WIDE} y1={y(0)} y2={y(0)} stroke="var(--color-pencil)" strokeDasharray="6 3" />
      {mean && <line x1={LEFT} x2={WIDE} y1={y(mean.at)} y2={y(mean.at)} stroke="var(--color-accent)" />}
      {ticks.map((tick) => (
        <text
          key={tick}
          x={LEFT - 4}
          y={y(tick) + 4}
          textAnchor="end"
          fontSize={12}
          fill="var(--color-pencil)"
        >
          {tick > 0 ? "+" : tick < 0 ? "−" : ""}
          {Math.abs(tick).toFixed(1)}
        </text>
      ))}
      {values.map((value, i) => (
        <circle key={i} cx={x(i)} cy={y(value)} r={3} fill="var(--color-ink)">
          <title>{`${days[i] ?? ""}: ${value.toFixed(2)} ${unit}`}</title>
        </circle>
      ))}
      {[0, values.length - 1].map(
        (i) =>
          values.length > 1 && (
            <text
              key={i}
              x={i === 0 ? LEFT : WIDE}
              y={TALL - 1}
              textAnchor={i === 0 ? "start" : "end"}
              fontSize={12}
              fill="var(--color-pencil)"
            >
              {days[i]}
            </text>
          ),
      )}
    </svg>
  );
}
