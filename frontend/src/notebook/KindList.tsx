import { Popover } from "radix-ui";
import { useState } from "react";
import type { KindOut } from "../api/client";

/** Every kind of construction by family, to begin a statement with. */
export function KindList({ kinds, choose }: { kinds: KindOut[]; choose: (kind: KindOut) => void }) {
  const [open, setOpen] = useState(false);
  const groups = [...new Set(kinds.map((kind) => kind.group))];
  return (
    <Popover.Root open={open} onOpenChange={setOpen}>
      <Popover.Trigger className="act">Choose a kind…</Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          side="top"
          align="start"
          sideOffset={4}
          collisionPadding={8}
          className="slip z-10 max-h-[var(--radix-popover-content-available-height)] w-[32rem] overflow-auto p-3 shadow-md"
          aria-label="Kinds of construction"
          onCloseAutoFocus={(event) => event.preventDefault()}
        >
          {groups.map((group) => (
            <section key={group} className="pb-2">
              <h3 className="text-sm font-semibold text-pencil">{group}</h3>
              {kinds
                .filter((kind) => kind.group === group)
                .map((kind) => (
                  <button
                    key={kind.name}
                    className="flex w-full items-baseline gap-3 px-1 py-1 text-left hover:bg-wash"
                    onClick={() => {
                      setOpen(false);
                      choose(kind);
                    }}
                  >
                    <strong className="w-20 shrink-0">{kind.name}</strong>
                    <span>{kind.summary}</span>
                  </button>
                ))}
            </section>
          ))}
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
