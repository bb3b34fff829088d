import { useQuery } from "@tanstack/react-query";
import { useLayoutEffect, useRef, useState } from "react";
import { type QuestionOut, showSetting } from "../api/client";
import { Button } from "../ui/Button";

/** A size is typed as one writes it; the instrument opens to it. */
export function Typed({
  question,
  closed,
  answer,
}: {
  question: QuestionOut;
  closed: boolean;
  answer: (typed: string) => void;
}) {
  const [typed, setTyped] = useState("");
  const field = useRef<HTMLInputElement>(null);
  useLayoutEffect(() => field.current?.focus(), []);
  const { data } = useQuery({
    queryKey: ["opened to", question.tool, question.unit, typed],
    queryFn: ({ signal }) =>
      showSetting({
        body: { said: typed, tool: question.tool, unit: question.unit === "in" ? "in" : "mm" },
        signal,
      }),
    enabled: question.tool !== "" && typed.trim() !== "",
    staleTime: Infinity,
  });
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        answer(typed);
      }}
    >
      <p className="flex items-baseline gap-2 text-lg">
        <label htmlFor="answer">Answer</label>
        <input
          ref={field}
          id="answer"
          className="field w-40 text-lg"
          autoComplete="off"
          value={typed}
          readOnly={closed}
          onChange={(event) => setTyped(event.target.value)}
        />
        {question.unit}
        <Button main disabled={closed || !typed.trim()}>
          Answer
        </Button>
      </p>
      {data?.picture && !closed && (
        <img src={data.picture} alt={`${question.tool} set to ${typed}`} className="max-h-44 pt-2" />
      )}
    </form>
  );
}
