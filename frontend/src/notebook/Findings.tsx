import type { FindingOut, WorkOut } from "../api/client";
import { useBench } from "../state/bench";
import { Figures } from "../ui/Figures";

const SIGNS = { wrong: "✗", look: "?", note: "·", good: "✓" } as const;
const HEADS = {
  wrong: "Wrong",
  look: "Look again",
  note: "To note",
  good: "In order",
} as const;

/** What the inspection found, most serious first; each lights its place on the sheet. */
export function Findings({ work }: { work: WorkOut }) {
  const weights = ["wrong", "look", "note", "good"] as const;
  return (
    <section aria-label="Findings">
      {weights.map((weight) => {
        const found = work.findings.filter((finding) => finding.weight === weight);
        if (found.length === 0) return null;
        return (
          <section key={weight} className="pb-7">
            <h2 className="text-lg font-semibold">
              {HEADS[weight]} ({found.length})
            </h2>
            <ul>
              {found.map((finding, i) => (
                <Row key={i} finding={finding} />
              ))}
            </ul>
          </section>
        );
      })}
    </section>
  );
}

function Row({ finding }: { finding: FindingOut }) {
  const set = useBench((bench) => bench.set);
  const show = () => set({ spot: finding.place, hover: finding.line || null });
  const hide = () => set({ spot: null, hover: null });
  return (
    <li>
      <button
        className="flex w-full gap-2 text-left hover:bg-wash focus:bg-wash"
        onMouseEnter={show}
        onMouseLeave={hide}
        onFocus={show}
        onBlur={hide}
        onClick={show}
      >
        <span
          aria-hidden="true"
          className={`w-8 shrink-0 text-right font-semibold ${finding.weight === "wrong" ? "text-accent" : ""}`}
        >
          {SIGNS[finding.weight]}
        </span>
        <span>
          <Figures text={finding.message} />
        </span>
      </button>
    </li>
  );
}
