import { diffLines } from "diff";
import { AlertDialog } from "radix-ui";
import { enterJob } from "../api/client";
import { compare, goOnFrom, replace, save, tell, useSome } from "../state/document";

/** A save based on an old revision: both versions are shown, neither is lost. */
export function StaleSave() {
  const { stale, text, job } = useSome("stale", "text", "job");
  const settle = goOnFrom;
  if (!stale) return null;
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
            Revision {stale.number} was saved in the meantime
          </AlertDialog.Title>
          <AlertDialog.Description>
            Nothing is lost. Say what to keep; the other stays among the revisions or in undo. Lines marked −
            stand only in revision {stale.number}, lines marked + only in yours.
          </AlertDialog.Description>
          <Differences theirs={stale.text} mine={text} />
          <div className="flex flex-wrap gap-2">
            <AlertDialog.Action className="act act-main" onClick={() => void mine()}>
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

/** Two plans line by line: what stands in both, only in theirs, only in mine. */
function Differences({ theirs, mine }: { theirs: string; mine: string }) {
  return (
    <ol aria-label="What differs" className="slip my-4 max-h-80 overflow-auto p-2 font-mono text-sm">
      {diffLines(theirs, mine).flatMap((part, at) =>
        part.value
          .replace(/\n$/, "")
          .split("\n")
          .map((line, i) => (
            <li
              key={`${at} ${i}`}
              className={
                part.added ? "bg-wash font-semibold" : part.removed ? "bg-tab line-through" : "text-pencil"
              }
            >
              <span aria-hidden="true">{part.added ? "+ " : part.removed ? "− " : "  "}</span>
              {(part.added || part.removed) && (
                <span className="sr-only">{part.added ? "only in yours: " : "only in theirs: "}</span>
              )}
              {line}
            </li>
          )),
      )}
    </ol>
  );
}
