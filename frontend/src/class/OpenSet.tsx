import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { type ClassMarksOut, inWords, markClass, openSet, type PapersIn } from "../api/client";
import { downloadPapers, keep } from "../api/files";
import { Bars } from "../ui/Bars";
import { Button } from "../ui/Button";
import { FileButton } from "../ui/FileButton";
import { Tabled } from "../ui/Tabled";

/** A set that is open: its papers and key, and the marks of what came back. */
export function OpenSet({ id, told }: { id: number; told: (words: string) => void }) {
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
      <Marking set={data.set} told={told} />
    </>
  );
}

function Papers({ set, told }: { set: string; told: (words: string) => void }) {
  const [paper, choosePaper] = useState<NonNullable<PapersIn["paper"]>>("A4");
  const take = (key: boolean) =>
    downloadPapers({ set, key, paper }).then(
      (name) => told(`${name} is in your downloads.`),
      (problem: unknown) => told(inWords(problem)),
    );
  return (
    <section aria-label="The set" className="flex flex-wrap items-center gap-2">
      <Button onClick={() => void take(false)}>↓ Papers, PDF</Button>
      <Button onClick={() => void take(true)}>↓ Key, PDF</Button>
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
      <Button onClick={() => keep(new Blob([set], { type: "application/json" }), "set.json")}>
        ↓ The set, JSON
      </Button>
    </section>
  );
}

function Marking({ set, told }: { set: string; told: (words: string) => void }) {
  const [marks, setMarks] = useState<ClassMarksOut | null>(null);
  const mark = async (answers: string) => {
    told("Marking…");
    try {
      const found = await markClass({ body: { set, answers } });
      setMarks(found);
      told(`${found.papers.length} papers marked.`);
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
        Answers come as CSV: <code>student,1,2,3 …</code> in the first row, then a row for each student,
        called as on the papers; parted by commas, semicolons or tabs, with decimal points or commas. A choice
        is answered by its letter or its words, an order as <code>2 1 3 5 4</code>. What cannot be read is no
        mark: it is listed to be decided.
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
          <h3 className="font-semibold">Marks</h3>
          <Tabled
            heads={["Student", "Marks", "Of", "To be decided"]}
            rows={marks.papers.map((each) => [
              each.student,
              String(each.total),
              String(each.of),
              each.waits.length ? `question ${each.waits.join(", ")}` : "",
            ])}
          />
        </>
      )}
    </section>
  );
}
