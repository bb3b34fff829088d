import { Popover } from "radix-ui";
import { useState } from "react";
import { Link, useParams } from "react-router";
import { download, type ExportIn, type FileFormat, Problem, type ProofOut, type Work } from "../api/client";

const FORMATS: readonly (readonly [FileFormat, string, string])[] = [
  ["pdf", "PDF", "the sheet at true size: print at 100 %"],
  ["svg", "SVG", "the sheet in millimetres"],
  ["dxf", "DXF", "the whole figure at full size, true arcs, layers by kind of line"],
  ["cutter", "Cutter", "DXF of the outlines alone, at full size"],
  ["run-sheet", "Run sheet", "every step on paper, with boxes to tick"],
  ["csv", "CSV", "the settings, step by step"],
  ["entrick", "Plan", "the plan itself, as text"],
];

/** Files out of the plan, with the caution that belongs to them. */
export function Issue({ work, proof }: { work: Work; proof: ProofOut | undefined }) {
  const { jobId } = useParams();
  const [construction, setConstruction] = useState(true);
  const [ovals, setOvals] = useState<NonNullable<ExportIn["ovals"]>>("ellipse");
  const [paper, setPaper] = useState<NonNullable<ExportIn["paper"]>>("A4");
  const [within, setWithin] = useState("0.01");
  const [told, setTold] = useState("");
  const [refused, setRefused] = useState(false);
  const take = async (format: FileFormat, insist = false) => {
    setRefused(false);
    if (!(Number(within) > 0 && Number(within) <= 10)) {
      setTold(`A tolerance is more than 0 and at most 10 ${work.unit}: ${within} is not.`);
      return;
    }
    try {
      const options = { construction, insist, ovals, paper, within: Number(within), schedule: work.schedule };
      setTold(`${await download(format, work.text, options)} is in your downloads.`);
    } catch (error) {
      setTold(error instanceof Error ? error.message : String(error));
      setRefused(error instanceof Problem && error.status === 409);
    }
  };
  return (
    <Popover.Root
      onOpenChange={() => {
        setTold("");
        setRefused(false);
      }}
    >
      <Popover.Trigger className="act">Issue…</Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          align="end"
          sideOffset={6}
          collisionPadding={8}
          aria-label="Issue the job"
          className="slip z-10 w-[26rem] border border-ink bg-page p-4 shadow-md"
        >
          <label className="flex items-center gap-2 pb-2">
            <input
              type="checkbox"
              className="size-4 accent-[var(--color-ink)]"
              checked={construction}
              onChange={(event) => setConstruction(event.target.checked)}
            />
            keep the construction on PDF, SVG and DXF
          </label>
          <p className="flex items-baseline gap-2 pb-2 text-[15px]">
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
          <ul>
            {FORMATS.map(([format, name, about]) => (
              <li key={format} className="flex items-baseline gap-3 py-1">
                <button className="act w-16" onClick={() => void take(format)}>
                  {name}
                </button>
                <span className="text-[15px]">
                  {about}
                  {format === "run-sheet" && (
                    <>
                      , on{" "}
                      <select
                        aria-label="Paper of the run sheet"
                        className="field"
                        value={paper}
                        onChange={(event) => setPaper(event.target.value as typeof paper)}
                      >
                        <option>A4</option>
                        <option>letter</option>
                      </select>
                    </>
                  )}
                  {format === "cutter" && proof?.cut && (
                    <span className="block text-accent">✗ not as it is</span>
                  )}
                </span>
              </li>
            ))}
          </ul>
          <p className="py-1 text-[15px]">
            <Link className="underline" to={`/jobs/${jobId}/cutter`}>
              Program for a cutter…
            </Link>{" "}
            cut on a simulated one first, and held against the plan
          </p>
          <p className="mt-2 border-l-4 border-accent pl-2 text-[15px]">
            A profile says nothing about strength, fit or material. Check scale and units on the machine
            before cutting; guard, eye protection and the site’s own rules apply.
          </p>
          <p role="status" className="min-h-6 pt-1 text-[15px]">
            {refused && <strong className="text-accent">Not to be cut as it is. </strong>}
            {told}
          </p>
          {refused && (
            <button className="act" onClick={() => void take("cutter", true)}>
              Insist: write it all the same
            </button>
          )}
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
