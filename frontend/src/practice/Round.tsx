/** A round of practice: its questions one after another, each chosen after the last answer. */
import { useRef, useState } from "react";
import { askNext, type NextOut, type QuestionOut } from "../api/client";
import { Button } from "../ui/Button";
import { Question } from "./Question";
import { Shown } from "./Shown";

export const ROUND = 10;

/** What a round is about: its first question, and what each further one is asked for with. */
export interface Begun {
  text: string;
  seed: number;
  kit: string;
  spaced: boolean;
  varied: boolean;
  first: NextOut;
}

/** An answered question of a round. */
interface Done {
  question: QuestionOut;
  share: number;
}

/** The questions of a round, one after another, and what came of them. */
export function Round({ round, again }: { round: Begun; again: () => void }) {
  const [asked, setAsked] = useState(round.first);
  const [done, setDone] = useState<Done[]>([]);
  const [number, setNumber] = useState(1);
  const [told, setTold] = useState("");
  // The next one is looked for while what came of the last is read.
  const coming = useRef<Promise<NextOut> | null>(null);
  const { text, seed, kit, spaced, varied } = round;
  const fetchNext = (answered: Done[]) =>
    (coming.current = askNext({
      body: { text, seed, kit, spaced, varied, asked: answered.map((each) => each.question.key) },
    }));
  const answered = (share: number) => {
    const now = [...done, { question: asked.question, share }];
    setDone(now);
    if (now.length < ROUND) void fetchNext(now).catch(() => undefined);
  };
  const next = async () => {
    if (number >= ROUND) return setNumber(number + 1);
    setTold("Looking for the next…");
    try {
      setAsked(await (coming.current ?? fetchNext(done)));
      setNumber(number + 1);
      setTold("");
    } catch (problem) {
      setTold(problem instanceof Error ? problem.message : String(problem));
      coming.current = null;
    }
  };
  if (number > ROUND)
    return (
      <main id="page" tabIndex={-1} className="m-6 bg-page p-6 text-2xl max-[700px]:m-1">
        <p className="pb-4" data-testid="score">
          {done.reduce((sum, each) => sum + each.share, 0)} of {done.length} right.
        </p>
        <ol className="pb-4 text-base">
          {done.map(({ question, share }, i) => (
            <li key={i}>
              {share === 1 ? "✓" : share ? "½" : "✗"} {question.tests}
            </li>
          ))}
        </ol>
        <Button main className="text-lg" onClick={again}>
          Another round
        </Button>
      </main>
    );
  return (
    <main id="page" tabIndex={-1} className="flex min-h-0 flex-1 stacked:flex-col">
      <Question
        key={number}
        question={asked.question}
        about={{ text: asked.text, seed: asked.seed, kit: round.kit }}
        givens={asked.givens}
        place={`${number} of ${ROUND}`}
        done={answered}
        next={() => void next()}
        waits={told}
      />
      <Shown question={asked.question} text={asked.text} />
    </main>
  );
}
