import { useState } from "react";
import type { LookedOut } from "../api/client";

interface Props {
  looked: LookedOut;
  lit: string | null;
  light: (name: string | null) => void;
}

type Row = LookedOut["rows"][number];

/** How a piece is drawn over the picture: colour and dash, so that colour alone never tells. */
const DRAWN: Record<Row["judged"], { stroke: string; dash?: string }> = {
  within: { stroke: "#1d6b4f" },
  unsure: { stroke: "#8a6410", dash: "4 1.5" },
  off: { stroke: "#b3261e", dash: "2 1" },
  missing: { stroke: "#b3261e", dash: "0.6 1.4" },
};

const run = (path: Row["path"]) => path.map(([x, y]) => `${x},${y}`).join(" ");

/** The picture of a sheet, straightened, with the plan over it and every piece as it was drawn. */
export function DrawnSheet({ looked, lit, light }: Props) {
  const [share, setShare] = useState(60);
  const { width, height, rows } = looked;
  return (
    <>
      <svg
        className="min-h-0 flex-1 bg-table"
        viewBox={`-4 -4 ${width + 8} ${height + 8}`}
        role="img"
        aria-label={`The sheet, straightened. ${looked.sentence}`}
        fill="none"
      >
        <rect width={width} height={height} fill="#fff" />
        <image
          href={looked.picture}
          width={width}
          height={height}
          preserveAspectRatio="none"
          opacity={1 - share / 125}
        />
        <g opacity={share / 100}>
          {rows.map((row, index) => (
            <polyline key={index} points={run(row.planned)} stroke="#2b5c9e" strokeWidth={0.35} />
          ))}
          {rows.map((row, index) => {
            const { stroke, dash } = DRAWN[row.judged];
            return (
              <polyline
                key={index}
                points={run(row.judged === "missing" ? row.planned : row.path)}
                stroke={stroke}
                strokeWidth={lit === row.name ? 1.6 : 0.8}
                strokeDasharray={dash}
                strokeLinecap="round"
                onMouseEnter={() => light(row.name)}
                onMouseLeave={() => light(null)}
              />
            );
          })}
        </g>
      </svg>
      <div className="flex flex-wrap items-center gap-x-4 gap-y-1 bg-page px-4 py-2 text-sm">
        <label className="flex items-center gap-2">
          picture
          <input
            type="range"
            className="accent-ink"
            min={0}
            max={100}
            value={share}
            aria-label="From the picture to the plan"
            onChange={(event) => setShare(Number(event.target.value))}
          />
          plan
        </label>
        <Key stroke="#2b5c9e" said="the plan" />
        <Key {...DRAWN.within} said="drawn, within" />
        <Key {...DRAWN.unsure} said="not for sure" />
        <Key {...DRAWN.off} said="off" />
        <Key {...DRAWN.missing} said="not there" />
      </div>
    </>
  );
}

function Key({ stroke, dash, said }: { stroke: string; dash?: string; said: string }) {
  return (
    <span className="flex items-center gap-1.5">
      <svg width="26" height="6" viewBox="0 0 13 3" aria-hidden="true">
        <line x1="0.5" y1="1.5" x2="12.5" y2="1.5" stroke={stroke} strokeDasharray={dash} />
      </svg>
      {said}
    </span>
  );
}
