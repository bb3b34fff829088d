import { Popover } from "radix-ui";
import { type ReactNode, useEffect, useId, useRef, useState } from "react";
import { api, type Completion, type KindOut, type WorkOut } from "../api/client";
import { useBench } from "../state/bench";
import { Mistake } from "./Mistake";

const rowKey = (id: number | undefined) => `entrick.row.${id ?? 0}`;

interface Props {
  work: WorkOut;
  kinds: KindOut[];
  /** What else can be done from here, beside the buttons of the line. */
  more?: ReactNode;
}

/** The empty line at the end: a sentence with completion, the family list, or pieces clicked on the sheet. */
export function NewLine({ work, kinds, more }: Props) {
  const { job, edit, set, pick } = useBench();
  const [row, setRow] = useState(() => localStorage.getItem(rowKey(job?.id)) ?? "");
  const [offers, setOffers] = useState<Completion[]>([]);
  const [at, setAt] = useState(-1);
  const [listOpen, setListOpen] = useState(false);
  const [families, setFamilies] = useState(false);
  const input = useRef<HTMLInputElement>(null);
  const list = useId();
  const shown = useRef<HTMLUListElement>(null);
  useEffect(() => {
    const page = shown.current?.closest(".page");
    if (!shown.current || !page) return;
    const below = shown.current.getBoundingClientRect().bottom - page.getBoundingClientRect().bottom;
    if (below > 0) page.scrollTop += below + 8;
  }, [offers]);
  const last = work.text.split("\n").length - 1;

  useEffect(() => {
    localStorage.setItem(rowKey(job?.id), row);
  }, [row, job?.id]);
  useEffect(() => {
    if (!listOpen) return;
    let stale = false;
    api.complete(work.text, last, row).then(
      ({ completions }) => {
        if (stale) return;
        setOffers(completions);
        setAt((i) => Math.min(i, completions.length - 1));
      },
      () => setOffers([]),
    );
    return () => {
      stale = true;
    };
  }, [row, listOpen, work.text, last]);

  const take = (text: string) => {
    setRow(/[,>=]\s*$/.test(text) ? text : `${text} `);
    setAt(-1);
    setListOpen(true);
    input.current?.focus();
  };
  const write = async () => {
    const text = row.trim().replace(/[,>\s]+$/, "");
    if (!text) return;
    const done = await edit({ op: "insert", after: last, text });
    if (done) {
      setRow("");
      setListOpen(false);
      set({
        pick: null,
        open: text.startsWith("given ") || text.startsWith("#") ? null : last + 1,
        step: null,
      });
    }
  };
  /** Pieces clicked one after another become the walk. */
  const walk = () => {
    const start = /= line in,/.test(row) ? row.trim() : `${freeName(work)} = line in,`;
    setRow(start);
    const next = () =>
      set({
        pick: {
          wanted: "the pieces of the outline in order",
          take: (name) => {
            setRow((r) => (/[,>]$/.test(r.trim()) ? `${r.trim()} ${name}` : `${r.trim()} > ${name}`));
            next();
          },
        },
      });
    next();
    input.current?.focus();
  };
  /** A reference clicked while the line is being written is put at its end. */
  const pickOne = () => {
    set({
      pick: {
        wanted: "a point or piece",
        take: (name) => {
          set({ pick: null });
          setRow((r) => `${r.trimEnd()} ${name}`);
          input.current?.focus();
        },
      },
    });
  };
  const doubtful = row.trim() !== "" && !row.includes("=") && !/^\s*(given|#)/.test(row) && !listOpen;

  return (
    <div className="pb-10">
      <form
        className="flex items-baseline gap-2"
        onSubmit={(event) => {
          event.preventDefault();
          void write();
        }}
      >
        <span className="w-8 shrink-0 text-right text-pencil" aria-hidden="true">
          {work.entries.filter((entry) => !entry.comment).length + 1}
        </span>
        <input
          ref={input}
          id="new-line"
          className="field min-w-0 flex-1"
          role="combobox"
          aria-label="The next statement"
          aria-expanded={listOpen && offers.length > 0}
          aria-controls={list}
          aria-autocomplete="list"
          aria-activedescendant={at >= 0 ? `${list}-${at}` : undefined}
          placeholder="next: a name = a kind, its clauses   (n)"
          value={row}
          spellCheck={false}
          autoComplete="off"
          onChange={(event) => {
            setRow(event.target.value);
            setAt(-1);
            setListOpen(true);
          }}
          onFocus={() => row.trim() && setListOpen(true)}
          onBlur={() => setListOpen(false)}
          onKeyDown={(event) => {
            if (event.key === "ArrowDown" || event.key === "ArrowUp") {
              event.preventDefault();
              if (!listOpen) setListOpen(true);
              else
                setAt((i) =>
                  Math.max(-1, Math.min(offers.length - 1, i + (event.key === "ArrowDown" ? 1 : -1))),
                );
            } else if ((event.key === "Enter" || event.key === "Tab") && listOpen && offers[at]) {
              event.preventDefault();
              take(offers[at].row);
            } else if (event.key === "Tab" && listOpen && offers.length === 1 && offers[0]) {
              event.preventDefault();
              take(offers[0].row);
            } else if (event.key === "Escape") {
              setListOpen(false);
              set({ pick: null });
            }
          }}
        />
        {row.trim() && (
          <button className="act act-main" onMouseDown={(event) => event.preventDefault()}>
            Write down
          </button>
        )}
      </form>
      {listOpen && offers.length > 0 && (
        <ul
          ref={shown}
          id={list}
          role="listbox"
          aria-label="What may follow"
          className="slip mt-1 ml-10 max-h-56 overflow-auto"
        >
          {offers.map((offer, i) => (
            <li
              key={offer.row}
              id={`${list}-${i}`}
              role="option"
              aria-selected={i === at}
              className={`flex cursor-pointer gap-3 px-2 py-1 ${i === at ? "bg-wash" : ""}`}
              onMouseDown={(event) => {
                event.preventDefault();
                take(offer.row);
              }}
            >
              <strong className="w-28 shrink-0">{offer.adds}</strong>
              <span className="truncate text-pencil">{offer.about}</span>
            </li>
          ))}
        </ul>
      )}
      <div className="mt-1 ml-10 flex flex-wrap gap-1">
        <Popover.Root open={families} onOpenChange={setFamilies}>
          <Popover.Trigger className="act">Choose a kind…</Popover.Trigger>
          <Popover.Portal>
            <Popover.Content
              side="top"
              align="start"
              sideOffset={4}
              collisionPadding={8}
              className="slip z-10 max-h-[var(--radix-popover-content-available-height)] w-[32rem] overflow-auto p-3 shadow-md"
              aria-label="Kinds of construction"
            >
              <FamilyList
                kinds={kinds}
                choose={(kind) => {
                  setFamilies(false);
                  if (kind.name === "line in") walk();
                  else
                    void api.complete(work.text, last, "").then(({ completions }) => {
                      const offer = completions.find((c) => c.adds === kind.name);
                      setTimeout(() => take(offer?.row ?? `name = ${kind.name}, `), 0);
                    });
                }}
              />
            </Popover.Content>
          </Popover.Portal>
        </Popover.Root>
        <button
          className="act"
          type="button"
          onClick={walk}
          aria-pressed={pick?.wanted.startsWith("the pieces")}
        >
          Line in by clicking
        </button>
        {more}
        {row.trim() && (
          <button
            className="act"
            type="button"
            onClick={pickOne}
            aria-pressed={pick?.wanted.startsWith("a point")}
          >
            Pick on the sheet
          </button>
        )}
      </div>
      {doubtful && (
        <div className="ml-10">
          <Mistake
            message="a statement starts with a name and =, such as  A = point, 20 right of O"
            line={0}
          />
        </div>
      )}
    </div>
  );
}

function freeName(work: WorkOut): string {
  const taken = new Set(work.entries.map((entry) => entry.name));
  return (
    ["rim", "bore", ...Array.from({ length: 99 }, (_, i) => `outline${i + 1}`)].find((n) => !taken.has(n)) ??
    "rim"
  );
}

function FamilyList({ kinds, choose }: { kinds: KindOut[]; choose: (kind: KindOut) => void }) {
  const groups = [...new Set(kinds.map((kind) => kind.group))];
  return (
    <>
      {groups.map((group) => (
        <section key={group} className="pb-2">
          <h3 className="text-sm font-semibold text-pencil">{group}</h3>
          {kinds
            .filter((kind) => kind.group === group)
            .map((kind) => (
              <button
                key={kind.name}
                className="flex w-full items-baseline gap-3 px-1 py-1 text-left hover:bg-wash"
                onClick={() => choose(kind)}
              >
                <strong className="w-20 shrink-0">{kind.name}</strong>
                <span>{kind.summary}</span>
              </button>
            ))}
        </section>
      ))}
    </>
  );
}
