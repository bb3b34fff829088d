import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useEffect, useEffectEvent, useState } from "react";
import { Link, useNavigate } from "react-router";
import { enterJob, lesson, type Work } from "../api/client";
import { edit, save, tellProblem, useUnsaved } from "../state/document";
import { keptAs } from "../state/register";
import { Button } from "../ui/Button";

/** Which lesson a job is, where it is one: noted in this browser. */
const keyOf = (job: number) => keptAs("lesson", job);

/** Enter a job for a lesson; returns its number. */
export async function beginLesson(key: string): Promise<number> {
  const { start, title } = await lesson({ body: { text: "", lesson: key } });
  const job = await enterJob({ body: { text: start, numbered: true, note: `lesson: ${title}` } });
  localStorage.setItem(keyOf(job.id), key);
  return job.id;
}

/** A lesson, in place: what comes next, why, and the statement that does it. */
export function Lesson({ work, job }: { work: Work; job: number }) {
  const [key, setKey] = useState(() => localStorage.getItem(keyOf(job)) ?? "");
  const unsaved = useUnsaved();
  const { data } = useQuery({
    queryKey: ["lesson", key, work.text],
    queryFn: () => lesson({ body: { text: work.text, lesson: key } }),
    enabled: key !== "",
    placeholderData: keepPreviousData,
    retry: false,
  });
  const finished = data !== undefined && data.at >= data.of;
  // What was learnt on is kept: a lesson ends with its job saved.
  const keep = useEffectEvent(() => unsaved && void save("the lesson done"));
  useEffect(() => {
    if (finished) keep();
  }, [finished]);
  if (!key || !data) return null;
  const leave = () => {
    localStorage.removeItem(keyOf(job));
    setKey("");
    document.getElementById("new-line")?.focus();
  };
  return (
    <section aria-label={`Lesson: ${data.title}`} className="slip my-2 border-l-4 border-l-ink p-3">
      <p className="flex items-center gap-2 text-sm text-pencil">
        {data.title}, {finished ? "done" : `task ${data.at + 1} of ${data.of}`}
        <span aria-hidden="true" className="flex gap-0.5">
          {Array.from({ length: data.of }, (_, i) => (
            <span key={i} className={`h-2 w-4 border border-edge ${i < data.at ? "bg-ink" : ""}`} />
          ))}
        </span>
      </p>
      <p role="status" className="font-semibold">
        {finished ? data.end : data.told}
      </p>
      {!finished && <p>{data.why}</p>}
      <div className="flex flex-wrap gap-1 pt-2">
        {finished ? (
          <>
            <Link className="act" to={`/jobs/${job}/board`}>
              Draw it at the board
            </Link>
            <Link className="act" to={`/jobs/${job}/proof`}>
              Look at its proof
            </Link>
            {data.following && <BeginLesson lesson={data.following}>The next lesson</BeginLesson>}
          </>
        ) : (
          <Button
            onClick={() =>
              void edit(
                data.line > 0
                  ? { op: "line", line: data.line, text: data.row }
                  : { op: "append", text: data.row },
              )
            }
          >
            Write it for me: {data.row}
          </Button>
        )}
        <Button onClick={leave}>{finished ? "Put this away" : "Leave the lesson"}</Button>
      </div>
    </section>
  );
}

/** Enter a job for a lesson, and go to its bench. */
export function BeginLesson({ lesson: key, children }: { lesson: string; children: string }) {
  const go = useNavigate();
  return (
    <Button
      main
      onClick={() =>
        void beginLesson(key)
          .then((job) => go(`/jobs/${job}`))
          .catch(tellProblem)
      }
    >
      {children}
    </Button>
  );
}
