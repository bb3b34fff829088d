/** A sitting at the board: kept in this browser at once, event by event, and sent when the desk answers. */
import { useEffect, useState } from "react";
import { api, isOvertaken, Problem, type Schedule, type SittingEvent } from "../api/client";

export interface Sitting {
  uid: string;
  job: number;
  revision: number;
  schedule: Schedule;
  /** The plan as it was when the sitting began: it goes on with that, whatever is saved meanwhile. */
  text: string;
  events: SittingEvent[];
  /** How many of the events the desk has. */
  sent: number;
  begun: boolean;
}

const key = (job: number) => `entrick.sitting.${job}`;

function read(job: number): Sitting | null {
  try {
    return JSON.parse(localStorage.getItem(key(job)) ?? "null") as Sitting | null;
  } catch {
    return null;
  }
}

/** A name for the sitting; plain HTTP to another machine has no randomUUID. */
const named = () =>
  Array.from(crypto.getRandomValues(new Uint8Array(16)), (byte) => byte.toString(16).padStart(2, "0")).join(
    "",
  );

/** What has not been taken back. */
export const standing = (events: readonly SittingEvent[]) => {
  const gone = new Set(events.filter((event) => event.kind === "undone").map((event) => event.of));
  return events.filter((event) => event.kind !== "undone" && !gone.has(event.number));
};

/** The item one is at: after the last that was done, or where one went back to. */
export const placeOf = (events: readonly SittingEvent[]) => {
  const last = standing(events)
    .filter((event) => event.kind === "done" || event.kind === "back")
    .at(-1);
  if (!last) return 0;
  return last.kind === "done" ? (last.step ?? 0) + 1 : (last.step ?? 0);
};

const RETRY = 4000;

/** The sitting of a job in this browser; `begin` starts one, `record` adds to it. */
export function useSitting(job: number) {
  const [sitting, setSitting] = useState<Sitting | null>(() => read(job));
  const [away, setAway] = useState(false);
  const keep = (next: Sitting | null) => {
    if (next) localStorage.setItem(key(job), JSON.stringify(next));
    else localStorage.removeItem(key(job));
    setSitting(next);
  };

  // What the desk does not have yet is sent, again and again until it answers; nothing is sent twice.
  const waiting = sitting !== null && (!sitting.begun || sitting.sent < sitting.events.length);
  useEffect(() => {
    if (!waiting) return;
    let over = false;
    const send = async () => {
      const now = read(job);
      if (!now) return;
      const { uid, revision, schedule } = now;
      try {
        if (!now.begun) await api.beginSitting({ uid, job, revision, schedule });
        const fresh = now.events.slice(now.sent, now.sent + 500);
        if (fresh.length > 0) await api.addEvents(uid, fresh);
        const later = read(job);
        if (later?.uid === uid) {
          const next = { ...later, begun: true, sent: now.sent + fresh.length };
          localStorage.setItem(key(job), JSON.stringify(next));
          if (!over) setSitting(next);
        }
        setAway(false);
      } catch (problem) {
        if (!isOvertaken(problem))
          setAway(!(problem instanceof Problem) || problem.status === 0 || problem.status >= 500);
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
    begin: (revision: number, schedule: Schedule, text: string) =>
      keep({ uid: named(), job, revision, schedule, text, events: [], sent: 0, begun: false }),
    record: (event: Omit<SittingEvent, "number">) => {
      const now = read(job);
      if (!now) return;
      keep({ ...now, events: [...now.events, { ...event, number: now.events.length + 1 }] });
    },
    /** Put the finished sitting away; the desk has it. */
    close: () => keep(null),
  };
}
