import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { lesson, type Work } from "../api/client";
import { edit } from "../state/document";
import { keptAs } from "../state/register";
import { Button } from "../ui/Button";

const key = () => keptAs("lesson", undefined);

/** Note that a job is the first one, to be gone through task by task. */
export const beginLesson = (job: number) => localStorage.setItem(key(), String(job));

/** The first job, in place: what comes next, why, and the statement that does it. */
export function Lesson({ work, job }: { work: Work; job: number }) {
  const [on, setOn] = useState(() => localStorage.getItem(key()) === String(job));
  const { data } = useQuery({
    queryKey: ["lesson", work.text],
    queryFn: () => lesson({ body: { text: work.text } }),
    enabled: on,
    placeholderData: keepPreviousData,
  });
  if (!on || !data) return null;
  const leave = () => {
    localStorage.removeItem(key());
    setOn(false);
  };
  const finished = data.at >= data.of;
  return (
    <section aria-label="The first job" className="slip my-2 border-l-4 border-l-ink p-3">
      <p className="text-sm text-pencil">
        The first job, {finished ? "done" : `task ${data.at + 1} of ${data.of}`}
        <progress className="ml-2 align-middle" value={data.at} max={data.of} aria-label="Tasks done" />
      </p>
      <p role="status" className="font-semibold">
        {finished
          ? "The plate is set out and lined in. Every step at the board stands under the sheet, every setting on its card."
          : data.told}
      </p>
      {!finished && <p>{data.why}</p>}
      <div className="flex flex-wrap gap-1 pt-2">
        {!finished && (
          <Button onClick={() => void edit({ op: "append", text: data.row })}>
            Write it for me: {data.row}
          </Button>
        )}
        <Button onClick={leave}>{finished ? "Put this away" : "Leave the lesson"}</Button>
      </div>
    </section>
  );
}
