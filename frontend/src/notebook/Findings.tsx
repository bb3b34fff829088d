import { Link } from "react-router";
import type { Edit, FindingOut, MendOut, ProofOut } from "../api/client";
import { edit, useSome } from "../state/document";
import { addressOf } from "../state/handbook";
import { look } from "../state/looks";
import { Figures } from "../ui/Figures";
import { Button } from "../ui/Button";

export const SIGNS = { wrong: "✗", look: "?", note: "·", good: "✓" } as const;
const HEADS = {
  wrong: "Wrong",
  look: "Look again",
  note: "To note",
  good: "In order",
} as const;

interface Props {
  proof: ProofOut | undefined;
  /** Where the proof stands in full. */
  link?: string;
  /** Which findings, all when not said. */
  weights?: readonly (keyof typeof HEADS)[];
  /** Whether what was measured stands in tables beside the list. */
  tabled?: boolean;
  /** What the list is called by assistive technology. */
  label?: string;
}

const WEIGHTS = ["wrong", "look", "note", "good"] as const;
const TABLED = new Set(["junction", "outline"]);

/** What the inspection found, most serious first; each lights its place on the sheet. */
export function Findings({ proof, link, weights = WEIGHTS, tabled = false, label = "Findings" }: Props) {
  if (!proof) return <p>Inspecting…</p>;
  return (
    <section aria-label={label}>
      {link && (
        <p className="text-pencil">
          Every size and junction as measured stands in the{" "}
          <Link to={link} className="underline">
            proof
          </Link>
          .
        </p>
      )}
      {weights.map((weight) => {
        const found = proof.findings.filter(
          (finding) =>
            finding.weight === weight &&
            !(tabled && (weight === "note" || weight === "good") && TABLED.has(finding.rule)),
        );
        if (found.length === 0) return null;
        const list = (
          <ul>
            {found.map((finding, i) => (
              <Row key={i} finding={finding} />
            ))}
          </ul>
        );
        // What is in order is one line, until somebody asks for it.
        if (weight === "good")
          return (
            <details key={weight} className="pb-7">
              <summary className="cursor-pointer">
                <span className="text-lg font-semibold">
                  {HEADS[weight]} ({found.length})
                </span>
              </summary>
              {list}
            </details>
          );
        return (
          <section key={weight} className="pb-7">
            <h2 className="text-lg font-semibold">
              {HEADS[weight]} ({found.length})
            </h2>
            {list}
          </section>
        );
      })}
    </section>
  );
}

/** A mend as the edit that makes it. */
function asEdit(mend: MendOut): Edit {
  if (mend.op === "move") return { op: "move", line: mend.line, to: mend.to };
  if (mend.op === "insert") return { op: "insert", after: mend.line, text: mend.text };
  return { op: "line", line: mend.line, text: mend.text };
}

function Row({ finding }: { finding: FindingOut }) {
  const { work } = useSome("work");
  // As the order of work numbers it.
  const numbered = (work?.entries ?? []).filter((entry) => !entry.comment).map((entry) => entry.line);
  const number = finding.line ? numbered.indexOf(finding.line) + 1 : 0;
  const mend = finding.mend;
  const show = () => look({ spot: finding.place, hover: finding.line || null });
  const hide = () => look({ spot: null, hover: null });
  return (
    <li className="flex items-start gap-2">
      <button
        className="flex min-w-0 flex-1 gap-2 text-left hover:bg-wash focus:bg-wash"
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
          {number > 0 && <span className="text-pencil">{number} · </span>}
          <Figures text={finding.message} />
        </span>
      </button>
      {finding.page && (
        <Link
          className="w-7 shrink-0 text-center text-pencil hover:underline"
          to={addressOf("inspection", finding.page)}
          aria-label={`What this rule asks: ${finding.message}`}
          title="what this rule asks"
        >
          §
        </Link>
      )}
      {mend && (
        <Button className="shrink-0" onClick={() => void edit(asEdit(mend))}>
          {mend.told}
          <span className="sr-only">: {mend.text}</span>
        </Button>
      )}
    </li>
  );
}
