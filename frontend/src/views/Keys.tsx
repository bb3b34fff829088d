import { Dialog } from "radix-ui";
import { switchLetterKeys, useLetterKeys } from "../state/letterKeys";
import { Check } from "../ui/Check";

const KEYS = [
  ["n", "write the next statement"],
  ["[  ]", "a step back, a step on"],
  ["Esc", "leave off picking; show all steps"],
  ["A to H", "on a setting card: choose the candidate with that letter"],
  ["Ctrl+S", "save a revision"],
  ["Ctrl+Z  Ctrl+Shift+Z", "undo, redo"],
  ["+  −  0  arrows", "on the sheet: nearer, further, all of it, slide"],
  ["arrows  Shift  Enter", "lining in by region: move the cross, finely, point"],
] as const;

/** The few keys. */
export function Keys({ open, onOpenChange }: { open: boolean; onOpenChange: (open: boolean) => void }) {
  const { on } = useLetterKeys();
  return (
    <Dialog.Root open={open} onOpenChange={onOpenChange}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 bg-black/40" />
        <Dialog.Content
          className="fixed inset-x-2 top-8 z-30 mx-auto max-h-[90vh] max-w-[32rem] overflow-auto bg-page p-6"
          aria-describedby={undefined}
        >
          <Dialog.Title className="text-lg font-semibold">Keys</Dialog.Title>
          <dl className="grid grid-cols-[11rem_1fr] gap-y-1 py-3">
            {KEYS.map(([key, does]) => (
              <div key={key} className="contents">
                <dt className="font-semibold">{key}</dt>
                <dd>{does}</dd>
              </div>
            ))}
          </dl>
          <p className="pb-3">
            <Check label="single signs are keys (off: only those with Ctrl)" on={on} put={switchLetterKeys} />
          </p>
          <Dialog.Close className="act">Close</Dialog.Close>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
