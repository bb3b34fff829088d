import { useQuery } from "@tanstack/react-query";
import { useEffect, useRef, useState } from "react";
import { useParams } from "react-router";
import { cut, type CutIn, type CutOut, workedOut } from "../api/client";
import { keep } from "../api/files";
import { keepMachine, keptMachine, Machine } from "../cutter/Machine";
import { useJob } from "../state/server";
import { Bar, JobBar } from "../views/Bar";
import { Button } from "../ui/Button";
import { Check } from "../ui/Check";

/** A cutter that is not here, seen at work: a program for it, the part it leaves, and how that fits the plan. */
export function Component() {
  const job = Number(useParams().jobId);
  const found = useJob(job);
  const [cut, setCut] = useState<CutOut | null>(null);
  useEffect(() => {
    document.title = "Cutter · Entrick";
  }, []);
  return (
    <div className="flex h-full flex-col">
      <Bar>
        <JobBar job={found.data?.job} />
      </Bar>
      <main id="page" tabIndex={-1} className="flex min-h-0 flex-1 stacked:flex-col">
        <section
          aria-label="The job"
          className="w-[38%] space-y-3 overflow-auto bg-page p-5 stacked:w-full stacked:max-h-[55%]"
        >
          {found.error && <p role="alert">{found.error.message}</p>}
          {found.data && <Setting text={found.data.newest.text} take={setCut} />}
          {cut && <Came cut={cut} />}
        </section>
        <div className="flex min-h-0 min-w-0 flex-1 flex-col">
          {cut && <AtWork key={cut.program} cut={cut} />}
        </div>
      </main>
    </div>
  );
}

/** Width and feed are those of the machine: they are there again at the next visit. */
const KEPT = "entrick.cutter";

function keptSetting(): { tool: string; feed: string } {
  const [tool = "", feed = ""] = (localStorage.getItem(KEPT) ?? "").split(" ");
  return { tool, feed };
}

const FAULTS = ["", "lost step", "late answer", "cut connection"] as const;

function Setting({ text, take }: { text: string; take: (cut: CutOut | null) => void }) {
  const work = useQuery({
    queryKey: ["to cut", text],
    queryFn: () => workedOut({ text }, null),
    staleTime: Infinity,
  });
  const [tool, setTool] = useState(() => keptSetting().tool);
  const [feed, setFeed] = useState(() => keptSetting().feed);
  const [machine, setMachine] = useState(keptMachine);
  const [confirmed, setConfirmed] = useState(false);
  const [fault, setFault] = useState<NonNullable<CutIn["fault"]>>("");
  const [at, setAt] = useState("20");
  const [told, setTold] = useState("");
  const unit = work.data?.unit ?? "";
  const number = (typed: string) => Number(typed.replace(",", "."));
  const go = async () => {
    setTold("");
    localStorage.setItem(KEPT, `${tool.trim()} ${feed.trim()}`);
    if (machine) keepMachine(machine);
    try {
      take(
        await cut({
          body: {
            text,
            tool: number(tool),
            feed: number(feed),
            machine: machine ? JSON.stringify(machine) : "",
            confirmed,
            fault,
            at: Number(at) || 0,
          },
        }),
      );
    } catch (problem) {
      take(null);
      setTold(problem instanceof Error ? problem.message : String(problem));
    }
  };
  const field = (label: string, value: string, put: (value: string) => void, after = "") => (
    <label className="flex items-baseline gap-2">
      <span className="w-36">{label}</span>
      <input
        className="field w-24"
        inputMode="decimal"
        autoComplete="off"
        value={value}
        onChange={(event) => put(event.target.value)}
      />
      {after}
    </label>
  );
  return (
    <form
      className="space-y-2"
      onSubmit={(event) => {
        event.preventDefault();
        void go();
      }}
    >
      <p className="text-pencil">
        A simulated machine: it reads the program by itself and shows what it would leave. Nothing is sent
        anywhere.
      </p>
      {/* A machine's feed is in the unit of the plan, which has to be known first. */}
      {unit && (
        <Machine
          profile={machine}
          put={(profile, feeds) => {
            setMachine(profile);
            if (feeds?.[unit]) setFeed(String(feeds[unit]));
          }}
        />
      )}
      {field("Width of the cut", tool, setTool, unit)}
      {field("Feed", feed, setFeed, `${unit} a minute`)}
      <Check
        label={`The machine is set to ${unit}, and the part is cut at full size`}
        on={confirmed}
        put={setConfirmed}
      />
      {!confirmed && <p className="text-sm text-pencil">To be confirmed before anything is cut.</p>}
      <label className="flex items-baseline gap-2">
        <span className="w-36">A fault to try</span>
        <select
          className="field"
          value={fault}
          onChange={(event) => setFault(event.target.value as typeof fault)}
        >
          {FAULTS.map((each) => (
            <option key={each} value={each}>
              {each || "none"}
            </option>
          ))}
        </select>
      </label>
      {fault && field("at block", at, setAt)}
      <p className="border-l-4 border-accent pl-2 text-base">
        A profile says nothing about strength, fit or material. Check scale and units on the machine before
        cutting; guard, eye protection and the site’s own rules apply.
      </p>
      <Button main disabled={!(number(tool) > 0) || !(number(feed) > 0)}>
        Cut it
      </Button>
      {told && <p role="alert">{told}</p>}
    </form>
  );
}

