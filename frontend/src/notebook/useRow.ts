import { useEffect, useRef, useState } from "react";
import { api, type Completion, type KindOut, type Work } from "../api/client";
import { useBench } from "../state/bench";

const rowKey = (id: number | undefined) => `entrick.row.${id ?? 0}`;

/** What is picked on the sheet for the row. */
export const PIECES = "the pieces of the outline in order";
export const REFERENCE = "a point or piece";

/**
 * The row being written at the end of the plan: what it says, what may follow, and what a pick adds to it.
 * `picked` is called when a reference has come into it.
 */
export function useRow(work: Work, picked: () => void) {
  const job = useBench((bench) => bench.job);
  const set = useBench((bench) => bench.set);
  const edit = useBench((bench) => bench.edit);
  const [row, setRow] = useState(() => localStorage.getItem(rowKey(job?.id)) ?? "");
  const [offers, setOffers] = useState<readonly Completion[]>([]);
  const [doubt, setDoubt] = useState("");
  const [open, setOpen] = useState(false);
  const now = useRef(row);
  const turn = useRef<Promise<void>>(Promise.resolve());
  useEffect(() => {
    now.current = row;
    localStorage.setItem(rowKey(job?.id), row);
  }, [row, job?.id]);
  useEffect(() => {
    if (!open) return;
    let stale = false;
    api.complete(work.text, row).then(
      (answer) => {
        if (stale) return;
        setOffers(answer.completions);
        setDoubt(answer.doubt);
      },
      () => setOffers([]),
    );
    return () => {
      stale = true;
    };
  }, [row, open, work.text]);

  /** Let the desk begin the row with a kind, or put what was picked into it: one after another, none is lost. */
  const change = (more: { begin?: string; pick?: string }) => {
    turn.current = turn.current.then(async () => {
      const answer = await api.complete(work.text, now.current, more).catch(() => null);
      if (!answer) return;
      now.current = answer.row;
      setRow(answer.row);
      setOffers(answer.completions);
      setDoubt(answer.doubt);
    });
    return turn.current;
  };
  const pickOne = () =>
    set({
      pick: {
        wanted: REFERENCE,
        take: (name) => {
          set({ pick: null });
          void change({ pick: name }).then(picked);
        },
      },
    });
  const pickPieces = () => set({ pick: { wanted: PIECES, take: (name) => void change({ pick: name }) } });

  return {
    row,
    offers,
    /** Why the row is no statement yet, once one has stopped writing it. */
    doubt: open || !row.trim() ? "" : doubt,
    open,
    setOpen,
    write: (text: string) => {
      now.current = text;
      setRow(text);
      setOpen(true);
    },
    begin: async (kind: KindOut) => {
      if (kind.by_clicking) pickPieces();
      await change({ begin: kind.name });
      if (!kind.by_clicking) setOpen(true);
    },
    pickOne,
    /** Put the row into the plan, and open the card of what it became. */
    putDown: async () => {
      await turn.current;
      if (!now.current.trim()) return;
      const done = await edit({ op: "append", text: now.current });
      if (!done) return;
      now.current = "";
      setRow("");
      setOpen(false);
      set({ pick: null, open: done.at || null, step: null });
    },
  };
}
