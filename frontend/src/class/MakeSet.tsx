import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useRef, useState } from "react";
import {
  classList,
  inWords,
  keepSet,
  listJobs,
  listTopics,
  makePart,
  openJob,
  setChoices,
  setPaper,
} from "../api/client";
import { Button } from "../ui/Button";
import { Check } from "../ui/Check";
import { Field } from "../ui/Field";
import { FileButton } from "../ui/FileButton";
import { SETS } from "./Sets";

/** A set with the paper of one student: what stands around the papers is the same in all of them. */
interface PartOfSet {
  papers: { questions: unknown[] }[];
}

/** What is wrong with a whole number as it was typed; nothing where it is one within its bounds. */
const wrongly = (label: string, typed: string, least: number, most: number) =>
  /^\d{1,7}$/.test(typed.trim()) && Number(typed) >= least && Number(typed) <= most
    ? ""
    : `${label}: a whole number from ${least} to ${most}`;

/** Who is in the class: names pasted, a row each, or a table with a column of names. */
function ClassList({
  take,
  told,
}: {
  take: (names: readonly string[]) => void;
  told: (words: string) => void;
}) {
  const [typed, setTyped] = useState("");
  const read = (text: string) =>
    classList({ body: { text } }).then(
      (found) => {
        take(found.names);
        told(`${found.names.length} names are in the class list.`);
      },
      (problem: unknown) => told(inWords(problem)),
    );
  return (
    <div className="space-y-2 py-1">
      <textarea
        className="field block h-24 w-full"
        aria-label="Names, a row each"
        placeholder="a name in a row, or a table with a column  name"
        value={typed}
        onChange={(event) => setTyped(event.target.value)}
      />
      <span className="flex gap-2">
        <Button disabled={!typed.trim()} onClick={() => void read(typed)}>
          Take these names
        </Button>
        <FileButton
          label="A class list from disk"
          accept=".csv,.txt"
          take={(file) => void file.text().then(read)}
        >
          From disk…
        </FileButton>
      </span>
    </div>
  );
}

