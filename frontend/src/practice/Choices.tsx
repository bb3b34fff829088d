import { useEffect } from "react";
import type { QuestionOut, VerdictInPractice } from "../api/client";
import { look } from "../state/looks";
import { Figures } from "../ui/Figures";

/** One of several things is chosen: by a press, a digit, or on the sheet. */
export function Choices({
  question,
  said,
  verdict,
  answer,
}: {
  question: QuestionOut;
  said: string;
  verdict: VerdictInPractice | null;
  answer: (choice: string) => void;
}) {
  const closed = verdict !== null;
  const { pointed, choices } = question;
  useEffect(() => {
    // What comes next may be clicked on the sheet as well.
    if (!pointed || closed) return;
    const take = (name: string) => {
      const choice = choices.find((each) => each === name || name.startsWith(`${each}.`));
      if (choice) answer(choice);
    };
    look({ pick: { wanted: "the piece that comes next", take } });
    return () => look({ pick: null });
  }, [pointed, choices, closed, answer]);
  return (
    <ol className="space-y-1">
      {question.choices.map((choice, i) => {
        const right = closed && verdict.right === choice;
        return (
          <li key={choice}>
            <button
              className={`act w-full text-left text-lg ${right ? "act-main" : ""}`}
              aria-disabled={closed}
              aria-pressed={said === choice}
              onClick={() => answer(choice)}
            >
              <span className="pr-2 text-pencil">{i + 1}</span>
              <Figures text={choice} />
              {right && " ✓"}
              {closed && said === choice && !right && " ✗"}
            </button>
          </li>
        );
      })}
    </ol>
  );
}
