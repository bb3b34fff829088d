import { Dialog } from "radix-ui";

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
  return (
    <Dialog.Root open={open} onOpenChange={onOpenChange}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 bg-black/40" />
        <Dialog.Content
          className="fixed top-1/4 left-1/2 w-[30rem] -translate-x-1/2 bg-page p-6"
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
          <Dialog.Close className="act">Close</Dialog.Close>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
