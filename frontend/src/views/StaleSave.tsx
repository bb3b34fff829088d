import { diffLines } from "diff";
import { AlertDialog } from "radix-ui";
import { useQuery } from "@tanstack/react-query";
import { enterJob, oneRevision } from "../api/client";
import { bothKept } from "../state/merging";
import { compare, goOnFrom, replace, save, tell, useSome } from "../state/document";

/** A save based on an old revision: both versions are shown, neither is lost. */
export function StaleSave() {
  const { stale, text, job, base } = useSome("stale", "text", "job", "base");
  // What both went on from: the revision this work began with.
  const from = useQuery({
    queryKey: ["revision", job?.id, base],
    queryFn: () => oneRevision({ path: { job_id: job?.id ?? 0, number: base } }),
    enabled: stale !== null && job !== null,
    staleTime: Infinity,
  }).data;
  const settle = goOnFrom;
  if (!stale) return null;
  const both = from ? bothKept(from.text, text, stale.text) : null;
  const together = async (whole: string) => {
    settle(stale.number);
    await replace(whole);
    await save("with what was saved in the meantime");
  };
  const mine = async () => {
    settle(stale.number);
    await save("saved over a newer revision");
  };
  const theirs = async () => {
    settle(stale.number);
    await replace(stale.text);
  };
  const apart = async () => {
    const copy = await enterJob({ body: { text, note: `parted from job ${job?.id}` } });
    settle(stale.number);
    await replace(stale.text);
    tell(`Yours is entered in the register as a job of its own, number ${copy.id}.`);
  };
  return (
    <AlertDialog.Root open>
      <AlertDialog.Portal>
        <AlertDialog.Overlay className="fixed inset-0 bg-black/40" />
        <AlertDialog.Content className="fixed inset-x-4 top-8 mx-auto max-h-[90vh] max-w-3xl overflow-auto bg-page p-6">
          <AlertDialog.Title className="text-lg font-semibold">
            Revision {stale.number} was saved{stale.name && ` by ${stale.name}`} in the meantime
          </AlertDialog.Title>
          <AlertDialog.Description>
            Nothing is lost. Say what to keep; the other stays among the revisions or in undo. Lines marked −
            stand only in revision {stale.number}, lines marked + only in yours.
          </AlertDialog.Description>
          <Differences theirs={stale.text} mine={text} />
          <div className="flex flex-wrap gap-2">
            {both !== null && (
              <AlertDialog.Action className="act act-main" onClick={() => void together(both)}>
                Keep both: the changes do not meet
              </AlertDialog.Action>
            )}
            <AlertDialog.Action
              className={both === null ? "act act-main" : "act"}
              onClick={() => void mine()}
            >
              Save mine as the next revision
            </AlertDialog.Action>
            <AlertDialog.Action className="act" onClick={() => void theirs()}>
              Take revision {stale.number}; mine stays in undo
            </AlertDialog.Action>
            <AlertDialog.Action className="act" onClick={() => void apart()}>
              Keep mine as a job of its own
            </AlertDialog.Action>
            <AlertDialog.Cancel className="act" onClick={() => compare(null)}>
              Decide later
            </AlertDialog.Cancel>
          </div>
        </AlertDialog.Content>
      </AlertDialog.Portal>
    </AlertDialog.Root>
  );
}

/** Lines that stay about a difference, so that it is known where it is. */
const ABOUT = 2;

interface Line {
  sign: "+" | "−" | " ";
  text: string;
}

/** Two plans line by line, as far as they differ: what stands only in theirs, only in mine, and two lines around. */
function Differences({ theirs, mine }: { theirs: string; mine: string }) {
  const lines = diffLines(theirs, mine).flatMap((part) =>
    part.value
      .replace(/\n$/, "")
      .split("\n")
      .map((text): Line => ({ sign: part.added ? "+" : part.removed ? "−" : " ", text })),
  );
  const near = (at: number) =>
    lines.slice(Math.max(0, at - ABOUT), at + ABOUT + 1).some((line) => line.sign !== " ");
  return (
    <ol aria-label="What differs" className="slip my-4 max-h-80 overflow-auto p-2 font-mono text-sm">
      {lines.map((line, at) =>
        near(at) ? (
          <li
            key={at}
            className={
              line.sign === "+"
                ? "bg-wash font-semibold"
                : line.sign === "−"
                  ? "bg-tab line-through"
                  : "text-pencil"
            }
          >
            <span aria-hidden="true">{line.sign} </span>
            {line.sign !== " " && (
              <span className="sr-only">{line.sign === "+" ? "only in yours: " : "only in theirs: "}</span>
            )}
            {line.text}
          </li>
        ) : (
          near(at - 1) && (
            <li key={at} className="text-pencil">
              …
            </li>
          )
        ),
      )}
    </ol>
  );
}
