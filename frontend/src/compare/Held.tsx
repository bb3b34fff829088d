import { useQuery } from "@tanstack/react-query";
import { compareOutlines, type CompareIn, type ComparedOut } from "../api/client";

/** What was made, held against what is meant: both over each other, what is off lit, and each outline all along. */
export function Held({ asked }: { asked: CompareIn }) {
  const found = useQuery({
    queryKey: ["compare", asked],
    queryFn: ({ signal }) => compareOutlines({ body: asked, signal }),
    retry: false,
    staleTime: Infinity,
    placeholderData: (before) => before,
  });
  if (found.error)
    return (
      <p role="alert" className="p-5">
        {found.error.message}
      </p>
    );
  if (!found.data) return <p className="p-5">Comparing…</p>;
  const data = found.data;
  return (
    <div className="flex min-h-0 flex-1 flex-col bg-page" data-testid="held">
      <div role="status" className="space-y-1 p-4 pb-0">
        <p className="text-lg font-semibold">
          {data.fits
            ? `✓ Within ${asked.within} ${data.unit} all along.`
            : `✗ Not within ${asked.within} ${data.unit}.`}
        </p>
        <ul>
          {data.told.map((row) => (
            <li key={row}>{row}</li>
          ))}
        </ul>
        {data.moved && <p className="text-sm text-pencil">{data.moved}</p>}
      </div>
      <Over data={data} within={asked.within ?? 0.1} />
      <ul className="max-h-[38%] space-y-2 overflow-auto px-4 pb-3" aria-label="Outlines">
        {data.outlines.map((outline) => (
          <li key={outline.name}>
            <span className="font-semibold">{outline.name}</span>: off by {said(outline.greatest)} {data.unit}{" "}
            at {said(outline.at[0])}, {said(outline.at[1])}; {said(outline.mean)} in the mean
            <Along outline={outline} within={asked.within ?? 0.1} unit={data.unit} />
          </li>
        ))}
      </ul>
    </div>
  );
}

const said = (value: number) => value.toFixed(3).replace(/\.?0+$/, "");

type Outline = ComparedOut["outlines"][number];

/** Places that are off by more than may be, one after another. */
function runsOff(outline: Outline, within: number): string[] {
  const runs: string[] = [];
  let run = "";
  for (const [x, y, , off] of outline.spots) {
    if (Math.abs(off) > within) run += `${run ? "L" : "M"}${x} ${-y}`;
    else if (run) {
      runs.push(run);
      run = "";
    }
  }
  return run ? [...runs, run] : runs;
}

/** What is meant in grey and broad, what was made in ink over it, what is off in red. */
function Over({ data, within }: { data: ComparedOut; within: number }) {
  const [x0, y0, x1, y1] = data.box;
  const room = 0.06 * Math.max(x1 - x0, y1 - y0);
  const off = data.outlines.filter((outline) => !outline.within);
  return (
    <svg
      className="min-h-0 w-full flex-1"
      role="img"
      aria-label={`What was made over what is meant: ${off.length} of ${data.outlines.length} outlines off`}
      viewBox={`${x0 - room} ${y0 - room} ${x1 - x0 + 2 * room} ${y1 - y0 + 2 * room}`}
      fill="none"
    >
      {data.meant.map((path, i) => (
        <path
          key={`meant ${i}`}
          d={path}
          stroke="var(--color-tab)"
          strokeWidth={7}
          vectorEffect="non-scaling-stroke"
        />
      ))}
      {data.made.map((path, i) => (
        <path
          key={`made ${i}`}
          d={path}
          stroke="var(--color-ink)"
          strokeWidth={1.25}
          vectorEffect="non-scaling-stroke"
        />
      ))}
      {data.outlines.flatMap((outline) =>
        runsOff(outline, within).map((run, i) => (
          <path
            key={`${outline.name} ${i}`}
            d={run}
            stroke="var(--color-accent)"
            strokeWidth={3}
            vectorEffect="non-scaling-stroke"
          />
        )),
      )}
      {off.map((outline) => (
        <circle
          key={outline.name}
          cx={outline.at[0]}
          cy={-outline.at[1]}
          r={room / 3}
          stroke="var(--color-accent)"
          strokeWidth={2}
          vectorEffect="non-scaling-stroke"
        />
      ))}
    </svg>
  );
}

/** How far off an outline is all along it: above the line too much material, below too little. */
function Along({ outline, within, unit }: { outline: Outline; within: number; unit: string }) {
  const long = outline.spots.at(-1)?.[2] ?? 1;
  const high = 1.15 * Math.max(within, ...outline.spots.map((spot) => Math.abs(spot[3])));
  const points = outline.spots.map(([, , along, off]) => `${along},${-off}`).join(" ");
  return (
    <figure className="flex items-center gap-2">
      <svg
        className="h-14 min-w-0 flex-1 bg-white"
        preserveAspectRatio="none"
        role="img"
        aria-label={`How far ${outline.name} is off all along, at most ${said(outline.greatest)} ${unit}`}
        viewBox={`0 ${-high} ${long} ${2 * high}`}
        fill="none"
      >
        <rect x={0} y={-within} width={long} height={2 * within} fill="var(--color-page)" />
        <line
          x1={0}
          x2={long}
          y1={0}
          y2={0}
          stroke="var(--color-pencil)"
          strokeWidth={0.75}
          vectorEffect="non-scaling-stroke"
        />
        <polyline
          points={points}
          stroke={outline.within ? "var(--color-ink)" : "var(--color-accent)"}
          strokeWidth={1.5}
          vectorEffect="non-scaling-stroke"
        />
      </svg>
      <figcaption className="w-28 shrink-0 text-sm text-pencil">±{said(within)} is the light band</figcaption>
    </figure>
  );
}
