import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import {
  type ClassMarksOut,
  decideMark,
  inWords,
  keptMarks,
  markClass,
  openSet,
  type PapersIn,
} from "../api/client";
import { downloadAnswerSheet, downloadPapers, keep } from "../api/files";
import { Bars } from "../ui/Bars";
import { Button } from "../ui/Button";
import { Check } from "../ui/Check";
import { FileButton } from "../ui/FileButton";
import { Tabled } from "../ui/Tabled";
import { RECORD } from "./Record";

interface Props {
  id: number;
  told: (words: string) => void;
}

/** A set that is open: its papers and key, and the marks of what came back. */
export function OpenSet({ id, told }: Props) {
  const { data, error } = useQuery({
    queryKey: ["set", id],
    queryFn: () => openSet({ path: { set_id: id } }),
    staleTime: Infinity,
  });
  if (error) return <p role="alert">{error.message}</p>;
  if (!data) return <p>Opening the set…</p>;
  return (
    <>
      <Papers set={data.set} told={told} />
      <Marking id={id} set={data.set} told={told} />
      <Kept id={id} told={told} />
    </>
  );
}

function Papers({ set, told }: { set: string; told: (words: string) => void }) {
  const [paper, choosePaper] = useState<NonNullable<PapersIn["paper"]>>("A4");
  const [frames, setFrames] = useState(true);
  const after = (fetched: Promise<string>) =>
    void fetched.then(
      (name) => told(`${name} is in your downloads.`),
      (problem: unknown) => told(inWords(problem)),
    );
  const take = (key: boolean) => after(downloadPapers({ set, key, paper, frames }));
  return (
    <section aria-label="The set" className="flex flex-wrap items-center gap-2">
      <Button onClick={() => take(false)}>↓ Papers, PDF</Button>
      <Button onClick={() => take(true)}>↓ Key, PDF</Button>
      <label>
        on{" "}
        <select
          aria-label="Paper"
          className="field"
          value={paper}
          onChange={(event) => choosePaper(event.target.value as typeof paper)}
        >
          <option>A4</option>
          <option>letter</option>
        </select>
      </label>
      <Check label="with a frame to draw in" on={frames} put={setFrames} />
      <Button onClick={() => after(downloadAnswerSheet({ set }))}>↓ Blank answers, CSV</Button>
      <Button onClick={() => keep(new Blob([set], { type: "application/json" }), "set.json")}>
        ↓ The set, JSON
      </Button>
    </section>
  );
}

function Marking({ id, set, told }: Props & { set: string }) {
  const [marks, setMarks] = useState<ClassMarksOut | null>(null);
  const queries = useQueryClient();
  const mark = async (answers: string) => {
    told("Marking…");
    try {
      const found = await markClass({ body: { set, answers, set_id: id } });
      setMarks(found);
      void queries.invalidateQueries({ queryKey: ["marks", id] });
      void queries.invalidateQueries({ queryKey: RECORD });
      told([`${found.papers.length} papers marked.`, ...found.left_out].join(" · "));
    } catch (problem) {
      setMarks(null);
      told(inWords(problem));
    }
  };
  return (
    <section aria-labelledby="marking" className="space-y-2">
      <h2 id="marking" className="text-lg font-semibold">
        Marking
      </h2>
      <p className="max-w-[70ch] text-pencil">
        Answers come as CSV: <code>student,1,2,3 …</code> or <code>name,1,2,3 …</code> in the first row, then
        a row for each student in any order; parted by commas, semicolons or tabs, with decimal points or
        commas. A choice is answered by its letter or its words, an order as <code>2 1 3 5 4</code>. What
        cannot be read is no mark: it is listed to be decided.
      </p>
      <FileButton label="Answers, CSV" accept=".csv" take={(file) => void file.text().then(mark)}>
        Answers, CSV…
      </FileButton>
      {marks && (
        <>
          <Button onClick={() => keep(new Blob([marks.csv], { type: "text/csv" }), "marks.csv")}>
            ↓ Marks, CSV
          </Button>
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
        </>
      )}
    </section>
  );
}

const DECISIONS = [
  ["right", 1],
  ["half", 0.5],
  ["wrong", 0],
] as const;

/** The marks that are kept with a set; what could not be read is decided here. */
function Kept({ id, told }: Props) {
  const queries = useQueryClient();
  const { data } = useQuery({
    queryKey: ["marks", id],
    queryFn: () => keptMarks({ path: { set_id: id } }),
  });
  if (!data?.papers.length) return null;
  const decide = (student: string, question: number, share: number) =>
    void decideMark({ path: { set_id: id }, body: { student, question, share } }).then(
      () => {
        void queries.invalidateQueries({ queryKey: ["marks", id] });
        void queries.invalidateQueries({ queryKey: RECORD });
      },
      (problem: unknown) => told(inWords(problem)),
    );
  const called = (each: { student: string; name: string }) => [each.student, each.name].filter(Boolean);
  return (
    <section aria-labelledby="kept" className="space-y-2">
      <h3 id="kept" className="font-semibold">
        Marks
      </h3>
      <Tabled
        label="Marks of the set"
        heads={["Student", "Marks", "Of", "To be decided"]}
        rows={data.papers.map((each) => [
          called(each).join(" "),
          String(each.total),
          String(each.of),
          each.waits.length ? `question ${each.waits.map((wait) => wait.question).join(", ")}` : "",
        ])}
      />
      <ul className="space-y-1">
        {data.papers.flatMap((each) =>
          each.waits.map((wait) => (
            <li key={`${each.student} ${wait.question}`} className="flex flex-wrap items-center gap-2">
              <span className="min-w-0 flex-1">
                Student {called(each).join(" ")}, question {wait.question}: {wait.told}
              </span>
              {DECISIONS.map(([word, share]) => (
                <Button
                  key={word}
                  aria-label={`${word}: student ${each.student}, question ${wait.question}`}
                  onClick={() => decide(each.student, wait.question, share)}
                >
                  {word}
                </Button>
              ))}
            </li>
          )),
        )}
      </ul>
    </section>
  );
}