/** How the part came out. */
function Came({ cut }: { cut: CutOut }) {
  const save = () => keep(new Blob([cut.program], { type: "text/plain" }), "part.nc");
  const verdict = useRef<HTMLDivElement>(null);
  // What is set stands above it, and may fill the page.
  useEffect(() => {
    verdict.current?.scrollIntoView({ block: "nearest" });
  }, [cut]);
  const [west, south, east, north] = cut.extents.map((each) => each.toFixed(2));
  return (
    <div ref={verdict} role="status" data-testid="cut-came" className="space-y-1">
      <p className="text-lg font-semibold">
        {cut.fits ? "✓ The part fits the plan." : "✗ The part does not fit."}
      </p>
      <ul>
        {cut.told.map((row) => (
          <li key={row}>{row}</li>
        ))}
        {cut.happened.map((row) => (
          <li key={row} className="text-pencil">
            {row}
          </li>
        ))}
        <li>
          cut {cut.length.toFixed(0)} mm in {cut.minutes.toFixed(1)} minutes; gouged {cut.gouged.toFixed(3)},
          left {cut.left.toFixed(3)} mm
        </li>
        <li>
          from the program’s zero the tool runs from X{west} Y{south} to X{east} Y{north}
        </li>
        {cut.remarks.map((row) => (
          <li key={row}>{row}</li>
        ))}
      </ul>
      <Button onClick={save}>Keep the program</Button>
      <details>
        <summary className="cursor-pointer">the program</summary>
        <textarea
          className="field h-64 w-full text-sm"
          aria-label="The program, block by block"
          readOnly
          value={cut.program}
        />
      </details>
    </div>
  );
}

type Move = CutOut["moves"][number];

/** How long the whole is shown for, ms. */
const SHOWN = 20_000;

/** A movement, or its first part, as an SVG path; the paper's up is the screen's down. */
function traced(move: Move, share: number): string {
  const [x, y] = move.start;
  if (!move.centre) {
    const [u, v] = move.end;
    return `M${x} ${-y}L${x + (u - x) * share} ${-(y + (v - y) * share)}`;
  }
  const [cx, cy] = move.centre;
  const radius = Math.hypot(x - cx, y - cy);
  const begin = Math.atan2(y - cy, x - cx);
  // In halves, so that once round is drawn as well.
  const to = (part: number) => {
    const angle = begin + move.turn * share * part;
    return `A${radius} ${radius} 0 0 ${move.turn > 0 ? 0 : 1} ${cx + radius * Math.cos(angle)} ${-(cy + radius * Math.sin(angle))}`;
  };
  return `M${x} ${-y}${to(0.5)}${to(1)}`;
}

/** The grey of a cut, the darker the deeper: from a scratch to right through. */
function deep(share: number): string {
  const part = Math.max(0, Math.min(1, share));
  const grey = [0xc9, 0xcb, 0xc3].map((light, k) =>
    Math.round(light + ([0x74, 0x78, 0x6e][k]! - light) * part),
  );
  return `rgb(${grey.join(" ")})`;
}

