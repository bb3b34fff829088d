import type { CandidateOut, Mark, StepOut } from "../api/client";
import { edit } from "../state/document";
import { look, type Regions, useLooks } from "../state/looks";
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
  line: number;
  candidates: readonly CandidateOut[];
  strokes: Strokes;
}

/** The solutions that fit, each with its letter in a ring, to be pressed: no name of a point looks like that. */
export function Ghosts({ line, candidates, strokes, height }: GhostsProps) {
  const letter = useLooks((looks) => looks.letter);
  return candidates.map((candidate) => (
    <g
      key={candidate.letter}
      data-testid={`ghost-${candidate.letter}`}
      className="cursor-pointer"
      pointerEvents="all"
      onPointerUp={(event) => {
        event.stopPropagation();
        void edit({ op: "choose", line, letter: candidate.letter });
      }}
      onPointerEnter={() => look({ letter: candidate.letter })}
      onPointerLeave={() => look({ letter: null })}
    >
      {(candidate.marks as unknown as Mark[]).map((mark, i) =>
        mark.kind === "text" ? (
          <g key={i}>
            <circle cx={mark.x + 1.2} cy={height - mark.y - 1.7} r={3.2} className="candidate-ring" />
            <text
              x={mark.x + 1.2}
              y={height - mark.y - 0.3}
              fontSize={4}
              textAnchor="middle"
              className="candidate-letter"
            >
              {mark.text}
            </text>
          </g>
        ) : (
          <MarkShape
            key={i}
            mark={mark}
            height={height}
            className="mark-ghost"
            width={mark.kind === "dot" || candidate.letter === letter ? 0.9 : strokes.ghost?.width}
          />
        ),
      )}
    </g>
  ));
}

/** A step opened up into compass and straight edge, as far as it is followed. */
export function OpenedUp({ height }: OnPaper) {
  const opened = useLooks((looks) => looks.opened);
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

/** What a wrong answer comes to: dashed, so that colour alone never tells. */
export function Wrong({ height }: OnPaper) {
  const wrong = useLooks((looks) => looks.wrong);
  if (!wrong?.length) return null;
  return (
    <g data-testid="wrong" role="img" aria-label="As it comes out with that answer">
      {wrong.map((run, i) => (
        <polyline
          key={i}
          className="now"
          strokeWidth={0.6}
          strokeDasharray="2.4 1.2"
          points={run.map(([x, y]) => `${x},${height - y}`).join(" ")}
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
  const spot = useLooks((looks) => looks.spot);
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
  const cloud = useLooks((looks) => looks.cloud);
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
