import { useEffect, useEffectEvent, useRef, useState } from "react";
import { completeRow, type Completion, type Entry, type KindOut, type Work } from "../api/client";
import { edit, useDocument } from "../state/document";
import { look } from "../state/looks";
import { keptAs } from "../state/register";
import { BLANK, blankIn, type Selection } from "./blanks";

const rowKey = (id: number | undefined) => keptAs("row", id);

/** What is picked on the sheet for the row. */
export const PIECES = "the pieces of the outline in order";
export const REFERENCE = "a point or piece";

/**
 * The row being written at the end of the plan: what it says, what may follow where one writes, and what a pick adds to
 * it.
 */
export function useRow(work: Work) {
  const job = useDocument((document) => document.job);
  const [row, setRow] = useState(() => localStorage.getItem(rowKey(job?.id)) ?? "");
  const [caret, setCaret] = useState<Selection>([row.length, row.length]);
  const [told, setTold] = useState<{ plan: string; typed: string; offers: readonly Completion[] }>({
    plan: "",
    typed: "",
    offers: [],
  });
  const [doubt, setDoubt] = useState("");
  const [toSelect, setToSelect] = useState<Selection | null>(null);
  const [wanted, setWanted] = useState("");
  const [blank, setBlank] = useState("");
  const [open, setOpen] = useState(false);
  const now = useRef(row);
  const selected = useRef(caret);
  const turn = useRef<Promise<void>>(Promise.resolve());
  useEffect(() => {
    now.current = row;
    localStorage.setItem(rowKey(job?.id), row);
  }, [row, job?.id]);
  useEffect(() => {
    selected.current = caret;
  }, [caret]);
  useEffect(() => {
    if (!open) return;
    let stale = false;
    completeRow({ body: { text: work.text, row, caret: caret[0] } }).then(
      (answer) => {
        if (stale) return;
        setTold({ plan: work.text, typed: `${caret[0]} ${row}`, offers: answer.completions });
        setDoubt(answer.doubt);
        setWanted(answer.wanted);
        setBlank(answer.blank);
      },
      () => undefined,
    );
    return () => {
      stale = true;
    };
  }, [row, open, work.text, caret]);

  // Until the desk has answered, what it offered before still holds as far as it goes on from what is typed; not what it
  // offered of another plan: its names may be taken by now.
  const typed = row.slice(0, caret[0]);
  const known = told.plan === work.text ? told.offers : [];
  const fresh = told.plan === work.text && told.typed === `${caret[0]} ${row}`;
  const offers = fresh ? known : known.filter((offer) => offer.row.startsWith(typed) && typed);

  const put = (text: string, at: Selection) => {
    now.current = text;
    setRow(text);
    selected.current = at;
    setCaret(at);
    setOpen(true);
    setToSelect(at);
  };
  /** Go to the blank that comes next; tell whether there is one. */
  const toBlank = (from: number) => {
    const found = blankIn(now.current, from);
    if (found) put(now.current, found);
    return found !== null;
  };
  /** Go on with an offer; what stands behind the place where one writes is kept. */
  const take = (offer: Completion) => {
    const rest = now.current.slice(selected.current[1]);
    const joined = rest || /[,>="]\s*$|…/.test(offer.row) ? offer.row : `${offer.row} `;
    const text = joined + rest;
    put(text, blankIn(text, offer.row.includes(BLANK) ? 0 : joined.length) ?? [joined.length, joined.length]);
  };
  const asked = (text: string, at: number, more: { begin?: string; pick?: string } = {}) =>
    completeRow({ body: { text: work.text, row: text, ...more, caret: at } }).catch(() => null);
  /** Let the desk begin the row with a kind, or put what was picked into it: one after another, none is lost. */
  const change = (more: { begin?: string; pick?: string }) => {
    turn.current = turn.current.then(async () => {
      const answer = await asked(now.current, selected.current[0], more);
      if (!answer) return;
      setDoubt(answer.doubt);
      const end = answer.row.length;
      put(answer.row, blankIn(answer.row, more.begin ? 0 : selected.current[0]) ?? [end, end]);
    });
    return turn.current;
  };
  const pickOne = (wanted = REFERENCE) =>
    look({
      pick: {
        wanted,
        take: (name) => {
          look({ pick: null });
          void change({ pick: name });
        },
      },
    });
  const pickPieces = () => look({ pick: { wanted: PIECES, take: (name) => void change({ pick: name }) } });
  const pickFor = useEffectEvent(pickOne);
  useEffect(() => {
    if (open && wanted) pickFor(wanted);
  }, [open, wanted, row, caret]);

  return {
    row,
    offers,
    /** What is to be selected in the field, once for each such answer. */
    selected: toSelect,
    /** Why the row is no statement yet, once one has stopped writing it. */
    doubt: open || !row.trim() ? "" : doubt,
    /** What is to be written in the blank one is at; empty where that is none. */
    blank: open && row.slice(...caret) === BLANK ? blank : "",
    open,
    setOpen,
    /** Whether the beginning of something is typed where one writes. */
    isTyped: caret[0] === caret[1] && /[^\s,>=]$/.test(typed),
    write: (text: string, at: Selection) => {
      now.current = text;
      setRow(text);
      setCaret(at);
      setOpen(true);
    },
    /** Note where one writes now. */
    moveTo: (at: Selection) => {
      if (at[0] !== selected.current[0] || at[1] !== selected.current[1]) setCaret(at);
    },
    begin: async (kind: KindOut) => {
      if (kind.by_clicking) pickPieces();
      await change({ begin: kind.name });
    },
    take,
    /** Begin with a whole row, at the first blank that is left in it. */
    start: (text: string) => put(text, blankIn(text, 0) ?? [text.length, text.length]),
    /** Go on with what is offered first; asked for where the desk has not answered yet. */
    takeFirst: async () => {
      const [row, at] = [now.current, selected.current];
      const first = offers[0] ?? (fresh ? undefined : (await asked(row, at[0]))?.completions[0]);
      if (now.current !== row) return;
      if (first) take(first);
      else toBlank(at[1]);
    },
    pickOne: () => pickOne(),
    toBlank,
    /** Put the row into the plan, and open the card of what it became; first every blank is filled. */
    putDown: async () => {
      await turn.current;
      if (!now.current.trim() || toBlank(selected.current[1])) return;
      const done = await edit({ op: "append", text: now.current });
      if (!done) return;
      now.current = "";
      setRow("");
      setOpen(false);
      look({ pick: null, open: done.at || null, step: null });
      // Where several fit, one of them is chosen next, by its letter: no row swallows it.
      const made = done.entries.find((entry) => entry.line === done.at) as Entry | undefined;
      if (made?.error && made.candidates.length > 0)
        requestAnimationFrame(() =>
          document.querySelector<HTMLElement>(`li[data-line="${made.line}"] fieldset button`)?.focus(),
        );
    },
  };
}
