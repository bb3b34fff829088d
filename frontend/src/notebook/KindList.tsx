import { Popover } from "radix-ui";
import { useId, useRef, useState } from "react";
import { Link } from "react-router";
import type { KindOut } from "../api/client";
import { addressOf, figureOf } from "../state/handbook";

/** How well a kind answers to some words: by its name, by what it is called elsewhere, by what it does; or not. */
function answers(kind: KindOut, asked: readonly string[]): number {
  const holds = (told: string) => asked.every((word) => told.toLowerCase().includes(word));
  if (kind.name.startsWith(asked.join(" "))) return 0;
  if (holds(kind.name) || kind.also.some(holds)) return 1;
  return holds([kind.name, ...kind.also, kind.summary, kind.group].join(" ")) ? 2 : 3;
}

/** Every kind of construction by sight, by family or by a word, to begin a statement with. */
export function KindList({ kinds, choose }: { kinds: KindOut[]; choose: (kind: KindOut) => void }) {
  const [open, setOpen] = useState(false);
  const take = (kind: KindOut) => {
    setOpen(false);
    choose(kind);
  };
  return (
    <Popover.Root open={open} onOpenChange={setOpen}>
      <Popover.Trigger className="act">Choose a kind…</Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          side="top"
          align="start"
          sideOffset={4}
          collisionPadding={8}
          className="slip z-10 flex max-h-[var(--radix-popover-content-available-height)] w-[40rem] max-w-[96vw] flex-col p-3 shadow-md"
          aria-label="Kinds of construction"
          onCloseAutoFocus={(event) => event.preventDefault()}
        >
          <Kinds kinds={kinds} take={take} />
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

function Kinds({ kinds, take }: { kinds: KindOut[]; take: (kind: KindOut) => void }) {
  const [words, setWords] = useState("");
  const [at, setAt] = useState(0);
  const id = useId();
  const list = useRef<HTMLDivElement>(null);
  const asked = words.toLowerCase().split(/\s+/).filter(Boolean);
  const fit = asked.length
    ? kinds
        .map((kind) => ({ kind, how: answers(kind, asked) }))
        .filter(({ how }) => how < 3)
        .sort((a, b) => a.how - b.how)
        .map(({ kind }) => kind)
    : kinds;
  const groups = asked.length ? [""] : [...new Set(kinds.map((kind) => kind.group))];
  const come = (to: number) => {
    setAt(to);
    list.current?.querySelectorAll("[role=option]")[to]?.scrollIntoView({ block: "nearest" });
  };
  /** How many kinds lie side by side. */
  const across = () => {
    const options = [...(list.current?.querySelectorAll("[role=option]") ?? [])];
    const top = options[at]?.getBoundingClientRect().top;
    return options.filter((each) => each.getBoundingClientRect().top === top).length || 1;
  };
  const keys = (event: React.KeyboardEvent) => {
    const go = { ArrowDown: across(), ArrowUp: -across(), ArrowRight: 1, ArrowLeft: -1 }[event.key];
    const sideways = event.key === "ArrowRight" || event.key === "ArrowLeft";
    if (go !== undefined && !(sideways && words)) {
      event.preventDefault();
      come(Math.max(0, Math.min(fit.length - 1, at + go)));
    } else if (event.key === "Enter") {
      event.preventDefault();
      const kind = fit[at];
      if (kind) take(kind);
    }
  };
  const lit = fit[at];
  return (
    <>
      <input
        type="search"
        role="combobox"
        aria-expanded
        aria-controls={id}
        aria-activedescendant={lit && `${id}-${lit.name}`}
        aria-label="Find a kind"
        placeholder="find: hexagon, rows of holes, blend …"
        className="field w-full"
        value={words}
        maxLength={80}
        onChange={(event) => {
          setWords(event.target.value);
          setAt(0);
        }}
        onKeyDown={keys}
      />
      <div ref={list} id={id} role="listbox" aria-label="Kinds" className="min-h-0 flex-1 overflow-auto pt-2">
        {fit.length === 0 && <p role="status">No kind is called that. Look in the handbook.</p>}
        {groups.map((group) => (
          <div key={group} role="group" aria-label={group || "Found"}>
            {group && <p className="pt-1 text-sm font-semibold text-pencil">{group}</p>}
            <div className="grid grid-cols-[repeat(auto-fill,minmax(8.5rem,1fr))] gap-1">
              {fit
                .filter((kind) => !group || kind.group === group)
                .map((kind) => (
                  <div
                    key={kind.name}
                    id={`${id}-${kind.name}`}
                    role="option"
                    tabIndex={-1}
                    aria-selected={kind === lit}
                    title={kind.summary}
                    className={`cursor-pointer border p-1 ${kind === lit ? "border-ink bg-wash" : "border-transparent"}`}
                    onMouseEnter={() => setAt(fit.indexOf(kind))}
                    onClick={() => take(kind)}
                    onKeyDown={(event) => event.key === "Enter" && take(kind)}
                  >
                    <img
                      src={figureOf({ chapter: "constructions", key: kind.name }, true)}
                      alt=""
                      loading="lazy"
                      className="on-paper h-14 w-full object-contain"
                    />
                    <span className="block truncate text-center text-sm">{kind.name}</span>
                  </div>
                ))}
            </div>
          </div>
        ))}
      </div>
      <p className="flex min-h-12 items-baseline gap-2 border-t border-rim pt-1">
        {lit && (
          <>
            <span className="min-w-0 flex-1">
              <strong>{lit.name}</strong>: {lit.summary}
            </span>
            <Link className="shrink-0 underline" to={addressOf("constructions", lit.name)}>
              in the handbook
            </Link>
          </>
        )}
      </p>
    </>
  );
}
