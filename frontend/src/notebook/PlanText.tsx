import { useEffect, useState } from "react";
import type { Work } from "../api/client";
import { finished, replace } from "../state/document";
import { useProof } from "../state/server";
import { Mistake } from "./Mistake";

/** The plan as text: the other face of the same statements. */
export function PlanText({ work }: { work: Work }) {
  const [typed, setTyped] = useState<string | null>(null);
  useEffect(() => {
    if (typed === null) return;
    const later = setTimeout(() => void replace(typed, "text"), 250);
    return () => clearTimeout(later);
  }, [typed]);
  const wrong = useProof()?.findings.filter((finding) => finding.rule === "mistake") ?? [];
  return (
    <section aria-label="The plan as text" className="flex h-full flex-col">
      <p className="text-pencil">The same plan, to read aloud, mail or keep under version control.</p>
      <textarea
        className="slip min-h-0 w-full flex-1 resize-none p-2 font-mono text-sm"
        aria-label="Plan text"
        spellCheck={false}
        value={typed ?? work.text}
        onChange={(event) => setTyped(event.target.value)}
        onBlur={() => {
          if (typed !== null) void replace(typed, "text").then(finished);
          setTyped(null);
        }}
      />
      <div className="max-h-40 overflow-auto">
        {wrong.map((finding, i) => (
          <Mistake key={i} message={`line ${finding.line}: ${finding.message}`} line={finding.line} />
        ))}
      </div>
    </section>
  );
}
