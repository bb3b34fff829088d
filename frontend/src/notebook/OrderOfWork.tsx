import type { Entry, KindOut, Work } from "../api/client";
import { edit } from "../state/document";
import { look, useLooks } from "../state/looks";
import { suggest } from "../state/asking";
import { Figures } from "../ui/Figures";
import { memo, useEffect, useState } from "react";
import { Mistake } from "./Mistake";
import { NewLine } from "./NewLine";
import { SettingCard } from "./SettingCard";
import { Button } from "../ui/Button";

/** The numbered order of work, each entry opening into its setting card; the next is begun on the empty line. */
export function OrderOfWork({ work, kinds }: { work: Work; kinds: KindOut[] }) {
  const open = useLooks((looks) => looks.open);
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
      <UsuallyNext next={work.usually ?? ""} begun={entries.length > 0} />
      <ol>
        {entries.map((entry) =>
          entry.comment ? (
            <li key={entry.line} className="pl-10 text-pencil italic">
              {entry.comment}
            </li>
          ) : (
            <EntryRow
              key={entry.line}
              entry={entry}
              number={numbered.indexOf(entry.line) + 1}
              work={open === entry.line || (entry.error && entry.candidates.length > 0) ? work : null}
              kind={kinds.find((kind) => kind.name === entry.kind)}
            />
          ),
        )}
      </ol>
      <NewLine work={work} kinds={kinds} more={<Outlines work={work} kinds={kinds} />} />
    </section>
  );
}

interface RowProps {
  entry: Entry;
  number: number;
  /** For the setting card; null where it is closed, so that the row is drawn again only when it changes itself. */
  work: Work | null;
  kind: KindOut | undefined;
}

const EntryRow = memo(function EntryRow({ entry, number, work, kind }: RowProps) {
  const opened = useLooks((looks) => looks.open === entry.line);
  const hovered = useLooks((looks) => looks.hover === entry.line);
  return (
    <li
      onMouseEnter={() => look({ hover: entry.line })}
      onMouseLeave={() => look({ hover: null })}
      data-line={entry.line}
    >
      <button
        className={`flex w-full gap-2 text-left ${hovered || opened ? "bg-wash" : ""}`}
        aria-expanded={opened}
        onFocus={() => look({ hover: entry.line })}
        onBlur={() => look({ hover: null })}
        onClick={() => look({ open: opened ? null : entry.line, ghosts: null })}
      >
        <span className="w-8 shrink-0 text-right text-pencil">{number}</span>
        <span className="min-w-0 flex-1">
          <Told entry={entry} />
          {entry.assumed && <span className="text-pencil"> (assumed)</span>}
          {entry.note && <span className="text-pencil italic"> {entry.note}</span>}
        </span>
      </button>
      {entry.error && (
        <div className="ml-10">
          <Mistake {...entry.error} line={entry.line} kind={kind?.name} />
        </div>
      )}
      {work && <SettingCard entry={entry} work={work} kind={kind} />}
    </li>
  );
});

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
function Outlines({ work, kinds }: { work: Work; kinds: KindOut[] }) {
  const regions = useLooks((looks) => looks.regions);
  const lined = kinds.find((kind) => kind.lines_in === "outline");
  const [stop, setStop] = useState<AbortController | null>(null);
  const drawn = work.entries.some((entry) => (entry.name ?? "") !== "" && !entry.error);
  if (!drawn || !lined) return null;
  return (
    <>
      <Button
        type="button"
        aria-pressed={regions !== null}
        onClick={() => {
          look({
            regions: regions ? null : { kind: lined.name, spots: [], found: null, told: "" },
            pick: null,
          });
          document.querySelector<SVGElement>("svg.sheet")?.focus();
        }}
      >
        Line in by region
      </Button>
      <Button
        type="button"
        onClick={() => {
          if (stop) return stop.abort();
          const begun = new AbortController();
          setStop(begun);
          void suggest(begun.signal).finally(() => setStop(null));
        }}
      >
        {stop ? "Looking for dimensions… stop" : "Suggest dimensions"}
      </Button>
    </>
  );
}

/** A plan just begun offers the usual first lines, one after another. */
function UsuallyNext({ next, begun }: { next: string; begun: boolean }) {
  if (!next) return null;
  return (
    <p className="ml-10 text-pencil">
      {begun ? "and then like this: " : "Work usually starts like this: "}
      <Button onClick={() => void edit({ op: "append", text: next })}>{next}</Button>
    </p>
  );
}
