import { useState } from "react";
import type { QuestionOut } from "../api/client";
import { Button } from "../ui/Button";

/** Steps are touched in the order in which they are done. */
export function Order({
  question,
  closed,
  answer,
}: {
  question: QuestionOut;
  closed: boolean;
  answer: (order: string) => void;
}) {
  const [taken, setTaken] = useState<number[]>([]);
  return (
    <div className="space-y-1">
      <p className="text-base text-pencil">Touch the steps in the order in which they are done.</p>
      <ul className="space-y-1">
        {question.choices.map((step, i) => {
          const place = taken.indexOf(i);
          return (
            <li key={step}>
              <Button
                className="w-full text-left"
                aria-pressed={place >= 0}
                aria-disabled={closed}
                onClick={() =>
                  !closed && setTaken(place >= 0 ? taken.filter((each) => each !== i) : [...taken, i])
                }
              >
                <span className="inline-block w-6 font-semibold">{place >= 0 ? place + 1 : ""}</span>
                {step}
              </Button>
            </li>
          );
        })}
      </ul>
      <Button
        main
        disabled={closed || taken.length < question.choices.length}
        onClick={() => answer(taken.map((each) => each + 1).join(" "))}
      >
        That is the order
      </Button>
    </div>
  );
}
