import { Popover } from "radix-ui";
import { useState } from "react";
import { download, type FileFormat, type WorkOut } from "../api/client";

const FORMATS: readonly (readonly [FileFormat, string, string])[] = [
  ["pdf", "PDF", "the sheet at true size: print at 100 %"],
  ["svg", "SVG", "the sheet in millimetres"],
  ["dxf", "DXF", "the figure at full size, true arcs, for a cutter"],
  ["csv", "CSV", "the settings, step by step"],
  ["entrick", "Plan", "the plan itself, as text"],
];

/** Files out of the plan, with the caution that belongs to them. */
export function Issue({ work }: { work: WorkOut }) {
  const [construction, setConstruction] = useState(true);
  const [told, setTold] = useState("");
  const take = async (format: FileFormat) => {
    try {
      setTold(`${await download(format, work.text, construction)} is in your downloads.`);
    } catch (error) {
      setTold(error instanceof Error ? error.message : String(error));
    }
  };
  return (
    <Popover.Root onOpenChange={() => setTold("")}>
      <Popover.Trigger className="act">Issue…</Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          align="end"
          sideOffset={6}
          collisionPadding={8}
          aria-label="Issue the job"
          className="slip z-10 w-96 border border-ink bg-page p-4 shadow-md"
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
          <ul>
            {FORMATS.map(([format, name, about]) => (
              <li key={format} className="flex items-baseline gap-3 py-1">
                <button className="act w-16" onClick={() => void take(format)}>
                  {name}
                </button>
                <span className="text-[15px]">{about}</span>
              </li>
            ))}
          </ul>
          <p className="mt-2 border-l-4 border-accent pl-2 text-[15px]">
            A profile says nothing about strength, fit or material. Check scale and units on the machine
            before cutting; guard, eye protection and the site’s own rules apply.
          </p>
          <p role="status" className="min-h-6 pt-1 text-[15px]">
            {told}
          </p>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
