import { Popover } from "radix-ui";
import { useState } from "react";
import { Link, useParams } from "react-router";
import { type ExportIn, type FormatOut, inWords, Problem, type ProofOut, type Work } from "../api/client";
import { download } from "../api/files";
import { useDocument, useUnsaved } from "../state/document";
import { inTitleBlock } from "../state/office";
import { useFormats, useSavedJob } from "../state/server";
import { Button } from "../ui/Button";
import { Check } from "../ui/Check";

/** Several things in a row: a, b and c. */
const listed = (names: readonly string[]) =>
  names.length > 1 ? `${names.slice(0, -1).join(", ")} and ${names.at(-1)}` : names.join();

/** Files out of the plan, with the caution that belongs to them. */
export function Issue({ work, proof }: { work: Work; proof: ProofOut | undefined }) {
  const { jobId } = useParams();
  const [construction, setConstruction] = useState(true);
  const [ovals, setOvals] = useState<NonNullable<ExportIn["ovals"]>>("ellipse");
  const [paper, setPaper] = useState<NonNullable<ExportIn["paper"]>>("A4");
  const [within, setWithin] = useState("0.01");
  const [told, setTold] = useState("");
  const [refused, setRefused] = useState<FormatOut | null>(null);
  const formats = useFormats();
  const kit = useDocument((document) => document.kitText);
  const unsaved = useUnsaved();
  const saved = useSavedJob(Number(jobId)).data?.newest;
  const take = async (format: FormatOut, insist = false) => {
    setRefused(null);
    const { text, schedule } = work;
    const how = { construction, insist, ovals, paper, within: Number(within) };
    // What is issued unsaved nobody has signed, and nobody has saved.
    const plan = { text, schedule, kit, ...how, ...(saved && !unsaved && { signed: inTitleBlock(saved) }) };
    try {
      setTold(`${await download(format.key, plan)} is in your downloads.`);
    } catch (error) {
      setTold(inWords(error));
      if (error instanceof Problem && error.status === 409) setRefused(format);
    }
  };
  const groups = [...new Set(formats?.formats.map((format) => format.group))];
  const taking = (choice: FormatOut["takes"][number]) =>
    formats?.formats.filter((format) => format.takes.includes(choice)).map((format) => format.label) ?? [];
  return (
    <Popover.Root
      onOpenChange={() => {
        setTold("");
        setRefused(null);
      }}
    >
      <Popover.Trigger className="act">Issue…</Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          align="end"
          sideOffset={6}
          collisionPadding={8}
          aria-label="Issue the job"
          className="slip z-10 max-h-[var(--radix-popover-content-available-height)] w-[30rem] max-w-[96vw] overflow-auto p-4 shadow-md"
        >
          <State work={work} proof={proof} />
          {groups.map((group) => (
            <section key={group} aria-label={group} className="border-t border-ruling pt-1">
              <h3 className="text-sm font-semibold text-pencil">{group}</h3>
              <ul>
                {formats?.formats
                  .filter((format) => format.group === group)
                  .map((format) => (
                    <li key={format.key} className="flex items-baseline gap-3 py-0.5">
                      <Button className="w-28 shrink-0 text-left" onClick={() => void take(format)}>
                        <span aria-hidden="true">↓ </span>
                        {format.label}
                      </Button>
                      <span className="text-base">
                        {format.about}
                        {format.takes.includes("paper") && (
                          <>
                            , on{" "}
                            <select
                              aria-label={`Paper of the ${format.label.toLowerCase()}`}
                              className="field"
                              value={paper}
                              onChange={(event) => setPaper(event.target.value as typeof paper)}
                            >
                              <option>A4</option>
                              <option>letter</option>
                            </select>
                          </>
                        )}
                        {format.for_cutting && proof?.cut && (
                          <span className="block text-accent">✗ not as it is</span>
                        )}
                      </span>
                    </li>
                  ))}
              </ul>
              {group === "for a machine" && (
                <p className="text-base">
                  <Link className="underline" to={`/jobs/${jobId}/cutter`}>
                    Program for a cutter…
                  </Link>{" "}
                  cut on a simulated one first, and held against the plan.{" "}
                  <Link className="underline" to={`/jobs/${jobId}/compare`}>
                    Compare…
                  </Link>{" "}
                  what was made, or another revision, with the plan
                </p>
              )}
            </section>
          ))}
          <details className="border-t border-ruling pt-1">
            <summary className="cursor-pointer text-sm font-semibold text-pencil">
              how they are written
            </summary>
            <Check
              className="flex items-center gap-2 pb-1"
              label={`keep the construction on ${listed(taking("construction"))}`}
              on={construction}
              put={setConstruction}
            />
            <p className="flex items-baseline gap-2 text-base">
              <label htmlFor="ovals">true ellipses in DXF as</label>
              <select
                id="ovals"
                className="field w-28"
                value={ovals}
                onChange={(event) => setOvals(event.target.value as typeof ovals)}
              >
                <option value="ellipse">ellipses</option>
                <option value="arcs">arcs</option>
                <option value="polyline">short lines</option>
              </select>
              {ovals !== "ellipse" && (
                <label>
                  within{" "}
                  <input
                    className="field w-16"
                    inputMode="decimal"
                    value={within}
                    onChange={(event) => setWithin(event.target.value)}
                  />{" "}
                  {work.unit}
                </label>
              )}
            </p>
          </details>
          <p className="mt-2 border-l-4 border-accent pl-2 text-base">
            A profile says nothing about strength, fit or material. Check scale and units on the machine
            before cutting; guard, eye protection and the site’s own rules apply.
          </p>
          <p role="status" className="min-h-6 pt-1 text-base">
            {told}
          </p>
          {refused && <Button onClick={() => void take(refused, true)}>Insist: write it all the same</Button>}
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

/** What will go out, and what whoever issues it should know first. */
function State({ work, proof }: { work: Work; proof: ProofOut | undefined }) {
  const unsaved = useUnsaved();
  const job = useDocument((document) => document.job);
  const base = useDocument((document) => document.base);
  const wrong = proof?.findings.filter((finding) => finding.weight === "wrong").length ?? 0;
  const undimensioned = proof?.findings.some(
    (finding) => finding.page === "dimensioned" && finding.weight !== "good",
  );
  const told = [
    work.steps.length === 0 && "nothing is drawn yet: the files will be empty",
    unsaved && "the bench holds unsaved work, which goes out; the register has not got it",
    wrong > 0 && `${wrong} wrong among the findings`,
    !work.drawing && "it has no drawing number",
    undimensioned && work.steps.length > 0 && "the dimensions do not define it yet",
  ].filter((each) => each !== false && each !== undefined);
  return (
    <div className="flex gap-3 pb-2">
      {job && work.steps.length > 0 && (
        <img
          src={`/api/jobs/${job.id}/thumbnail.svg?r=${base}`}
          alt="The part, as it was last saved"
          className="on-paper h-20 w-28 shrink-0 border border-rim object-contain p-1"
        />
      )}
      <div className="min-w-0 text-base">
        <p className="font-semibold">
          {work.drawing} {work.title || "Untitled"}
        </p>
        <p>
          {work.sheet.name}, {work.sheet.scale}
          {proof?.goes && `; ${proof.goes}`}
        </p>
        {told.length > 0 && (
          <ul aria-label="Before it goes out">
            {told.map((each) => (
              <li key={String(each)}>
                <span aria-hidden="true" className="text-accent">
                  ?{" "}
                </span>
                {each}
              </li>
            ))}
          </ul>
        )}
      </div>
    </div>
  );
}
