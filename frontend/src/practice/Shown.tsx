import { useQuery } from "@tanstack/react-query";
import { useEffect } from "react";
import { type QuestionOut, workedOut } from "../api/client";
import { Sheet } from "../sheet/Sheet";
import { look } from "../state/looks";

/** The sheet a question is about: as it stands before the step, or the drawing with something wrong in it. */
export function Shown({ question, text }: { question: QuestionOut; text: string }) {
  const shown = question.shows || text;
  const { data } = useQuery({
    queryKey: ["practised", shown],
    queryFn: () => workedOut({ text: shown }, null),
    staleTime: Infinity,
  });
  const { step, line, lettered } = question;
  useEffect(() => {
    // Every solution is lettered where one of them is asked for; else nothing is open.
    look({
      step: step > 0 ? step - 1 : null,
      open: null,
      hover: null,
      ghosts: lettered ? line : null,
    });
    return () => look({ step: null, ghosts: null, pick: null });
  }, [step, line, lettered]);
  return (
    <div className="flex min-h-0 min-w-0 flex-1 flex-col stacked:order-first stacked:h-[38%] stacked:flex-none">
      {data && <Sheet work={data} />}
    </div>
  );
}
