import type { Entry, KindOut, WorkOut } from "../api/client";
import { useBench } from "../state/bench";
import { Figures } from "../ui/Figures";
import { useEffect, useState } from "react";
import { Mistake } from "./Mistake";
import { NewLine } from "./NewLine";
import { SettingCard } from "./SettingCard";

/** The numbered order of work, each entry opening into its setting card; the next is begun on the empty line. */
export function OrderOfWork({ work, kinds }: { work: WorkOut; kinds: KindOut[] }) {
  const { open, hover, set } = useBench();
  const entries = work.entries as Entry[];
  useEffect(() => {
    const item = open === null ? null : document.querySelector(`li[data-line="${open}"]`);
    const page = item?.closest(".page");
    if (item && page) page.scrollTop += item.getBoundingClientRect().top - page.getBoundingClientRect().top;
  }, [open]);
  const numbered = entries.filter((entry) => !entry.comment).map((entry) => entry.line);
  return (
    <section aria-labelledby="order" className="pt-7">
      <h2 id="order" className="text-lg font-semibold">
        Order of work
      </h2>
      <FirstLines written={entries.map((entry) => entry.text)} />
      <ol>
        {entries.map((entry) => {
          if (entry.comment)
            return (
              <li key={entry.line} className="pl-10 text-pencil italic">
                {entry.comment}
              </li>
            );
          const opened = open === entry.line;
          return (
            <li
              key={entry.line}
              onMouseEnter={() => set({ hover: entry.line })}
              onMouseLeave={() => set({ hover: null })}
              data-line={entry.line}
            >
              <button
                className={`flex w-full gap-2 text-left ${hover === entry.line || opened ? "bg-wash" : ""}`}
                aria-expanded={opened}
                onFocus={() => set({ hover: entry.line })}
                onBlur={() => set({ hover: null })}
                onClick={() => set({ open: opened ? null : entry.line, ghosts: null })}
              >
                <span className="w-8 shrink-0 text-right text-pencil">
                  {numbered.indexOf(entry.line) + 1}
                </span>
                <span className="min-w-0 flex-1">
                  <Told entry={entry} />
                  {entry.assumed && <span className="text-pencil"> (assumed)</span>}
                  {entry.note && <span className="text-pencil italic"> {entry.note}</span>}
                </span>
              </button>
              {entry.error && (
                <div className="ml-10">
                  <Mistake message={entry.error.message} mend={entry.error.mend} line={entry.line} />
                </div>
              )}
              {(opened || (entry.error !== null && entry.candidates.length > 0)) && (
                <SettingCard
                  entry={entry}
                  work={work}
                  kind={kinds.find((kind) => kind.name === entry.kind)}
                />
              )}
            </li>
          );
        })}
      </ol>
      <NewLine work={work} kinds={kinds} more={<Outlines work={work} />} />
    </section>
  );
}

/** The sentence of an entry with its name standing out. */
function Told({ entry }: { entry: Entry }) {
  const text = entry.sentence || entry.text;
  const at = entry.name ? text.search(new RegExp(`(?<!\\w)${entry.name}(?!\\w)`)) : -1;
  if (at < 0) return <Figures text={text} />;
  return (
    <>
      <Figures text={text.slice(0, at)} />
      <em className="font-semibold">{entry.name}</em>
      <Figures text={text.slice(at + entry.name.length)} />
    </>
  );
}

/** What follows the construction: lining in by pointing at the material, and dimensions. */
function Outlines({ work }: { work: WorkOut }) {
  const { regions, suggest, set } = useBench();
  const [busy, setBusy] = useState(false);
  const drawn = work.entries.some((entry) => (entry.name ?? "") !== "" && !entry.error);
  if (!drawn) return null;
  return (
    <>
      <button
        className="act"
        type="button"
        aria-pressed={regions !== null}
        onClick={() => {
          set({
            regions: regions ? null : { kind: "line in", spots: [], found: null, told: "" },
            pick: null,
          });
          document.querySelector<SVGElement>("svg.sheet")?.focus();
        }}
      >
        Line in by region
      </button>
      <button
        className="act"
        disabled={busy}
        onClick={() => {
          setBusy(true);
          void suggest().finally(() => setBusy(false));
        }}
      >
        {busy ? "Looking for dimensions…" : "Suggest dimensions"}
      </button>
    </>
  );
}

const FIRST = [
  "O = datum, middle of sheet",
  "A = point, 40 left of O",
  "eye = circle, centre A, diameter 60",
];

/** An empty plan offers the three usual first lines, one after another. */
function FirstLines({ written }: { written: string[] }) {
  const edit = useBench((bench) => bench.edit);
  const next = FIRST[written.length];
  if (next === undefined || written.some((row, i) => row !== FIRST[i])) return null;
  return (
    <p className="ml-10 text-pencil">
      {written.length === 0 ? "Work usually starts like this: " : "and then like this: "}
      <button
        className="act"
        onClick={() =>
          void edit({ op: "insert", after: useBench.getState().text.split("\n").length - 1, text: next })
        }
      >
        {next}
      </button>
    </p>
  );
}
