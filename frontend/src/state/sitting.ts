/** A sitting at the board: kept in this browser at once, event by event, and sent when the desk answers. */
import { del, delMany, get, set as put, update } from "idb-keyval";
import { useEffect, useRef, useState } from "react";
import {
  addEvents,
  beginSitting,
  type EventIoInput as SittingEvent,
  isOvertaken,
  measured,
  oneRevision,
  openSitting,
  Problem,
  type Schedule,
  type SittingOut,
} from "../api/client";
import { kitCalled } from "./kits";
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
  /** What was measured back while the desk was away: compared when it answers. */
  uncompared?: Measured[];
}

/** A value measured back, not compared yet. */
export interface Measured {
  step: number;
  tool: string;
  ready: boolean;
  value: string;
  /** Which step of the plan it is, as the desk counts them. */
  number: number;
}

/** A sitting that was put away before the desk had all of it: sent before anything else. */
const left = (job: number) => keptAs("left", job);

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

/** How often it is looked whether another device has gone on, ms. */
const LOOK = 5000;

type Numbered = SittingEvent;

const isSame = (one: Numbered, other: Numbered) =>
  one.number === other.number &&
  one.kind === other.kind &&
  (one.step ?? 0) === (other.step ?? 0) &&
  (one.text ?? "") === (other.text ?? "") &&
  (one.seconds ?? 0) === (other.seconds ?? 0);

/** A sitting after what another page or device recorded meanwhile: that first, then what is not sent yet. */
export function rebased(mine: Sitting, there: readonly Numbered[]): Sitting {
  const own = mine.events
    .slice(mine.sent)
    .filter((event) => !there.some((known) => isSame(event, known)))
    .map((event, index) => ({ ...event, number: (there.at(-1)?.number ?? 0) + 1 + index }));
  return { ...mine, begun: true, events: [...there, ...own], sent: there.length };
}

/** Read again what the desk has of a sitting, and go on after it. */
async function caughtUp(job: number, uid: string): Promise<Sitting | null> {
  const { events } = await openSitting({ path: { uid } });
  let next: Sitting | null = null;
  await update<Sitting | undefined>(key(job), (now) => {
    if (now?.uid !== uid) return now;
    next = rebased(now, events);
    return next;
  });
  return next;
}

