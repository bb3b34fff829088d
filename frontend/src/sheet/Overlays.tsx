import type { CandidateOut, Mark, StepOut } from "../api/client";
import { type Regions, useBench } from "../state/bench";
import { MarkShape } from "./MarkShape";
import type { Strokes } from "./Strokes";

/** Height of the paper, mm: places on it are counted upwards. */
interface OnPaper {
  height: number;
}

/** The needle of the step at hand; drawn from the datum. */
export function Needle({ step }: { step: StepOut }) {
  if (!step.needle) return null;
  const [x, y] = step.needle;
  return (
    <g className="now" data-testid="needle">
      <circle cx={x} cy={-y} r={1.6} strokeWidth={0.35} />
      <circle className="now dot" cx={x} cy={-y} r={0.55} />
    </g>
  );
}

interface GhostsProps extends OnPaper {
  candidates: readonly CandidateOut[];
  strokes: Strokes;
}

/** The solutions that fit, each with its letter. */
export function Ghosts({ candidates, strokes, height }: GhostsProps) {
  const letter = useBench((bench) => bench.letter);
  return candidates.map((candidate) => (
    <g key={candidate.letter} data-testid={`ghost-${candidate.letter}`}>
      {(candidate.marks as unknown as Mark[]).map((mark, i) => (
        <MarkShape
          key={i}
          mark={mark}
          height={height}
          className={mark.kind === "text" ? "now" : "mark-ghost"}
          width={mark.kind === "dot" || candidate.letter === letter ? 0.9 : strokes.ghost?.width}
        />
      ))}
    </g>
  ));
}

/** A step opened up into compass and straight edge, as far as it is followed. */
export function OpenedUp({ height }: OnPaper) {
  const opened = useBench((bench) => bench.opened);
  if (!opened) return null;
  return (
    <g data-testid="opened" aria-hidden="true">
      {(opened.found.marks as unknown as Mark[])
        .filter((mark) => mark.step <= opened.upTo)
        .map((mark, i) => (
          <MarkShape
            key={i}
            mark={mark}
            height={height}
            className="now"
            width={mark.kind === "dot" ? 0.7 : mark.step === opened.upTo ? 0.5 : 0.25}
          />
        ))}
    </g>
  );
}

interface RegionsProps extends OnPaper {
  regions: Regions;
  cursor: readonly [number, number];
}

/** The regions pointed at with the boundary they make, and the cross that is moved by keys. */
export function RegionMarks({ regions, cursor, height }: RegionsProps) {
  return (
    <g data-testid="regions" aria-hidden="true">
      {(regions.found?.marks as unknown as Mark[] | undefined)?.map((mark, i) => (
        <MarkShape key={i} mark={mark} height={height} className="now" width={0.9} />
      ))}
      {regions.spots.map(([x, y]) => (
        <circle key={`${x} ${y}`} className="now dot" cx={x} cy={height - y} r={1.2} />
      ))}
      <path
        className="now"
        data-testid="cross"
        strokeWidth={0.4}
        d={`M${cursor[0] - 4} ${height - cursor[1]}h8m-4 -4v8`}
      />
    </g>
  );
}

/** Where a finding is. */
export function FindingPlace({ height }: OnPaper) {
  const spot = useBench((bench) => bench.spot);
  if (!spot) return null;
  return (
    <circle
      className="now"
      data-testid="finding-place"
      cx={spot[0]}
      cy={height - spot[1]}
      r={4}
      strokeWidth={0.6}
    />
  );
}

/** Where the hands of a rehearsal put a join, so many times as far off as they are. */
export function Cloud({ height }: OnPaper) {
  const cloud = useBench((bench) => bench.cloud);
  if (!cloud) return null;
  const [x, y] = cloud.at;
  return (
    <g data-testid="cloud" aria-hidden="true">
      {cloud.places.map(([dx, dy], i) => (
        <circle
          key={i}
          className="now dot"
          cx={x + dx * cloud.times}
          cy={height - y - dy * cloud.times}
          r={cloud.times > 1 ? 0.35 : 0.12}
        />
      ))}
    </g>
  );
}