/** The machine at work: as far as it has come, with pause and stop. */
function AtWork({ cut }: { cut: CutOut }) {
  const [at, setAt] = useState(0);
  const [state, setState] = useState<"runs" | "paused" | "stopped">("runs");
  const all = cut.moves.reduce((sum, move) => sum + move.minutes, 0);
  const last = useRef(0);
  useEffect(() => {
    if (state !== "runs") return;
    let frame = 0;
    last.current = performance.now();
    const step = (now: number) => {
      const gone = now - last.current;
      last.current = now;
      setAt((before) => Math.min(1, before + gone / SHOWN));
      frame = requestAnimationFrame(step);
    };
    frame = requestAnimationFrame(step);
    return () => cancelAnimationFrame(frame);
  }, [state]);
  const ended = at >= 1 || state === "stopped";
  let left = at * all;
  let where: readonly [number, number] = [0, 0];
  let block = 0;
  const deepest = Math.min(-0.001, ...cut.moves.flatMap((move) => move.heights));
  const shown: { key: number; path: string; cutting: boolean; depth: number }[] = [];
  for (const [key, move] of cut.moves.entries()) {
    if (left <= 0) break;
    const share = move.minutes > 0 ? Math.min(1, left / move.minutes) : 1;
    left -= move.minutes;
    block = move.block;
    // A machine without heights cuts right through.
    const depth = deepest < -0.001 ? Math.max(...move.heights) / deepest : 1;
    shown.push({ key, path: traced(move, share), cutting: move.cutting, depth });
    const end = /([-\d.e]+) ([-\d.e]+)$/.exec(shown.at(-1)!.path);
    if (end) where = [Number(end[1]), Number(end[2])];
  }
  const [x0, y0, x1, y1] = cut.bounds;
  const edge = 4 * cut.tool;
  return (
    <>
      <svg
        className="min-h-0 flex-1"
        role="img"
        aria-label={`The machine at work, block ${block}`}
        viewBox={`${x0 - edge} ${-y1 - edge} ${x1 - x0 + 2 * edge} ${y1 - y0 + 2 * edge}`}
        fill="none"
        strokeLinecap="round"
      >
        <rect
          x={x0 - edge}
          y={-y1 - edge}
          width={x1 - x0 + 2 * edge}
          height={y1 - y0 + 2 * edge}
          fill="var(--color-page)"
        />
        {shown.map((each) => (
          <path
            key={each.key}
            d={each.path}
            stroke={each.cutting ? deep(each.depth) : "#b8bbb1"}
            strokeWidth={each.cutting ? cut.tool : cut.tool / 8}
            strokeDasharray={each.cutting ? undefined : `${cut.tool} ${cut.tool}`}
          />
        ))}
        {cut.edges.map((outline, i) => (
          <polygon
            key={i}
            points={outline.map(([x, y]) => `${x},${-y}`).join(" ")}
            stroke="var(--color-ink)"
            strokeWidth={0.75}
            vectorEffect="non-scaling-stroke"
          />
        ))}
        <circle
          cx={where[0]}
          cy={where[1]}
          r={cut.tool / 2}
          stroke="var(--color-accent)"
          strokeWidth={2}
          vectorEffect="non-scaling-stroke"
        />
      </svg>
      <div className="flex items-center gap-3 bg-page px-4 py-2">
        <progress
          className="h-2.5 flex-1 appearance-none [&::-webkit-progress-bar]:bg-tab [&::-webkit-progress-value]:bg-ink [&::-moz-progress-bar]:bg-ink"
          value={at}
          max={1}
          aria-label="How far the cut is"
        />
        <span className="w-40 text-sm" data-testid="cut-at">
          {state === "stopped" ? "stopped" : ended ? "done" : `block ${block}`}, {(at * all).toFixed(1)} of{" "}
          {all.toFixed(1)} min
        </span>
        <Button
          disabled={ended}
          aria-pressed={state === "paused"}
          onClick={() => setState(state === "paused" ? "runs" : "paused")}
        >
          {state === "paused" ? "Go on" : "Pause"}
        </Button>
        <Button disabled={ended} onClick={() => setState("stopped")}>
          Stop
        </Button>
        <Button
          onClick={() => {
            setAt(0);
            setState("runs");
          }}
        >
          From the beginning
        </Button>
      </div>
    </>
  );
}
