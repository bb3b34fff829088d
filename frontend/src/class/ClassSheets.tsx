import { useQuery } from "@tanstack/react-query";
import { useRef, useState } from "react";
import { inWords, listJobs, lookAtSheet, type LookIn, type LookedOut, openJob } from "../api/client";
import { keepMarks } from "../api/files";
import { base64Of, type OneSheet, PICTURES, sheetsIn } from "../state/pictures";
import { Bars } from "../ui/Bars";
import { Button } from "../ui/Button";
import { Check } from "../ui/Check";
import { Tabled } from "../ui/Tabled";

const PARTS = ["accuracy", "tangency", "weight", "completeness", "centring"] as const;
type Scheme = Record<(typeof PARTS)[number], string>;
const USUAL: Scheme = { accuracy: "10", tangency: "4", weight: "2", completeness: "3", centring: "1" };

const eachPart = (of: (part: keyof Scheme) => number) =>
  Object.fromEntries(PARTS.map((part) => [part, of(part)])) as NonNullable<LookIn["scheme"]>;

/** The sheet of one student: looked at, or why not. */
interface Seen {
  student: string;
  looked?: LookedOut;
  trouble?: string;
}

/** Why an eye should look at a sheet too. */
const doubt = ({ looked, trouble }: Seen) => looked?.doubt ?? trouble ?? "";

/** What a student is told: the marks part by part, the sentence, what is off and what is missing. */
function Report({ seen: { student, looked, trouble } }: { seen: Seen }) {
  return (
    <details className="border-b border-ruling">
      <summary className="cursor-pointer">
        {student}
        {looked && `: ${looked.marks.whole} of ${looked.marks.most}`}
      </summary>
      <div className="space-y-1 pb-2 pl-4 text-base">
        <p>{looked?.sentence ?? trouble}</p>
        {looked && (
          <>
            <p>{PARTS.map((part) => `${part} ${looked.marks[part].toFixed(1)}`).join(", ")}</p>
            <ul className="list-disc pl-5">
              {looked.slips.slice(0, 1).map((slip) => (
                <li key={slip.step}>
                  Step {slip.step}: {slip.act}
                </li>
              ))}
              {looked.notes.map((note) => (
                <li key={note}>{note}</li>
              ))}
              {looked.rows
                .filter((row) => row.judged === "off")
                .map((row) => (
                  <li key={row.name}>
                    {row.name}: {row.told}
                  </li>
                ))}
            </ul>
          </>
        )}
      </div>
    </details>
  );
}

