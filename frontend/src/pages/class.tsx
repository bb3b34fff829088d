import { useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { type ClassMarksOut, listJobs, markClass, openJob, setPaper, type PapersIn } from "../api/client";
import { downloadPapers } from "../api/files";
import { Bars } from "../ui/Bars";
import { Tabled } from "../ui/Tabled";
import { ClassSheets } from "../views/ClassSheets";
import { Bar } from "../views/Bar";
import { Button } from "../ui/Button";
import { Check } from "../ui/Check";

/** For an instructor: a set for a class, its papers and key, and the marks of what came back. */
export function Component() {
  useEffect(() => {
    document.title = "For a class · Entrick";
  }, []);
  const [set, setSet] = useState("");
  const [told, setTold] = useState("");
  return (
    <div className="flex h-full flex-col">
      <Bar title="For a class" />
      <main id="page" tabIndex={-1} className="min-h-0 flex-1 overflow-auto p-6 max-[700px]:p-1">
        <div className="mx-auto max-w-3xl space-y-6 bg-page px-8 py-6 max-[700px]:px-3">
          <Making made={setSet} told={setTold} />
          <p role="status" data-testid="class-told">
            {told}
          </p>
          {set && <Papers set={set} told={setTold} />}
          <Marking set={set} take={setSet} told={setTold} />
          <ClassSheets told={setTold} />
        </div>
      </main>
    </div>
  );
}

/** A set with the paper of one student: what stands around the papers is the same in all of them. */
interface PartOfSet {
  papers: unknown[];
}

function saved(content: string, type: string, name: string) {
  const url = URL.createObjectURL(new Blob([content], { type }));
  const link = document.createElement("a");
  link.href = url;
  link.download = name;
  link.click();
  setTimeout(() => URL.revokeObjectURL(url), 10_000);
}

const words = (problem: unknown) => (problem instanceof Error ? problem.message : String(problem));

function Making({ made, told }: { made: (set: string) => void; told: (words: string) => void }) {
  const jobs = useQuery({
    queryKey: ["jobs for a class"],
    queryFn: () => listJobs({ query: { order: "drawing" } }),
  });
  const [title, setTitle] = useState("Setting out");
  const [chosen, setChosen] = useState<number[]>([]);
  const [students, setStudents] = useState("24");
  const [count, setCount] = useState("12");
  const [seed, setSeed] = useState("1");
  const [done, setDone] = useState<number | null>(null);
  const make = async () => {
    const all = Number(students);
    try {
      const texts = await Promise.all(
        chosen.map(async (job) => (await openJob({ path: { job_id: job } })).newest.text),
      );
      let whole: PartOfSet | null = null;
      for (let student = 1; student <= all; student++) {
        setDone(student - 1);
        const part = (await setPaper({
          body: { title, texts, student, count: Number(count), seed: Number(seed) },
        })) as unknown as PartOfSet;
        // A set is its first part with the papers of the others.
        if (whole) whole.papers.push(...part.papers);
        else whole = part;
      }
      made(JSON.stringify(whole));
      told(`The set has ${all} papers.`);
    } catch (problem) {
      told(words(problem));
    } finally {
      setDone(null);
    }
  };
  const field = (label: string, value: string, put: (value: string) => void, wide = "w-24") => (
    <label className="flex items-baseline gap-2">
      {label}
      <input className={`field ${wide}`} value={value} onChange={(event) => put(event.target.value)} />
    </label>
  );
  return (
    <section aria-labelledby="making" className="space-y-2">
      <h2 id="making" className="text-lg font-semibold">
        A set: the same parts, other givens for every student
      </h2>
      {field("Title", title, setTitle, "w-80")}
      <fieldset>
        <legend>Parts</legend>
        <ul className="columns-2 max-[700px]:columns-1">
          {jobs.data?.jobs.map((job) => (
            <li key={job.id}>
              <Check
                label={`${job.drawing} ${job.title}`}
                on={chosen.includes(job.id)}
                put={(on) => setChosen(on ? [...chosen, job.id] : chosen.filter((id) => id !== job.id))}
              />
            </li>
          ))}
        </ul>
      </fieldset>
      <div className="flex flex-wrap gap-4">
        {field("Students", students, setStudents)}
        {field("Questions", count, setCount)}
        {field("Seed", seed, setSeed)}
      </div>
      <Button main disabled={chosen.length === 0 || done !== null} onClick={() => void make()}>
        Make the set
      </Button>
      {done !== null && (
        <p className="flex items-center gap-2" role="status">
          <progress value={done} max={Number(students)} aria-label="Papers made" /> {done} of {students}
        </p>
      )}
    </section>
  );
}

function Papers({ set, told }: { set: string; told: (words: string) => void }) {
  const [paper, choosePaper] = useState<NonNullable<PapersIn["paper"]>>("A4");
  const take = (key: boolean) =>
    downloadPapers({ set, key, paper }).then(
      (name) => told(`${name} is in your downloads.`),
      (problem: unknown) => told(words(problem)),
    );
  return (
    <section aria-label="The set" className="flex flex-wrap items-center gap-2">
      <Button onClick={() => saved(set, "application/json", "set.json")}>Keep the set</Button>
      <Button onClick={() => void take(false)}>Papers, PDF</Button>
      <Button onClick={() => void take(true)}>Key, PDF</Button>
      <select
        aria-label="Paper"
        className="field"
        value={paper}
        onChange={(event) => choosePaper(event.target.value as typeof paper)}
      >
        <option>A4</option>
        <option>letter</option>
      </select>
    </section>
  );
}

interface MarkingProps {
  set: string;
  take: (set: string) => void;
  told: (words: string) => void;
}

function Marking({ set, take, told }: MarkingProps) {
  const [marks, setMarks] = useState<ClassMarksOut | null>(null);
  const file = (label: string, accept: string, use: (text: string) => void) => (
    <label className="flex items-baseline gap-2">
      <span className="w-40">{label}</span>
      <input
        type="file"
        accept={accept}
        onChange={(event) => {
          const chosen = event.target.files?.[0];
          if (chosen) void chosen.text().then(use);
        }}
      />
    </label>
  );
  const mark = async (answers: string) => {
    told("Marking…");
    try {
      const found = await markClass({ body: { set, answers } });
      setMarks(found);
      told(`${found.papers.length} papers marked.`);
    } catch (problem) {
      setMarks(null);
      told(words(problem));
    }
  };
  return (
    <section aria-labelledby="marking" className="space-y-2">
      <h2 id="marking" className="text-lg font-semibold">
        Marking
      </h2>
      <p className="text-base text-pencil">
        Answers come as CSV: <code>student,1,2,3 …</code> in the first row, then a row for each student,
        called as on the papers. A choice is answered by its letter or its words, an order as{" "}
        <code>2 1 3 5 4</code>.
      </p>
      {file("A set from disk", ".json", take)}
      {set && file("Answers, CSV", ".csv", (text) => void mark(text))}
      {marks && (
        <>
          <Button onClick={() => saved(marks.csv, "text/csv", "marks.csv")}>Keep the marks, CSV</Button>
          <h3 className="font-semibold">Slips of the class</h3>
          <Bars
            labels={marks.slips.map((each) => each.slip)}
            values={marks.slips.map((each) => each.times)}
            unit="times"
          />
          <Tabled
            heads={["Slip", "Times", "Students"]}
            rows={marks.slips.map((each) => [each.slip, String(each.times), String(each.students)])}
          />
          <h3 className="font-semibold">Marks</h3>
          <Tabled
            heads={["Student", "Marks", "Of"]}
            rows={marks.papers.map((each) => [each.student, String(each.total), String(each.of)])}
          />
        </>
      )}
    </section>
  );
}