/** Send what was left of a sitting that another was begun after. */
async function sendLeft(job: number): Promise<void> {
  const before = await get<Sitting>(left(job));
  if (!before) return;
  const { uid, revision, schedule, kit } = before;
  await beginSitting({ body: { uid, job, revision, schedule, kit } });
  const events = before.events.slice(before.sent);
  if (events.length > 0) await addEvents({ path: { uid }, body: { events } });
  await del(left(job));
}

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
  // Every page of this browser shows the same sitting: what one writes, the others read.
  const others = useRef<BroadcastChannel | null>(null);
  useEffect(() => {
    const read = () => void get<Sitting>(key(job)).then((found) => show(found ?? null));
    read();
    const channel = new BroadcastChannel(key(job));
    channel.onmessage = read;
    others.current = channel;
    return () => channel.close();
  }, [job]);
  const tell = () => others.current?.postMessage("written");

  const record = (event: Omit<SittingEvent, "number">) => {
    const at = now.current;
    if (!at) return;
    const after = (before: Sitting) => ({
      ...before,
      events: [...before.events, { ...event, number: (before.events.at(-1)?.number ?? 0) + 1 }],
    });
    show(after(at));
    keep(
      // One step in the database: another page of this browser may have written meanwhile.
      update<Sitting | undefined>(key(job), (kept) => after(kept?.uid === at.uid ? kept : at)).then(
        async () => {
          const kept = await get<Sitting>(key(job));
          const shown = now.current;
          if (kept && kept.uid === shown?.uid && kept.events.length > shown.events.length) show(kept);
          tell();
        },
      ),
    );
  };
  const setUncompared = (uncompared: Measured[]) => {
    const at = now.current;
    if (!at) return;
    show({ ...at, uncompared });
    keep(
      update<Sitting | undefined>(key(job), (kept) =>
        kept?.uid === at.uid ? { ...kept, uncompared } : kept,
      ),
    );
  };
  /** Compare what was measured back while the desk was away. */
  const compareKept = async () => {
    const at = now.current;
    const [first, ...rest] = at?.uncompared ?? [];
    if (!at || !first) return;
    const { text, schedule } = at;
    const { step, tool, ready, value, number } = first;
    const kit = await kitCalled(at.kit);
    const { off } = await measured({ body: { text, schedule, step: number, ready, value, kit } });
    setUncompared(rest);
    record({ kind: "measured", step, tool, off, text: value });
  };

  const comparing = useRef(compareKept);
  useEffect(() => {
    comparing.current = compareKept;
  });

  // What the desk does not have yet is sent, again and again until it answers; nothing is sent twice.
  const waiting =
    !!sitting &&
    (!sitting.begun || sitting.sent < sitting.events.length || (sitting.uncompared?.length ?? 0) > 0);
  useEffect(() => {
    if (!waiting) return;
    let over = false;
    const send = async () => {
      const at = now.current;
      if (!at) return;
      const { uid, revision, schedule, kit } = at;
      try {
        await sendLeft(job);
        if (!at.begun) await beginSitting({ body: { uid, job, revision, schedule, kit } });
        const fresh = at.events.slice(at.sent, at.sent + 500);
        if (fresh.length > 0) await addEvents({ path: { uid }, body: { events: fresh } });
        const count = at.sent + fresh.length;
        await sent(job, uid, count);
        if (!over && now.current?.uid === uid)
          show({ ...now.current, begun: true, sent: Math.max(now.current.sent, count) });
        await comparing.current();
        setAway(false);
      } catch (problem) {
        if (problem instanceof Problem && problem.status === 409) {
          const next = await caughtUp(job, uid).catch(() => null);
          if (!over && next) show(next);
        } else if (!isOvertaken(problem)) setAway(isAway(problem));
      }
    };
    void send();
    const again = setInterval(() => void send(), RETRY);
    return () => {
      over = true;
      clearInterval(again);
    };
  }, [waiting, sitting?.events.length, job]);

  // Another device may go on with the same sitting.
  useEffect(() => {
    const timer = setInterval(() => {
      const at = now.current;
      if (!at?.begun || at.sent < at.events.length || document.hidden) return;
      void openSitting({ path: { uid: at.uid } })
        .then(async ({ events }) => {
          if (events.length <= at.sent || now.current !== at) return;
          const next = await caughtUp(job, at.uid);
          if (next) show(next);
          tell();
        })
        .catch(() => undefined);
    }, LOOK);
    return () => clearInterval(timer);
  }, [job]);

  return {
    sitting,
    /** Whether the desk does not answer; what happens is kept here meanwhile. */
    away,
    /** Whether everything recorded is in this browser's keeping: only then may the page go. */
    kept: writing === 0,
    begin: (revision: number, schedule: Schedule, kit: string, text: string) => {
      const before = now.current;
      const next = { uid: named(), job, revision, schedule, kit, text, events: [], sent: 0, begun: false };
      show(next);
      const unsent = before && (!before.begun || before.sent < before.events.length);
      keep((unsent ? put(left(job), before) : Promise.resolve()).then(() => put(key(job), next)).then(tell));
    },
    /** Go on here with a sitting that was begun on another device. */
    takeUp: async (begun: SittingOut) => {
      const { uid, revision, kit, events } = begun;
      const { text } = await oneRevision({ path: { job_id: job, number: revision } });
      const schedule = begun.schedule as Schedule;
      const next = { uid, job, revision, schedule, kit, text, events, sent: events.length, begun: true };
      show(next);
      keep(put(key(job), next).then(tell));
    },
    record,
    /** Keep measured values until the desk can compare them. */
    setUncompared,
    /** Put the finished sitting away; the desk has it. */
    close: () => {
      show(null);
      void delMany([key(job), needed(job)]).then(tell);
    },
  };
}
