import { memo, useRef, useState } from "react";
import type { GivenOut, Work } from "../api/client";
import { edit, finished, tell } from "../state/document";
import { look } from "../state/looks";
import { Figures } from "../ui/Figures";
import { Mistake } from "./Mistake";
import { Button } from "../ui/Button";

/** What the brief gives: symbol, value as given, note, and ticks for the places it is used. */
export function Givens({ work }: { work: Work }) {
  return (
    <section aria-labelledby="givens">
      <h2 id="givens" className="text-lg font-semibold">
        Givens
      </h2>
      <ul>
        {work.givens.map((given) => (
          <GivenRow key={`${given.line}:${given.name}`} given={given} />
        ))}
      </ul>
      <NewGiven />
    </section>
  );
}

const GivenRow = memo(function GivenRow({ given }: { given: GivenOut }) {
  const [typed, setTyped] = useState<string | null>(null);
  const [doubt, setDoubt] = useState("");
  const original = useRef(given.value);
  const waiting = useRef<string | null>(null);
  const busy = useRef(false);
  const shown = typed ?? given.value;
  const error = typed === null ? given.error?.message : doubt;

  /** Follow the typing: a value that can be read changes the sheet at once, one that cannot waits to be finished. */
  const follow = async (value: string) => {
    waiting.current = value;
    if (busy.current) return;
    busy.current = true;
    while (waiting.current !== null) {
      const next: string = waiting.current;
      waiting.current = null;
      const wrong = (work: Work) => work.givens.find((g) => g.line === given.line)?.error;
      const tried = await edit(
        { op: "given", line: given.line, value: next },
        `given ${given.line}`,
        (work) => !wrong(work),
      );
      setDoubt((tried && wrong(tried)?.message) || "");
    }
    busy.current = false;
  };
  const finish = async () => {
    if (typed !== null && typed.trim() && typed !== given.value)
      await edit({ op: "given", line: given.line, value: typed }, `given ${given.line}`);
    setTyped(null);
    setDoubt("");
    finished();
  };

  return (
    <li
      onMouseEnter={() => look({ hover: given.line })}
      onMouseLeave={() => look({ hover: null })}
      className="group"
    >
      <div className="flex items-baseline gap-2">
        <label
          htmlFor={`given-${given.line}`}
          className="w-10 shrink-0 truncate text-right font-semibold italic"
        >
          {given.name}
        </label>
        <span aria-hidden="true">=</span>
        <input
          id={`given-${given.line}`}
          className="field w-24"
          value={shown}
          spellCheck={false}
          autoComplete="off"
          aria-invalid={Boolean(error)}
          aria-describedby={error ? `given-${given.line}-error` : undefined}
          onFocus={() => (original.current = given.value)}
          onChange={(event) => {
            setTyped(event.target.value);
            if (event.target.value.trim()) void follow(event.target.value);
          }}
          onBlur={() => void finish()}
          onKeyDown={(event) => {
            if (event.key === "Enter") void finish();
            if (event.key === "Escape" && typed !== null) {
              void edit({ op: "given", line: given.line, value: original.current }, `given ${given.line}`);
              setTyped(null);
              setDoubt("");
              event.stopPropagation();
            }
          }}
        />
        {given.worth && (
          <span className="text-pencil">
            <Figures text={given.worth} />
          </span>
        )}
        <span className="min-w-0 flex-1 truncate" title={given.note}>
          {given.assumed && <span className="text-pencil">assumed · </span>}
          {given.note}
        </span>
        <Ticks count={given.used_by.length} />
        {/* Seen where one writes in the row, and only there: what cannot be seen cannot be pressed. */}
        <Button
          className="hidden shrink-0 group-focus-within:block"
          aria-label={`Strike out given ${given.name}`}
          onClick={() => void strikeOut(given)}
        >
          Strike out
        </Button>
      </div>
      {error && (
        <Mistake
          id={`given-${given.line}-error`}
          message={error}
          mend={typed === null ? given.error?.mend : null}
          line={given.line}
        />
      )}
    </li>
  );
});

/** Take a given out of the plan, and say so: whatever uses it needs another now. */
async function strikeOut({ line, name, used_by }: GivenOut) {
  if (!(await edit({ op: "delete", line }))) return;
  const lines = used_by.length === 1 ? "one line needs" : `${used_by.length} lines need`;
  tell(`Given ${name} is struck out${used_by.length > 0 ? `; ${lines} it` : ""}. Undo puts it back.`);
  document.querySelector<HTMLElement>("[aria-label='Another given']")?.focus();
}

function Ticks({ count }: { count: number }) {
  if (count === 0) return <span className="shrink-0 text-pencil">not used</span>;
  return (
    <span className="shrink-0 tracking-tighter text-pencil" aria-label={`used in ${count} places`}>
      {"|".repeat(Math.min(count, 9))}
    </span>
  );
}

function NewGiven() {
  const [row, setRow] = useState("");
  const [doubt, setDoubt] = useState("");
  const add = async () => {
    const done = await edit({ op: "new given", text: row });
    if (!done) return;
    setDoubt(done.refused ?? "");
    if (!done.refused) setRow("");
  };
  return (
    <form
      className="flex flex-wrap items-baseline gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        void add();
      }}
    >
      <input
        className="field ml-12 min-w-0 flex-1"
        aria-label="Another given"
        placeholder='another given:  r = 9/16 "pin hole"'
        value={row}
        spellCheck={false}
        autoComplete="off"
        aria-invalid={Boolean(doubt)}
        onChange={(event) => {
          setRow(event.target.value);
          setDoubt("");
        }}
      />
      {row.trim() && <Button>Write down</Button>}
      {doubt && <p className="w-full pl-12 text-accent">{doubt}</p>}
    </form>
  );
}