/** The finished sheets of a class looked at: a report for each student, marks, the slips of the class. */
export function ClassSheets({ told }: { told: (words: string) => void }) {
  const jobs = useQuery({
    queryKey: ["jobs for a class"],
    queryFn: () => listJobs({ query: { order: "drawing" } }),
  });
  const [job, setJob] = useState("");
  const [scheme, setScheme] = useState(USUAL);
  const [varied, setVaried] = useState(false);
  const [seed, setSeed] = useState("1");
  const [seen, setSeen] = useState<Seen[]>([]);
  const [left, setLeft] = useState<{ done: number; of: number } | null>(null);
  const stop = useRef(false);
  const files = useRef<HTMLInputElement>(null);
  const points = eachPart((part) => Number(scheme[part]) || 0);
  const one = async (sheet: OneSheet, text: string): Promise<Seen> => {
    const number = Number(/\d+/.exec(sheet.student)?.[0]);
    try {
      if (varied && !number) throw new Error("its file is not called by the student's number");
      const picture = base64Of(await sheet.bytes());
      const own = varied ? { student: number, seed: Number(seed) || 0 } : {};
      const looked = await lookAtSheet({ body: { text, picture, scheme: points, ...own } });
      return { student: sheet.student, looked };
    } catch (problem) {
      return { student: sheet.student, trouble: inWords(problem) };
    }
  };
  const lookAtAll = async (chosen: FileList) => {
    stop.current = false;
    setSeen([]);
    try {
      const sheets = await sheetsIn(chosen);
      const { text } = (await openJob({ path: { job_id: Number(job) } })).newest;
      for (const [done, sheet] of sheets.entries()) {
        if (stop.current) break;
        setLeft({ done, of: sheets.length });
        const found = await one(sheet, text);
        setSeen((before) => [...before, found]);
      }
    } catch (problem) {
      told(inWords(problem));
    } finally {
      setLeft(null);
    }
  };
  const slips = new Map<string, number>();
  for (const { looked } of seen)
    for (const slip of [...(looked?.slips.slice(0, 1) ?? []), ...(looked?.second.slice(0, 1) ?? [])])
      slips.set(slip.key, (slips.get(slip.key) ?? 0) + 1);
  const common = [...slips].sort((a, b) => b[1] - a[1]);
  const doubtful = seen.filter((each) => doubt(each));
  return (
    <section aria-labelledby="sheets" className="space-y-2">
      <h2 id="sheets" className="text-lg font-semibold">
        Finished sheets, looked at
      </h2>
      <p className="text-base text-pencil">
        One picture for each student, called by their name or number: files, a folder, or a zip. Each is
        looked at on this machine, and not kept.
      </p>
      <div className="flex items-baseline gap-2">
        <span className="w-24 shrink-0">The part</span>
        <select
          className="field min-w-0"
          aria-label="The part"
          value={job}
          onChange={(event) => setJob(event.target.value)}
        >
          <option value="">choose…</option>
          {jobs.data?.jobs.map((each) => (
            <option key={each.id} value={each.id}>
              {each.drawing} {each.title}
            </option>
          ))}
        </select>
      </div>
      <fieldset className="flex flex-wrap gap-x-4 gap-y-1">
        <legend>Marks for</legend>
        {PARTS.map((part) => (
          <label key={part} className="flex items-baseline gap-1.5">
            {part}
            <input
              className="field w-12"
              inputMode="decimal"
              value={scheme[part]}
              onChange={(event) => setScheme({ ...scheme, [part]: event.target.value })}
            />
          </label>
        ))}
      </fieldset>
      <div className="flex flex-wrap items-baseline gap-x-4">
        <Check label="Each student drew the givens of a set" on={varied} put={setVaried} />
        {varied && (
          <label className="flex items-baseline gap-1.5">
            seed of the set
            <input className="field w-16" value={seed} onChange={(event) => setSeed(event.target.value)} />
          </label>
        )}
      </div>
      <div className="flex flex-wrap items-center gap-3">
        <Button main disabled={!job || left !== null} onClick={() => files.current?.click()}>
          Choose pictures or a zip…
        </Button>
        <input
          ref={files}
          type="file"
          multiple
          className="hidden"
          accept={`${PICTURES},.zip`}
          aria-label="Pictures of the sheets of a class"
          onChange={(event) => {
            if (event.target.files?.length) void lookAtAll(event.target.files);
          }}
        />
        {left && (
          <>
            <span role="status" className="flex items-center gap-2">
              <progress value={left.done} max={left.of} aria-label="Sheets looked at" /> {left.done} of{" "}
              {left.of}
            </span>
            <Button onClick={() => (stop.current = true)}>Stop</Button>
          </>
        )}
        {seen.length > 0 && left === null && (
          <Button
            onClick={() =>
              void keepMarks(
                seen.map(({ student, looked, trouble }) => ({
                  student,
                  said: looked?.sentence ?? trouble ?? "",
                  marks: looked ? eachPart((part) => looked.marks[part]) : null,
                })),
              ).then(told, (problem: unknown) => told(inWords(problem)))
            }
          >
            Keep the marks, CSV
          </Button>
        )}
      </div>
      {seen.length > 0 && (
        <div data-testid="class-sheets" className="space-y-2">
          <Tabled
            label="Marks of the sheets"
            heads={["Student", "Marks", "Of", "What is said"]}
            rows={seen.map(({ student, looked, trouble }) => [
              student,
              looked ? String(looked.marks.whole) : "–",
              looked ? String(looked.marks.most) : "–",
              looked ? looked.sentence : (trouble ?? ""),
            ])}
          />
          <h3 className="font-semibold">A report for each</h3>
          {seen.map((each) => (
            <Report key={each.student} seen={each} />
          ))}
          {common.length > 0 && (
            <>
              <h3 className="font-semibold">Slips of the class</h3>
              <Bars labels={common.map(([key]) => key)} values={common.map(([, n]) => n)} unit="times" />
            </>
          )}
          {doubtful.length > 0 && (
            <>
              <h3 className="font-semibold">For the eye</h3>
              <Tabled
                label="Sheets to look at by eye"
                heads={["Student", "Why"]}
                rows={doubtful.map((each) => [each.student, doubt(each)])}
              />
            </>
          )}
        </div>
      )}
    </section>
  );
}
