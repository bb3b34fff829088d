/** A sitting at the board: kept in this browser at once, event by event, and sent when the desk answers. */
import { delMany, get, set as put, update } from "idb-keyval";
import { useEffect, useRef, useState } from "react";
import {
  addEvents,
  beginSitting,
  type EventIoInput as SittingEvent,
  isOvertaken,
  Problem,
  type Schedule,
} from "../api/client";
import { keptAs } from "./register";

export interface Sitting {
  uid: string;
  job: number;
  revision: number;
  schedule: Schedule;
  /** Name of the kit it is drawn with; the usual one where it is empty. */
  kit: string;
  /** The plan as it was when the sitting began: it goes on with that, whatever is saved meanwhile. */
  text: string;
  events: SittingEvent[];
  /** How many of the events the desk has. */
  sent: number;
  begun: boolean;
}

const key = (job: number) => keptAs("sitting", job);

/** Everything a sitting needs besides its pictures, as the desk answered when it began. */
const needed = (job: number) => keptAs("needed", job);

/** What the desk answers about a sitting; what it answered before where it is away. */
export async function orAsBefore<T>(job: number, ask: () => Promise<T>): Promise<T> {
  try {
    const found = await ask();
    await put(needed(job), found);
    return found;
  } catch (problem) {
    const before = isAway(problem) ? await get<T>(needed(job)) : undefined;
    if (before === undefined) throw problem;
    return before;
  }
}

const isAway = (problem: unknown) =>
  !(problem instanceof Problem) || problem.status === 0 || problem.status >= 500;

/** A name for the sitting; plain HTTP to another machine has no randomUUID. */
const named = () =>
  Array.from(crypto.getRandomValues(new Uint8Array(16)), (byte) => byte.toString(16).padStart(2, "0")).join(
    "",
  );

/** How long the steps of a sitting took so far, minutes. */
export const minutesOf = (events: readonly SittingEvent[]) =>
  Math.round(events.reduce((sum, event) => sum + (event.kind === "done" ? (event.seconds ?? 0) : 0), 0) / 60);

/** The item one is at: after the last that was done, or where one went back to. */
export const placeOf = (events: readonly SittingEvent[]) => {
  const last = events.findLast((event) => event.kind === "done" || event.kind === "back");
  if (!last) return 0;
  return last.kind === "done" ? (last.step ?? 0) + 1 : (last.step ?? 0);
};

const RETRY = 4000;

/** Read again what is kept, and bring the kept sitting up to what is sent. */
async function sent(job: number, uid: string, count: number): Promise<Sitting | null> {
  let next: Sitting | null = null;
  // One step in the database, so that an event recorded meanwhile is not written over.
  await update<Sitting | undefined>(key(job), (now) => {
    if (now?.uid !== uid) return now;
    next = { ...now, begun: true, sent: Math.max(now.sent, count) };
    return next;
  });
  return next;
}

/** The sitting of a job in this browser; `begin` starts one, `record` adds to it. Undefined until it has been read. */
export function useSitting(job: number) {
  const [sitting, setSitting] = useState<Sitting | null | undefined>(undefined);
  const [away, setAway] = useState(false);
  const [writing, setWriting] = useState(0);
  const keep = (written: Promise<void>) => {
    setWriting((count) => count + 1);
    void written.finally(() => setWriting((count) => count - 1));
  };
  const now = useRef<Sitting | null>(null);
  const show = (next: Sitting | null) => {
    now.current = next;
    setSitting(next);
  };
  useEffect(() => {
    void get<Sitting>(key(job)).then((found) => show(found ?? null));
  }, [job]);

  // What the desk does not have yet is sent, again and again until it answers; nothing is sent twice.
  const waiting = !!sitting && (!sitting.begun || sitting.sent < sitting.events.length);
  useEffect(() => {
    if (!waiting) return;
    let over = false;
    const send = async () => {
      const at = now.current;
      if (!at) return;
      const { uid, revision, schedule, kit } = at;
      try {
        if (!at.begun) await beginSitting({ body: { uid, job, revision, schedule, kit } });
        const fresh = at.events.slice(at.sent, at.sent + 500);
        if (fresh.length > 0) await addEvents({ path: { uid }, body: { events: fresh } });
        const count = at.sent + fresh.length;
        await sent(job, uid, count);
        if (!over && now.current?.uid === uid)
          show({ ...now.current, begun: true, sent: Math.max(now.current.sent, count) });
        setAway(false);
      } catch (problem) {
        if (!isOvertaken(problem)) setAway(isAway(problem));
      }
    };
    void send();
    const again = setInterval(() => void send(), RETRY);
    return () => {
      over = true;
      clearInterval(again);
    };
  }, [waiting, sitting?.events.length, job]);

  return {
    sitting,
    /** Whether the desk does not answer; what happens is kept here meanwhile. */
    away,
    /** Whether everything recorded is in this browser's keeping: only then may the page go. */
    kept: writing === 0,
    begin: (revision: number, schedule: Schedule, kit: string, text: string) => {
      const next = { uid: named(), job, revision, schedule, kit, text, events: [], sent: 0, begun: false };
      show(next);
      keep(put(key(job), next));
    },
    record: (event: Omit<SittingEvent, "number">) => {
      const at = now.current;
      if (!at) return;
      const next = { ...at, events: [...at.events, { ...event, number: at.events.length + 1 }] };
      show(next);
      keep(
        update<Sitting | undefined>(key(job), (kept) =>
          kept?.uid === next.uid ? { ...next, sent: Math.max(kept.sent, next.sent) } : next,
        ),
      );
    },
    /** Put the finished sitting away; the desk has it. */
    close: () => {
      show(null);
      void delMany([key(job), needed(job)]);
    },
  };
}
