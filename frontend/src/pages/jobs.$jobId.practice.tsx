import { useEffect, useState } from "react";
import { useParams } from "react-router";
import { useQuery } from "@tanstack/react-query";
import { askNext, listTopics, makePart } from "../api/client";
import { Drill } from "../practice/Drill";
import { type Begun, Round, ROUND } from "../practice/Round";
import { kitCalled } from "../state/kits";
import { useJob } from "../state/server";
import { Bar, JobBar } from "../views/Bar";
import { Button } from "../ui/Button";
import { Check } from "../ui/Check";
import { Steps } from "../ui/Steps";

const SPACED = "entrick.practice.spaced";

/** Practice on a job: a short round of questions beside the sheet, one at a time. */
export function Component() {
  const job = Number(useParams().jobId);
  const found = useJob(job);
  const [round, setRound] = useState<Begun | null>(null);
  const [drill, setDrill] = useState<string | null>(null);
  const [spaced, setSpaced] = useState(() => localStorage.getItem(SPACED) !== "no");
  const topics = useQuery({ queryKey: ["topics"], queryFn: () => listTopics(), staleTime: Infinity });
  const [topic, setTopic] = useState("");
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
      const own = found.data.newest.text;
      const text = topic ? (await makePart({ body: { topic, seed } })).text : own;
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
      {drill !== null ? (
        <Drill kit={drill} done={() => setDrill(null)} />
      ) : round ? (
        <Round key={round.seed} round={round} again={() => void begin()} />
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
            <label className="flex items-baseline gap-2">
              about
              <select className="field" value={topic} onChange={(event) => setTopic(event.target.value)}>
                <option value="">this part</option>
                {topics.data?.topics.map((each) => (
                  <option key={each.key} value={each.key} title={each.told}>
                    a new one: {each.title.toLowerCase()}
                  </option>
                ))}
              </select>
            </label>
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
          </Button>{" "}
          <Button
            className="text-lg"
            disabled={!found.data}
            onClick={() => void kitCalled(found.data?.kit ?? "").then(setDrill)}
          >
            Read the rule, against the clock
          </Button>
          <p role="status" className="pt-3 text-base">
            {told}
          </p>
        </main>
      )}
    </div>
  );
}
