import { useEffect, useRef, useState } from "react";
import { giveHint, judgeAnswer, type QuestionOut, type VerdictInPractice } from "../api/client";
import { isSwitchedOff } from "../state/letterKeys";
import { look } from "../state/looks";
import { Button } from "../ui/Button";
import { Figures } from "../ui/Figures";
import { Came } from "./Came";
import { Choices } from "./Choices";
import { Order } from "./Order";
import { RuleShown, SetPointer } from "./RuleShown";
import { Typed } from "./Typed";

interface Props {
  question: QuestionOut;
  /** What it is asked of: a plan and its seed, and the kit. */
  about: { text: string; seed: number; kit: string };
  givens: readonly string[];
  place: string;
  done: (share: number) => void;
  next: () => void;
  /** What is told while the next one is looked for. */
  waits: string;
}

/** One question: asked, answered, and what came of it. */
export function Question({ question, about: asked, givens, place, done, next, waits }: Props) {
  // What is given stands before what is asked.
  const end = question.asks.includes(" = ") ? question.asks.indexOf(". ") + 1 : 0;
  const [brief, asks] = [question.asks.slice(0, end), question.asks.slice(end).trim()];
  const [said, setSaid] = useState("");
  const [hints, setHints] = useState<string[]>([]);
  const [told, setTold] = useState("");
  const [verdict, setVerdict] = useState<VerdictInPractice | null>(null);
  const uid = useRef(
    Array.from(crypto.getRandomValues(new Uint8Array(16)), (byte) => byte.toString(16).padStart(2, "0")).join(
      "",
    ),
  );
  const about = { ...asked, key: question.key };
  const sending = useRef(false);
  const answer = async (answered: string) => {
    // Pressed twice, it is one answer.
    if (verdict || sending.current || !answered.trim()) return;
    sending.current = true;
    try {
      const found = await judgeAnswer({
        body: { ...about, uid: uid.current, said: answered, hints: hints.length },
      });
      setSaid(answered);
      setVerdict(found);
      // The whole sheet is shown then: the right one in ink, and over it what the answer comes to.
      if (found.played.length) look({ step: null, wrong: found.played });
      setTold("");
      done(found.share);
    } catch (problem) {
      // What cannot be read is told, and may be written again.
      setTold(problem instanceof Error ? problem.message : String(problem));
    } finally {
      sending.current = false;
    }
  };
  useEffect(() => () => look({ wrong: null }), []);
  const hint = async () => {
    const found = await giveHint({ body: { ...about, number: hints.length + 1 } });
    setHints([...hints, found.told]);
  };
  const keys = useRef({ answer, next, verdict });
  useEffect(() => {
    keys.current = { answer, next, verdict };
  });
  useEffect(() => {
    const press = (event: KeyboardEvent) => {
      const { answer, next, verdict } = keys.current;
      const on = event.target instanceof Element ? event.target : null;
      if (on?.closest("input") || isSwitchedOff(event)) return;
      const presses = event.key === "Enter" || event.key === " ";
      // A button that has the focus is pressed by these itself.
      if (presses && on?.closest("button, a, summary")) return;
      if (verdict && presses) next();
      else if (question.sort === "choice" && /^[1-9]$/.test(event.key)) {
        const choice = question.choices[Number(event.key) - 1];
        if (choice) void answer(choice);
      } else return;
      event.preventDefault();
    };
    window.addEventListener("keydown", press);
    return () => window.removeEventListener("keydown", press);
  }, [question]);
  return (
    <section
      aria-label="The question"
      className="flex w-[46%] flex-col gap-2 overflow-auto bg-page p-5 stacked:w-full stacked:flex-1 max-[700px]:p-3"
    >
      <p className="text-pencil">
        {place}
        {question.again && " · asked again, as it was wrong"}
      </p>
      <p className="leading-snug" data-testid="question">
        {brief && (
          <span className="block pb-1 text-base">
            <Figures text={brief} />
          </span>
        )}{" "}
        <span className="text-[clamp(1.15rem,2vw,1.5rem)]">
          <Figures text={asks} />
        </span>
      </p>
      {givens.length > 0 && (
        <details className="text-base text-pencil">
          <summary className="cursor-pointer">the givens</summary>
          <ul>
            {givens.map((given) => (
              <li key={given}>
                <Figures text={given} />
              </li>
            ))}
          </ul>
        </details>
      )}
      {question.rule_shown?.pointed && <RuleShown rule={question.rule_shown} />}
      {question.sort === "choice" ? (
        <Choices question={question} said={said} verdict={verdict} answer={(choice) => void answer(choice)} />
      ) : question.sort === "order" ? (
        <Order question={question} closed={verdict !== null} answer={(order) => void answer(order)} />
      ) : question.rule_shown && !question.rule_shown.pointed ? (
        <SetPointer rule={question.rule_shown} closed={verdict !== null} answer={(at) => void answer(at)} />
      ) : (
        <Typed question={question} closed={verdict !== null} answer={(typed) => void answer(typed)} />
      )}
      {hints.map((each) => (
        <p key={each} className="border-l-4 border-ruling pl-2">
          {each}
        </p>
      ))}
      <p role="status" aria-live="polite">
        {told || waits}
      </p>
      {verdict ? (
        <Came verdict={verdict} tests={question.tests} next={next} />
      ) : (
        hints.length < question.hints && (
          <p>
            <Button onClick={() => void hint()}>A hint, for a quarter of the mark</Button>
          </p>
        )
      )}
    </section>
  );
}
