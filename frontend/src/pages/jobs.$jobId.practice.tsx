import { useQuery } from "@tanstack/react-query";
import { useEffect, useLayoutEffect, useRef, useState } from "react";
import { useParams } from "react-router";
import {
  askNext,
  giveHint,
  judgeAnswer,
  type NextOut,
  type QuestionOut,
  showSetting,
  type VerdictInPractice,
  workedOut,
} from "../api/client";
import { kitCalled } from "../state/kits";
import { isSwitchedOff } from "../state/letterKeys";
import { useJob } from "../state/server";
import { Sheet } from "../sheet/Sheet";
import { look } from "../state/looks";
import { Figures } from "../ui/Figures";
import { Bar, JobBar } from "../views/Bar";
import { Button } from "../ui/Button";
import { Check } from "../ui/Check";
import { Steps } from "../ui/Steps";

const ROUND = 10;
const SPACED = "entrick.practice.spaced";

/** What a round is about: its first question, and what each further one is asked for with. */
interface Round {
  text: string;
  seed: number;
  kit: string;
  spaced: boolean;
  varied: boolean;
  first: NextOut;
}

/** Practice on a job: a short round of questions beside the sheet, one at a time. */
export function Component() {
  const job = Number(useParams().jobId);
  const found = useJob(job);
  const [round, setRound] = useState<Round | null>(null);
  const [spaced, setSpaced] = useState(() => localStorage.getItem(SPACED) !== "no");
  const [varied, setVaried] = useState(true);
  const [told, setTold] = useState("");
  useEffect(() => {
    document.title = "Practice · Entrick";
  }, []);
  const begin = async () => {
    if (!found.data) return;
    const seed = crypto.getRandomValues(new Uint32Array(1))[0]! >>> 2;
    setTold("Making the questions…");
    try {
      const kit = await kitCalled(found.data.kit);
      const { text } = found.data.newest;
      const round = { text, seed, kit, spaced, varied };
      setRound({ ...round, first: await askNext({ body: round }) });
      setTold("");
    } catch (problem) {
      setTold(problem instanceof Error ? problem.message : String(problem));
    }
  };
  return (
    <div className="flex h-full flex-col">
      <Bar>
        <JobBar job={found.data?.job} />
      </Bar>
      {round ? (
        <Asking key={round.seed} round={round} again={() => void begin()} />
      ) : (
        <main id="page" tabIndex={-1} className="min-h-0 flex-1 overflow-auto bg-page p-8 text-lg tight:p-3">
          {found.error && <p role="alert">{found.error.message}</p>}
          <p className="pb-4">
            {ROUND} questions about this part: what to set, where the centre lies, what stands wrong. A wrong
            answer is looked into, and what it shows is asked again sooner.
          </p>
          <Steps
            each={[
              ["The part is shown", "with the givens of this round, as far as the step it is about."],
              ["You say the setting", "typed, chosen by a digit, pointed at on the sheet, or put in order."],
              ["The slip is named", "where an answer is wrong, with the working; hints cost a little."],
            ]}
          />
          <p className="space-y-1 py-4 text-base">
            <Check label="with new givens" on={varied} put={setVaried} />
            <Check
              label="what was wrong comes back, after two and after five others, and in days when it is due"
              on={spaced}
              put={(on) => {
                setSpaced(on);
                localStorage.setItem(SPACED, on ? "yes" : "no");
              }}
            />
          </p>
          <Button main className="text-lg" disabled={!found.data} onClick={() => void begin()}>
            Begin a round
          </Button>
          <p role="status" className="pt-3 text-base">
            {told}
          </p>
        </main>
      )}
    </div>
  );
}

/** An answered question of a round. */
interface Done {
  question: QuestionOut;
  share: number;
}

/** The questions of a round, one after another, and what came of them. */
function Asking({ round, again }: { round: Round; again: () => void }) {
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
      <One
        key={number}
        asked={asked}
        kit={round.kit}
        place={`${number} of ${ROUND}`}
        done={answered}
        next={() => void next()}
        waits={told}
      />
      <Shown question={asked.question} text={asked.text} />
    </main>
  );
}

/** The sheet a question is about: as it stands before the step, or the drawing with something wrong in it. */
function Shown({ question, text }: { question: QuestionOut; text: string }) {
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

interface OneProps {
  asked: NextOut;
  kit: string;
  place: string;
  done: (share: number) => void;
  next: () => void;
  /** What is told while the next one is looked for. */
  waits: string;
}

function One({ asked, kit, place, done, next, waits }: OneProps) {
  const { question, givens } = asked;
  const [said, setSaid] = useState("");
  const [hints, setHints] = useState<string[]>([]);
  const [told, setTold] = useState("");
  const [verdict, setVerdict] = useState<VerdictInPractice | null>(null);
  const uid = useRef(
    Array.from(crypto.getRandomValues(new Uint8Array(16)), (byte) => byte.toString(16).padStart(2, "0")).join(
      "",
    ),
  );
  const about = { text: asked.text, seed: asked.seed, key: question.key, kit };
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
      setTold("");
      done(found.share);
    } catch (problem) {
      // What cannot be read is told, and may be written again.
      setTold(problem instanceof Error ? problem.message : String(problem));
    } finally {
      sending.current = false;
    }
  };
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
      <p className="text-[clamp(1.15rem,2vw,1.5rem)] leading-snug" data-testid="question">
        <Figures text={question.asks} />
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
      {question.sort === "choice" ? (
        <Choices question={question} said={said} verdict={verdict} answer={(choice) => void answer(choice)} />
      ) : question.sort === "order" ? (
        <Order question={question} closed={verdict !== null} answer={(order) => void answer(order)} />
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

function Choices({
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

/** Steps are touched in the order in which they are done. */
function Order({
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

/** A size is typed as one writes it; the instrument opens to it. */
function Typed({
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

/** What came of an answer. */
function Came({ verdict, tests, next }: { verdict: VerdictInPractice; tests: string; next: () => void }) {
  const on = useRef<HTMLButtonElement>(null);
  useLayoutEffect(() => on.current?.focus(), []);
  return (
    <div className="border-l-4 border-ink pl-3" role="status" data-testid="came">
      <p className="text-lg font-semibold">
        {verdict.share === 1 ? "✓ " : verdict.share > 0 ? "½ " : "✗ "}
        {verdict.told}
      </p>
      {verdict.share < 1 && (
        <p className="text-lg">
          It is <Figures text={verdict.right} />.
        </p>
      )}
      <p className="text-pencil">The rule: {tests}.</p>
      {verdict.picture && <img src={verdict.picture} alt="" className="max-h-40" />}
      <ul className="py-1 text-pencil">
        {verdict.working.map((row) => (
          <li key={row}>
            <Figures text={row} />
          </li>
        ))}
      </ul>
      <Button ref={on} main className="text-lg" onClick={next}>
        On
      </Button>
    </div>
  );
}