/** A set is made paper by paper, and kept in the register. */
export function MakeSet({ made, told }: { made: (set: number) => void; told: (words: string) => void }) {
  const jobs = useQuery({
    queryKey: ["jobs for a class"],
    queryFn: () => listJobs({ query: { order: "drawing", size: 200 } }),
  });
  const queries = useQueryClient();
  const [title, setTitle] = useState("Setting out");
  const [chosen, setChosen] = useState<number[]>([]);
  const choices = useQuery({ queryKey: ["set choices"], queryFn: () => setChoices(), staleTime: Infinity });
  const topics = useQuery({ queryKey: ["topics"], queryFn: () => listTopics(), staleTime: Infinity });
  const [fresh, setFresh] = useState<string[]>([]);
  const [rules, setRules] = useState<string[]>([]);
  const [grade, setGrade] = useState("0");
  const [names, setNames] = useState<readonly string[]>([]);
  const [students, setStudents] = useState("24");
  const [count, setCount] = useState("12");
  const [seed, setSeed] = useState("1");
  const [done, setDone] = useState<number | null>(null);
  const stop = useRef(false);
  const wrong = [
    names.length ? "" : wrongly("Students", students, 1, 2000),
    wrongly("Questions", count, 1, 60),
    wrongly("Number of the draw", seed, 0, 9_999_999),
  ].filter(Boolean);
  const make = async () => {
    const all = names.length || Number(students);
    stop.current = false;
    try {
      const own = chosen.map(async (job) => (await openJob({ path: { job_id: job } })).newest.text);
      const anew = fresh.map(
        async (topic) => (await makePart({ body: { topic, seed: Number(seed), grade: Number(grade) } })).text,
      );
      const texts = await Promise.all([...own, ...anew]);
      let whole: PartOfSet | null = null;
      for (let student = 1; student <= all; student++) {
        if (stop.current) return told("Stopped: no set was kept.");
        setDone(student - 1);
        const part = (await setPaper({
          body: {
            title,
            texts,
            student,
            name: names[student - 1] ?? "",
            count: Number(count),
            seed: Number(seed),
            rules,
            grade: Number(grade),
          },
        })) as unknown as PartOfSet;
        // A set is its first part with the papers of the others.
        if (whole) whole.papers.push(...part.papers);
        else whole = part;
      }
      const kept = await keepSet({ body: { set: JSON.stringify(whole) } });
      await queries.invalidateQueries({ queryKey: SETS });
      made(kept.id);
      const asked = whole?.papers[0]?.questions.length ?? 0;
      const fewer =
        asked < Number(count)
          ? ` These parts give no more than ${asked} questions that every paper can ask.`
          : "";
      told(`The set has ${all} papers of ${asked} questions, and is kept in the register.${fewer}`);
    } catch (problem) {
      told(inWords(problem));
    } finally {
      setDone(null);
    }
  };
  const field = (label: string, value: string, put: (value: string) => void, wide = "w-24", note = "") => (
    <Field label={label} title={note}>
      <input className={`field ${wide}`} value={value} onChange={(event) => put(event.target.value)} />
    </Field>
  );
  return (
    <section aria-labelledby="making" className="space-y-3">
      <h2 id="making" className="text-lg font-semibold">
        Make a set: the same parts, other givens for every student
      </h2>
      <div className="flex flex-wrap gap-x-6 gap-y-2">
        {field("Title", title, setTitle, "w-72")}
        {names.length ? (
          <p>
            <span className="block text-sm text-pencil">Students</span>
            {names.length} by name{" "}
            <Button onClick={() => setNames([])} aria-label="Take the class list away">
              ×
            </Button>
          </p>
        ) : (
          field("Students", students, setStudents)
        )}
        {field("Questions", count, setCount)}
        {field("Number of the draw", seed, setSeed, "w-24", "The same number draws the same papers again.")}
        <Field label="Grade">
          <select className="field" value={grade} onChange={(event) => setGrade(event.target.value)}>
            {choices.data?.grades.map((each) => (
              <option key={each.key} value={each.key}>
                {each.key === "0" ? each.told : `${each.key}: ${each.told}`}
              </option>
            ))}
          </select>
        </Field>
      </div>
      <details>
        <summary className="cursor-pointer">
          A class list{names.length > 0 && `: ${names[0]} … ${names.at(-1)}`}
        </summary>
        <ClassList take={setNames} told={told} />
      </details>
      <details>
        <summary className="cursor-pointer">
          Rules: {rules.length ? `${rules.length} of them` : "all that can be asked on paper"}
        </summary>
        <ul className="py-1">
          {choices.data?.rules.map((rule) => (
            <li key={rule.key}>
              <Check
                label={rule.told}
                on={rules.includes(rule.key)}
                put={(on) => setRules(on ? [...rules, rule.key] : rules.filter((each) => each !== rule.key))}
              />
            </li>
          ))}
        </ul>
      </details>
      <div className="flex flex-wrap items-center gap-3">
        <Button
          main
          disabled={chosen.length + fresh.length === 0 || wrong.length > 0 || done !== null}
          onClick={() => void make()}
        >
          Make the set
        </Button>
        {wrong.map((words) => (
          <span key={words} role="alert" className="text-sm text-accent">
            ✗ {words}
          </span>
        ))}
        {chosen.length + fresh.length === 0 && (
          <span className="text-sm text-pencil">choose a part below first</span>
        )}
        {done !== null && (
          <>
            <span className="flex items-center gap-2" role="status">
              <progress value={done} max={names.length || Number(students)} aria-label="Papers made" /> {done}{" "}
              of {names.length || students}
            </span>
            <Button onClick={() => (stop.current = true)}>Stop</Button>
          </>
        )}
      </div>
      <fieldset>
        <legend className="text-sm text-pencil">New parts, made for this set</legend>
        <ul className="grid grid-cols-[repeat(auto-fill,minmax(min(11rem,100%),1fr))] gap-x-4">
          {topics.data?.topics.map((topic) => (
            <li key={topic.key} title={topic.told}>
              <Check
                label={topic.title}
                on={fresh.includes(topic.key)}
                put={(on) =>
                  setFresh(on ? [...fresh, topic.key] : fresh.filter((each) => each !== topic.key))
                }
              />
            </li>
          ))}
        </ul>
      </fieldset>
      <fieldset>
        <legend className="text-sm text-pencil">Parts of the register</legend>
        <ul className="grid grid-cols-[repeat(auto-fill,minmax(min(9rem,100%),1fr))] gap-2 pt-1">
          {jobs.data?.jobs.map((job) => {
            const on = chosen.includes(job.id);
            return (
              <li key={job.id}>
                <label
                  className={`on-paper block cursor-pointer border p-1 ${on ? "border-2 border-ink" : "border-rim"}`}
                >
                  {job.pictured && (
                    <img
                      src={`/api/jobs/${job.id}/thumbnail.svg?r=${job.revision}`}
                      alt=""
                      loading="lazy"
                      className="h-14 w-full object-contain"
                    />
                  )}
                  <span className="flex items-baseline gap-1.5 text-sm">
                    <input
                      type="checkbox"
                      className="accent-[var(--color-ink)]"
                      checked={on}
                      onChange={() =>
                        setChosen(on ? chosen.filter((id) => id !== job.id) : [...chosen, job.id])
                      }
                    />
                    <span className="min-w-0 truncate">
                      {job.drawing} {job.title}
                    </span>
                  </span>
                </label>
              </li>
            );
          })}
        </ul>
      </fieldset>
    </section>
  );
}
