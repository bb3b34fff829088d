import { AlertDialog } from "radix-ui";
import { api } from "../api/client";
import { useBench } from "../state/bench";

/** A save based on an old revision: both versions are shown, neither is lost. */
export function StaleSave() {
  const { stale, text, job, settle, replace, save, set } = useBench();
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
    const copy = await api.addJob({ text, note: `parted from job ${job?.id}` });
    settle(stale.number);
    await replace(stale.text);
    set({ message: `Yours is entered in the register as a job of its own, number ${copy.id}.` });
  };
  return (
    <AlertDialog.Root open>
      <AlertDialog.Portal>
        <AlertDialog.Overlay className="fixed inset-0 bg-black/40" />
        <AlertDialog.Content className="fixed inset-x-8 top-12 mx-auto max-w-5xl bg-page p-6">
          <AlertDialog.Title className="text-lg font-semibold">
            Revision {stale.number} was saved in the meantime
          </AlertDialog.Title>
          <AlertDialog.Description>
            Nothing is lost. Compare the two and say what to keep; the other stays among the revisions or in
            undo.
          </AlertDialog.Description>
          <div className="grid grid-cols-2 gap-4 py-4">
            {(
              [
                ["Yours, not saved", text],
                [`Revision ${stale.number}`, stale.text],
              ] as const
            ).map(([head, body]) => (
              <section key={head}>
                <h3 className="font-semibold">{head}</h3>
                <pre className="slip h-72 overflow-auto p-2 text-[13px]">{body}</pre>
              </section>
            ))}
          </div>
          <div className="flex gap-2">
            <AlertDialog.Action className="act act-main" onClick={() => void mine()}>
              Save mine as the next revision
            </AlertDialog.Action>
            <AlertDialog.Action className="act" onClick={() => void theirs()}>
              Take revision {stale.number}; mine stays in undo
            </AlertDialog.Action>
            <AlertDialog.Action className="act" onClick={() => void apart()}>
              Keep mine as a job of its own
            </AlertDialog.Action>
            <AlertDialog.Cancel className="act" onClick={() => set({ stale: null })}>
              Decide later
            </AlertDialog.Cancel>
          </div>
        </AlertDialog.Content>
      </AlertDialog.Portal>
    </AlertDialog.Root>
  );
}
