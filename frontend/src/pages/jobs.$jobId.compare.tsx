import { useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { useParams, useSearchParams } from "react-router";
import { type CompareIn, listRevisions } from "../api/client";
import { Held } from "../compare/Held";
import { type Opened, textOf } from "../state/opened";
import { profileEndings, useFormats, useJob } from "../state/server";
import { FileButton } from "../ui/FileButton";
import { Bar, JobBar } from "../views/Bar";

/** What was made, or another revision, held against the job as it is meant. */
export function Component() {
  const job = Number(useParams().jobId);
  const [query, setQuery] = useSearchParams();
  const found = useJob(job);
  const formats = useFormats();
  const revisions = useQuery({
    queryKey: ["revisions", job, found.data?.newest.number],
    queryFn: () => listRevisions({ path: { job_id: job } }),
    enabled: found.data !== undefined,
  });
  const [file, setFile] = useState<Opened | null>(null);
  const [within, setWithin] = useState("0.1");
  const [lay, setLay] = useState<NonNullable<CompareIn["lay"]>>("over");
  const [told, setTold] = useState("");
  useEffect(() => {
    document.title = "Compare · Entrick";
  }, []);
  const chosen = query.get("revision") ?? "";
  const other = revisions.data?.revisions.find((each) => String(each.number) === chosen);
  const open = async (chosenFile: File) => {
    const read = await textOf(chosenFile, await profileEndings());
    setTold(read ? "" : `${chosenFile.name} is no profile: it is neither DXF, SVG nor CSV.`);
    if (!read) return;
    setFile(read);
    setQuery({});
  };
  const meant = found.data?.newest;
  const made = other ? { other: other.text } : file ? { made: file } : null;
  const off = Number(within.replace(",", "."));
  return (
    <div className="flex h-full flex-col">
      <Bar>
        <JobBar job={found.data?.job} />
      </Bar>
      <main id="page" tabIndex={-1} className="flex min-h-0 flex-1 stacked:flex-col">
        <section
          aria-label="What is compared"
          className="w-[32%] space-y-3 overflow-auto bg-page p-5 stacked:max-h-[45%] stacked:w-full"
        >
          {found.error && <p role="alert">{found.error.message}</p>}
          <h2 className="text-lg font-semibold">As made against as meant</h2>
          <p className="text-pencil">
            A profile of what was made (DXF, SVG or CSV of points measured), or another revision, over this
            job as it was saved last.
          </p>
          <FileButton
            label="Choose what was made"
            accept={formats?.profiles.map((ending) => `.${ending}`).join(",") ?? ""}
            take={(each) => void open(each)}
          >
            {file ? "Another file…" : "Choose a file…"}
          </FileButton>
          <label className="flex items-baseline gap-2">
            <span className="w-36">Or a revision</span>
            <select
              aria-label="Or a revision"
              className="field min-w-0 flex-1"
              value={other ? chosen : ""}
              onChange={(event) => setQuery(event.target.value ? { revision: event.target.value } : {})}
            >
              <option value="">{file ? file.name : "none"}</option>
              {revisions.data?.revisions
                .filter((each) => each.number !== meant?.number)
                .map((each) => (
                  <option key={each.number} value={each.number}>
                    {each.number} {each.note}
                  </option>
                ))}
            </select>
          </label>
          <label className="flex items-baseline gap-2">
            <span className="w-36">May be off by</span>
            <input
              className="field w-24"
              inputMode="decimal"
              autoComplete="off"
              value={within}
              onChange={(event) => setWithin(event.target.value)}
            />
          </label>
          <label className="flex items-baseline gap-2">
            <span className="w-36">Laid</span>
            <select
              aria-label="Laid"
              className="field"
              value={lay}
              onChange={(event) => setLay(event.target.value as typeof lay)}
            >
              <option value="over">over it as well as it goes</option>
              <option value="as it lies">as it lies from the datum</option>
            </select>
          </label>
          {told && <p role="alert">{told}</p>}
          <p className="border-l-4 border-accent pl-2 text-base">
            That a part fits its drawing says nothing about its strength, or whether it was the right drawing.
          </p>
        </section>
        <div className="flex min-h-0 min-w-0 flex-1 flex-col">
          {meant && made && off > 0 ? (
            <Held asked={{ text: meant.text, ...made, lay, within: off }} />
          ) : (
            <p className="p-5">Choose what was made, or a revision.</p>
          )}
        </div>
      </main>
    </div>
  );
}
