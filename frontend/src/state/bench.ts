/** The job on the bench: its text, what it works out to, undo and redo, what is open, hovered and being picked. */
import { keepPreviousData, replaceEqualDeep, useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { create } from "zustand";
import { useShallow } from "zustand/react/shallow";
import {
  api,
  drawWith,
  isOvertaken,
  type Edit,
  type JobOut,
  type OpenedOut,
  Problem,
  type RegionsOut,
  type RevisionOut,
  type Schedule,
  type Work,
} from "../api/client";

export type Construction = "kept" | "faded" | "away";

/** A reference being picked on the sheet: what is wanted, and who gets it. */
export interface Picking {
  wanted: string;
  take: (name: string) => void;
}

/** Regions being pointed at, mm on paper, with the boundary they make so far. */
export interface Regions {
  kind: string;
  spots: readonly (readonly [number, number])[];
  found: RegionsOut | null;
  told: string;
}

interface Bench {
  job: JobOut | null;
  /** The kit the job names; empty for the usual one. */
  kit: string;
  base: number;
  saved: string;
  text: string;
  work: Work | null;
  past: string[];
  future: string[];
  open: number | null;
  hover: number | null;
  ghosts: number | null;
  letter: string | null;
  step: number | null;
  construction: Construction;
  pick: Picking | null;
  spot: readonly [number, number] | null;
  /** Where the hands of a rehearsal put a join: the join, and their places, mm on paper. */
  cloud: {
    at: readonly [number, number];
    places: readonly (readonly [number, number])[];
    times: number;
  } | null;
  regions: Regions | null;
  /** A step opened up into its classic construction, drawn as far as the sub-step it has come to. */
  opened: { step: number; text: string; found: OpenedOut; upTo: number } | null;
  /** Line of the statement whose worksheet lies over the sheet. */
  worksheet: number | null;
  message: string;
  stale: RevisionOut | null;
  /** What another tab has saved while this one holds unsaved work. */
  elsewhere: RevisionOut | null;
  load: (id: number) => Promise<void>;
  /** Make an edit; what it comes to is not taken over when `accept` refuses it. */
  edit: (edit: Edit, together?: string, accept?: (work: Work) => boolean) => Promise<Work | null>;
  replace: (text: string, together?: string) => Promise<void>;
  /** Ask for dimensions that define the outline, and put them on. */
  suggest: () => Promise<void>;
  /** Point at one more region. */
  point: (spot: readonly [number, number]) => Promise<void>;
  /** Write the boundary of the regions down as statements. */
  lineIn: () => Promise<void>;
  /** Open a step up, or close it again. */
  openUp: (step: number) => Promise<void>;
  /** Do the steps in another order; it is kept with the job on this desk. */
  reschedule: (schedule: Schedule) => Promise<void>;
  /** Draw the job with another kit, by name; the usual one where it is empty. */
  takeKit: (kit: string) => Promise<void>;
  /** What is typed from here on is undone by itself. */
  finished: () => void;
  undo: () => Promise<void>;
  redo: () => Promise<void>;
  save: (note?: string) => Promise<void>;
  settle: (base: number) => void;
  set: (change: Partial<Looks>) => void;
}
/** What any part of the bench may set directly. */
type Looks = Pick<
  Bench,
  | "open"
  | "hover"
  | "ghosts"
  | "letter"
  | "step"
  | "construction"
  | "pick"
  | "spot"
  | "cloud"
  | "regions"
  | "opened"
  | "worksheet"
  | "message"
  | "stale"
  | "elsewhere"
>;

const MOST_UNDO = 500;
const draftKey = (id: number) => `entrick.draft.${id}`;

interface Draft {
  base: number;
  text: string;
}

function readDraft(id: number): Draft | null {
  try {
    const draft = JSON.parse(localStorage.getItem(draftKey(id)) ?? "null") as Draft | null;
    return draft && typeof draft.text === "string" ? draft : null;
  } catch {
    return null;
  }
}

/** Edits on their way to the desk, kept so that a reload in between loses nothing that was typed. */
const pendingKey = (id: number) => `entrick.pending.${id}`;
function readPending(id: number): Record<string, Edit> {
  try {
    return JSON.parse(localStorage.getItem(pendingKey(id)) ?? "{}") as Record<string, Edit>;
  } catch {
    return {};
  }
}
function keepPending(id: number | undefined, edit: Edit, keep: boolean) {
  if (id === undefined) return;
  const key = `${edit.op} ${"line" in edit ? edit.line : "after" in edit ? edit.after : "key" in edit ? edit.key : edit.text}`;
  const pending = readPending(id);
  if (keep) pending[key] = edit;
  else delete pending[key];
  if (Object.keys(pending).length === 0) localStorage.removeItem(pendingKey(id));
  else localStorage.setItem(pendingKey(id), JSON.stringify(pending));
}

/** One call at a time, so that every edit starts from the text the one before it left. */
let line: Promise<unknown> = Promise.resolve();
let waiting = 0;
function inTurn<T>(work: () => Promise<T>): Promise<T> {
  waiting += 1;
  const next = line.then(work, work).finally(() => (waiting -= 1));
  line = next.catch(() => undefined);
  return next;
}

/** The edit that was made last: a newer one of the same field overtakes it. */
let underWay: { together: string; end: AbortController } | null = null;
function overtake(together: string): AbortSignal {
  if (together !== "" && underWay?.together === together) underWay.end.abort();
  underWay = { together, end: new AbortController() };
  return underWay.end.signal;
}

/** The other tabs of this desk: what is saved in one is told in all. */
const others = new BroadcastChannel("entrick.saved");

/** What has not changed stays the same object, so that only what has is drawn again. Of the drawing that is so already:
 * a layer that is known by its key is the layer that was here. */
function merged(before: Work | null, { drawn, ...rest }: Work): Work {
  if (!before) return { ...rest, drawn };
  const { drawn: was, ...others } = before;
  return {
    ...replaceEqualDeep(others, rest),
    drawn: { ...drawn, ground: replaceEqualDeep(was.ground, drawn.ground) },
  };
}

/** Edits that belong together (typing in one field) are undone together. */
let lastTogether = "";

export const useBench = create<Bench>((set, get) => {
  const put = (work: Work, together: string) => {
    const { text, past, job, base, saved } = get();
    if (work.text !== text) {
      const joined = together !== "" && together === lastTogether;
      set({ past: joined ? past : [...past, text].slice(-MOST_UNDO), future: [] });
      lastTogether = together;
    }
    show(work);
    if (job) {
      if (work.text === saved) localStorage.removeItem(draftKey(job.id));
      else localStorage.setItem(draftKey(job.id), JSON.stringify({ base, text: work.text }));
    }
  };
  const show = (work: Work) => {
    const { step, opened, work: before } = get();
    set({
      work: merged(before, work),
      text: work.text,
      message: "",
      opened: opened?.text === work.text ? opened : null,
      step: step !== null && step >= work.steps.length ? null : step,
    });
  };
  const told = (error: unknown) => {
    set({ message: error instanceof Problem ? `${error.title}. ${error.detail}` : String(error) });
    return null;
  };

  return {
    job: null,
    kit: "",
    base: 0,
    saved: "",
    text: "",
    work: null,
    past: [],
    future: [],
    open: null,
    hover: null,
    ghosts: null,
    letter: null,
    step: null,
    construction: "kept",
    pick: null,
    spot: null,
    cloud: null,
    regions: null,
    opened: null,
    worksheet: null,
    message: "",
    stale: null,
    elsewhere: null,
    set: (change) => set(change),

    load: async (id) => {
      set({
        job: null,
        work: null,
        past: [],
        future: [],
        open: null,
        step: null,
        pick: null,
        regions: null,
        opened: null,
        worksheet: null,
        message: "",
        stale: null,
        elsewhere: null,
      });
      try {
        const { job, newest, schedule, kit = "" } = await api.job(id);
        drawWith(kit);
        const draft = readDraft(id);
        const text = draft ? draft.text : newest.text;
        const work = await api.work(text, null, undefined, undefined, schedule);
        set({ job, kit, base: draft ? draft.base : newest.number, saved: newest.text });
        show(work);
        if (draft && draft.text !== newest.text)
          set({
            message: "Unsaved work from last time is on the bench. Save it, or undo to the saved revision.",
          });
        if (draft && draft.text !== newest.text) set({ past: [newest.text] });
        for (const edit of Object.values(readPending(id))) await get().edit(edit);
      } catch (error) {
        told(error);
      }
    },

    edit: (edit, together = "", accept = () => true) => {
      const id = get().job?.id;
      keepPending(id, edit, true);
      const signal = overtake(together);
      return inTurn(async () => {
        try {
          const work = await api.work(get().text, get().work, edit, signal);
          if (work.refused) keepPending(id, edit, false);
          if (work.refused || !accept(work)) return work;
          put(work, together);
          keepPending(id, edit, false);
          return work;
        } catch (error) {
          if (isOvertaken(error)) return null;
          // What the desk could not look at, as it was away or busy, is kept; what it refused is not.
          if (error instanceof Problem && error.status !== 0 && error.status < 500)
            keepPending(id, edit, false);
          return told(error);
        }
      });
    },

    replace: (text, together = "") => {
      const signal = overtake(together);
      return inTurn(async () => {
        try {
          put(await api.work(text, get().work, undefined, signal), together);
        } catch (error) {
          if (!isOvertaken(error)) told(error);
        }
      });
    },

    suggest: () =>
      inTurn(async () => {
        try {
          const found = await api.suggest(get().text);
          if (found.statements.length > 0) put(await api.work(found.text, get().work), "");
          const open = found.left_open.length > 0 ? ` Still open: ${found.left_open.join(", ")}.` : "";
          const count = found.statements.length;
          set({
            message:
              count > 0
                ? `${count} dimension${count > 1 ? "s" : ""} put on; edit or strike out any of them.${open}`
                : `Nothing to add: the dimensions define the outline.${open}`,
          });
        } catch (error) {
          told(error);
        }
      }),

    point: async (spot) => {
      const { regions, text } = get();
      if (!regions) return;
      const spots = [...regions.spots, spot];
      try {
        const found = await api.regions(text, spots, regions.kind);
        set({ regions: { ...regions, spots, found, told: "" } });
      } catch (error) {
        set({ regions: { ...regions, told: error instanceof Problem ? error.detail : String(error) } });
      }
    },

    lineIn: () =>
      inTurn(async () => {
        const { regions, text, work } = get();
        if (!regions?.found) return;
        const rows = regions.found.statements.join("\n");
        try {
          put(await api.work(text, work, { op: "append", text: rows }), "");
          set({ regions: null });
        } catch (error) {
          told(error);
        }
      }),

    openUp: async (step) => {
      const { opened, text } = get();
      if (opened?.step === step) {
        set({ opened: null });
        return;
      }
      try {
        const found = await api.opened(text, step, get().work?.schedule ?? "written");
        set({ opened: { step, text, found, upTo: found.steps.length } });
      } catch (error) {
        told(error);
      }
    },

    reschedule: (schedule) =>
      inTurn(async () => {
        const { job, text, work } = get();
        if (job) await api.schedule(job.id, schedule).catch(told);
        try {
          show(await api.work(text, work, undefined, undefined, schedule));
          set({ step: null, opened: null });
        } catch (error) {
          told(error);
        }
      }),

    takeKit: (kit) =>
      inTurn(async () => {
        const { job, text, work } = get();
        try {
          if (job) await api.jobKit(job.id, kit);
          drawWith(kit);
          set({ kit });
          if (work) show(await api.work(text, work));
        } catch (error) {
          told(error);
        }
      }),

    finished: () => {
      lastTogether = "";
    },

    undo: () =>
      inTurn(async () => {
        const { past, future, text } = get();
        const previous = past.at(-1);
        if (previous === undefined) return;
        lastTogether = "";
        const work = await api.work(previous, get().work);
        put(work, "");
        set({ past: past.slice(0, -1), future: [text, ...future] });
      }),

    redo: () =>
      inTurn(async () => {
        const { past, future, text } = get();
        const [next, ...rest] = future;
        if (next === undefined) return;
        lastTogether = "";
        const work = await api.work(next, get().work);
        put(work, "");
        set({ past: [...past, text], future: rest });
      }),

    save: (note = "") =>
      inTurn(async () => {
        const { job, text, base } = get();
        if (!job) return;
        try {
          const revision = await api.save(job.id, text, base, note);
          localStorage.removeItem(draftKey(job.id));
          others.postMessage({ job: job.id, revision: revision.number });
          set({
            base: revision.number,
            saved: revision.text,
            stale: null,
            elsewhere: null,
            message: `Revision ${revision.number} saved.`,
          });
        } catch (error) {
          if (error instanceof Problem && error.status === 409 && error.newest) set({ stale: error.newest });
          else told(error);
        }
      }),

    settle: (base) => {
      const { job, text } = get();
      set({ base, stale: null, elsewhere: null });
      if (job) localStorage.setItem(draftKey(job.id), JSON.stringify({ base, text }));
    },
  };
});

/** Some of what is on the bench: whoever asks for it is drawn again when one of those changes, and not otherwise. */
export function useSome<K extends keyof Bench>(...keys: readonly K[]): Pick<Bench, K> {
  return useBench(
    useShallow((bench) => Object.fromEntries(keys.map((key) => [key, bench[key]])) as Pick<Bench, K>),
  );
}

others.onmessage = (event: MessageEvent<{ job: number; revision: number }>) => {
  const { job, base, text, saved, load, set } = useBench.getState();
  if (job?.id !== event.data.job || event.data.revision <= base) return;
  if (text === saved)
    void load(job.id).then(() =>
      set({ message: `Revision ${event.data.revision} was saved in another tab; it is on the bench now.` }),
    );
  else
    void api
      .job(job.id)
      .then(({ newest }) => set({ elsewhere: newest }))
      .catch(() => undefined);
};

/** Whether the bench holds work that is not saved. */
export const useUnsaved = () => useBench((bench) => bench.work !== null && bench.text !== bench.saved);

/** A value once it has stood still for a while and no edit is under way: the inspection does not run after every
 * letter, and never beside an edit, which would have to share the desk with it. */
function useSettled<T>(value: T, milliseconds: number): T {
  const [settled, setSettled] = useState(value);
  useEffect(() => {
    const settle = () => {
      if (waiting > 0) later = setTimeout(settle, milliseconds);
      else setSettled(value);
    };
    let later = setTimeout(settle, milliseconds);
    return () => clearTimeout(later);
  }, [value, milliseconds]);
  return settled;
}

/** What the inspection finds in the plan on the bench; it follows the sheet a moment later. */
export function useProof() {
  const text = useSettled(
    useBench((bench) => bench.text),
    250,
  );
  const ready = useBench((bench) => bench.work !== null);
  return useQuery({
    queryKey: ["proof", text],
    queryFn: ({ signal }) => api.proof(text, signal),
    enabled: ready,
    placeholderData: keepPreviousData,
    staleTime: Infinity,
    gcTime: 60_000,
  }).data;
}
