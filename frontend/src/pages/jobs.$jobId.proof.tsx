import { useEffect } from "react";
import { useParams } from "react-router";
import type { ProofOut } from "../api/client";
import { Findings } from "../notebook/Findings";
import { Signing } from "../office/Signing";
import { Sheet } from "../sheet/Sheet";
import { load, useDocument, useSome, useUnsaved } from "../state/document";
import { look } from "../state/looks";
import { useProof } from "../state/server";
import { Figures } from "../ui/Figures";
import { Heads } from "../ui/Heads";
import { Bar, JobBar } from "../views/Bar";
import { OnPaper } from "../views/OnPaper";
import { Issue } from "../views/Issue";

/** The Proof: what was found, what was measured, and every junction, beside the sheet. */
export function Component() {
  const { jobId } = useParams();
  const { job, work, message } = useSome("job", "work", "message");
  const proof = useProof();
  const unsaved = useUnsaved();
  useEffect(() => {
    if (useDocument.getState().job?.id !== Number(jobId)) void load(Number(jobId));
  }, [jobId]);
  useEffect(() => {
    document.title = work ? `Proof of ${work.title || "Untitled"} · Entrick` : "Entrick";
  }, [work]);
  return (
    <div className="flex h-full flex-col">
      <Bar>
        <JobBar job={work ?? undefined}>
          {job && <Signing job={job.id} unsaved={unsaved} />}
          {work && <Issue work={work} proof={proof} />}
        </JobBar>
      </Bar>
      {!work || !job ? (
        <p className="p-8">{message || "Opening the job…"}</p>
      ) : (
        <main id="page" tabIndex={-1} className="flex min-h-0 flex-1 stacked:flex-col">
          <div
            className="page plain w-[46%] min-w-[420px] overflow-auto px-4 pb-6 stacked:min-h-0 stacked:w-full stacked:min-w-0 stacked:flex-1"
            tabIndex={-1}
          >
            {proof && <Verdict proof={proof} />}
            <Findings proof={proof} weights={["wrong", "look", "note"]} tabled />
            {proof && <Measures proof={proof} unit={work.unit} />}
            <Findings proof={proof} weights={["good"]} tabled label="In order" />
            {proof && <Junctions proof={proof} />}
            <OnPaper work={work} />
          </div>
          <div className="flex min-h-0 min-w-0 flex-1 flex-col stacked:order-first stacked:h-[52%] stacked:flex-none">
            <Sheet key={`${work.sheet.width} ${work.sheet.height}`} work={work} />
          </div>
        </main>
      )}
    </div>
  );
}

function Verdict({ proof }: { proof: ProofOut }) {
  const count = (weight: string) => proof.findings.filter((finding) => finding.weight === weight).length;
  const wrong = count("wrong");
  const look = count("look");
  const told =
    wrong > 0
      ? `${wrong} wrong`
      : look > 0
        ? `Nothing wrong; ${look} to look at again`
        : "Proved: nothing wrong, nothing to look at again";
  return (
    <p role="status" className="pt-3 font-lettering text-lg">
      {told}
      {proof.cut === "" ? "; the outline may go to a cutter." : "; not to be cut as it is."}
    </p>
  );
}

function Measures({ proof, unit }: { proof: ProofOut; unit: string }) {
  if (proof.measures.length === 0) return null;
  return (
    <section className="pb-7">
      <h2 className="text-lg font-semibold">As measured</h2>
      <table className="slip w-full text-left text-base">
        <Heads
          of={["Outline", "", `Size, ${unit}`, `Perimeter, ${unit}`, `Area, ${unit}²`, `Centroid, ${unit}`]}
          figures={[2, 3, 4, 5]}
          unseen={{ 1: "Material or hole" }}
          boxed
        />
        <tbody>
          {proof.measures.map((row) => (
            <tr key={row.outline} className="border-b border-ruling">
              <th scope="row" className="px-2 font-semibold italic">
                {row.outline}
              </th>
              <td className="px-2 text-pencil">{row.kind}</td>
              {[row.size, row.length, row.area, row.centroid].map((told, i) => (
                <td key={i} className="px-2 text-right">
                  <Figures text={told} />
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}

/** Every junction: what turns is told, what goes straight on is folded away. */
function Junctions({ proof }: { proof: ProofOut }) {
  const corners = proof.junctions.filter((row) => !row.smooth);
  const tangents = proof.junctions.filter((row) => row.smooth);
  if (proof.junctions.length === 0) return null;
  return (
    <section aria-labelledby="junctions" className="pb-7">
      <h2 id="junctions" className="text-lg font-semibold">
        Junctions
      </h2>
      {corners.length > 0 && <JunctionRows rows={corners} />}
      {tangents.length > 0 && (
        <details open={corners.length === 0}>
          <summary className="cursor-pointer">
            {tangents.length} tangent junction{tangents.length === 1 ? "" : "s"}
          </summary>
          <JunctionRows rows={tangents} />
        </details>
      )}
    </section>
  );
}

function JunctionRows({ rows }: { rows: ProofOut["junctions"] }) {
  return (
    <table className="slip w-full text-left text-base">
      <Heads of={["Outline", "From", "To", "How"]} boxed />
      <tbody>
        {rows.map((row, i) => (
          <tr
            key={i}
            className="border-b border-ruling hover:bg-wash"
            onMouseEnter={() => look({ spot: row.place })}
            onMouseLeave={() => look({ spot: null })}
          >
            <td className="px-2 italic">{row.outline}</td>
            <td className="px-2">
              <button
                className="text-left"
                onFocus={() => look({ spot: row.place })}
                onBlur={() => look({ spot: null })}
                onClick={() => look({ spot: row.place })}
              >
                {row.first}
              </button>
            </td>
            <td className="px-2">{row.second}</td>
            <td className="px-2">{row.how}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
