import { useEffect, useRef, useState } from "react";
import { askDrill, type QuestionOut } from "../api/client";
import { Button } from "../ui/Button";
import { Question } from "./Question";

/** Seconds of a drill. */
const LONG = 90;

const newSeed = () => crypto.getRandomValues(new Uint32Array(1))[0]! >>> 2;

/** Reading the rule against the clock: sizes one after another, read off and set, on every face. */
export function Drill({ kit, done }: { kit: string; done: () => void }) {
  const [asked, setAsked] = useState<{ seed: number; question: QuestionOut } | null>(null);
  const [shares, setShares] = useState<number[]>([]);
  const [left, setLeft] = useState(LONG);
  const [told, setTold] = useState("");
  const over = left <= 0;
  const next = async () => {
    const seed = newSeed();
    try {
      setAsked({ seed, question: await askDrill({ body: { seed, kit } }) });
      setTold("");
    } catch (problem) {
      setTold(problem instanceof Error ? problem.message : String(problem));
    }
  };
  const first = useRef(next);
  useEffect(() => void first.current(), []);
  useEffect(() => {
    if (over) return;
    const tick = setInterval(() => setLeft((seconds) => seconds - 1), 1000);
    return () => clearInterval(tick);
  }, [over]);
  const right = shares.filter((share) => share === 1).length;
  if (over)
    return (
      <main id="page" tabIndex={-1} className="m-6 bg-page p-6 text-2xl max-[700px]:m-1">
        <p className="pb-4" data-testid="score">
          {right} of {shares.length} right in {LONG} seconds.
        </p>
        <Button main className="text-lg" onClick={done}>
          Back
        </Button>
      </main>
    );
  return (
    <main id="page" tabIndex={-1} className="flex min-h-0 flex-1 justify-center overflow-auto">
      {asked ? (
        <Question
          key={asked.seed}
          question={asked.question}
          about={{ text: "", seed: asked.seed, kit }}
          givens={[]}
          place={`${left} seconds left · ${right} of ${shares.length} right`}
          done={(share) => setShares((before) => [...before, share])}
          next={() => void next()}
          waits={told}
        />
      ) : (
        <p role="status">{told}</p>
      )}
    </main>
  );
}
