/** The job on the bench: its text, what it works out to, undo and redo, and what is saved of it. */
import { create } from "zustand";
import { useShallow } from "zustand/react/shallow";
import {
  type Edit,
  inWords,
  isOvertaken,
  type JobOut,
  openJob,
  Problem,
  type RevisionOut,
  saveRevision,
  type Schedule,
  setKit,
  setSchedule,
  type Work,
  workedOut,
} from "../api/client";
import { merged } from "../api/layers";
import { kitCalled } from "./kits";
import { look, lookAfresh, useLooks } from "./looks";
import { dropPending, keepDraft, keepPending, readDraft, readPending } from "./outbox";
import { inTurn, overtake } from "./turns";

interface Document {
  job: JobOut | null;
  /** The kit the job names, empty for the usual one; and what is in it, empty for the small kit of the plan's unit. */
  kit: string;
  kitText: string;
  base: number;
  saved: string;
  text: string;
  work: Work | null;
  past: readonly string[];
  future: readonly string[];
  message: string;
  /** What somebody else saved on the revision this work goes on from. */
  stale: RevisionOut | null;
  /** What another tab has saved while this one holds unsaved work. */
  elsewhere: RevisionOut | null;
}

const BLANK: Document = {
  job: null,
  kit: "",
  kitText: "",
  base: 0,
  saved: "",
  text: "",
  work: null,
  past: [],
  future: [],
  message: "",
  stale: null,
  elsewhere: null,
};

const MOST_UNDO = 500;

export const useDocument = create<Document>(() => BLANK);
const { getState: now, setState: set } = useDocument;

/** Some of it: whoever asks is drawn again when one of those changes, and not otherwise. */
export function useSome<K extends keyof Document>(...keys: readonly K[]): Pick<Document, K> {
  return useDocument(
    useShallow(
      (document) => Object.fromEntries(keys.map((key) => [key, document[key]])) as Pick<Document, K>,
    ),
  );
}

/** Whether the bench holds work that is not saved. */
export const useUnsaved = () =>
  useDocument((document) => document.work !== null && document.text !== document.saved);

/** Tell the drafter something. */
export const tell = (message: string) => set({ message });

/** Tell what the desk refused, or that it does not answer. */
export const tellProblem = (problem: unknown) => set({ message: inWords(problem) });

/** Put two versions side by side, or put the comparison away. */
export const compare = (stale: RevisionOut | null) => set({ stale });

/** The other tabs of this desk: what is saved in one is told in all. */
const tabs = new BroadcastChannel("entrick.saved");

/** Edits that belong together (typing in one field) are undone together. */
let lastTogether = "";

/** What is typed from here on is undone by itself. */
export function finished(): void {
  lastTogether = "";
}

/** Ask the desk for what the bench would hold: this text as it is drawn here, after an edit if there is one. */
function asked(
  text: string,
  more: { edit?: Edit; schedule?: Schedule } = {},
  signal?: AbortSignal,
): Promise<Work> {
  const { work, kitText } = now();
  const schedule = more.schedule ?? work?.schedule ?? "written";
  return workedOut({ text, edit: more.edit, schedule, kit: kitText }, work, signal);
}

function show(work: Work): void {
  const { step, opened } = useLooks.getState();
  look({
    opened: opened?.text === work.text ? opened : null,
    step: step !== null && step >= work.steps.length ? null : step,
  });
  set({ work: merged(now().work, work), text: work.text, message: "" });
}

/** Take over what the desk answered. */
function put(work: Work, together = ""): void {
  const { text, past, job, base, saved } = now();
  if (work.text !== text) {
    const joined = together !== "" && together === lastTogether;
    set({ past: joined ? past : [...past, text].slice(-MOST_UNDO), future: [] });
    lastTogether = together;
  }
  show(work);
  if (job) keepDraft(job.id, { base, text: work.text }, saved);
}

/** Put a job on the bench, with the work on it that was not saved. */
export async function load(id: number): Promise<void> {
  set(BLANK);
  lookAfresh();
  try {
    const { job, newest, schedule, kit } = await openJob({ path: { job_id: id } });
    set({ kit, kitText: await kitCalled(kit) });
    const draft = readDraft(id);
    const text = draft ? draft.text : newest.text;
    const work = await asked(text, { schedule });
    set({ job, base: draft ? draft.base : newest.number, saved: newest.text });
    show(work);
    if (text !== newest.text) {
      tell("Unsaved work from last time is on the bench. Save it, or undo to the saved revision.");
      set({ past: [newest.text] });
    }
    for (const pending of readPending(id)) await edit(pending);
  } catch (problem) {
    tellProblem(problem);
  }
}

/** Make an edit; what it comes to is not taken over when `accept` refuses it. */
export function edit(
  change: Edit,
  together = "",
  accept: (work: Work) => boolean = () => true,
): Promise<Work | null> {
  const id = now().job?.id;
  if (id !== undefined) keepPending(id, change);
  const settled = () => id !== undefined && dropPending(id, change);
  const signal = overtake(together);
  return inTurn(async () => {
    try {
      const work = await asked(now().text, { edit: change }, signal);
      if (work.refused) settled();
      if (work.refused || !accept(work)) return work;
      put(work, together);
      settled();
      return work;
    } catch (problem) {
      if (isOvertaken(problem)) return null;
      // What the desk could not look at, as it was away or busy, is kept; what it refused is not.
      if (problem instanceof Problem && !problem.isAway) settled();
      tellProblem(problem);
      return null;
    }
  });
}

/** Put another text on the bench. */
export function replace(text: string, together = ""): Promise<void> {
  const signal = overtake(together);
  return inTurn(async () => {
    try {
      put(await asked(text, {}, signal), together);
    } catch (problem) {
      if (!isOvertaken(problem)) tellProblem(problem);
    }
  });
}

/** Do something with the text as every edit before left it, one thing at a time; what goes wrong is told. */
export function atTheBench(work: (text: string) => Promise<void>): Promise<void> {
  return inTurn(async () => {
    try {
      await work(now().text);
    } catch (problem) {
      tellProblem(problem);
    }
  });
}

/** Take over a text, after an edit if there is one; of a step by itself. */
export async function takeOver(text: string, change?: Edit): Promise<void> {
  put(await asked(text, { edit: change }));
}

export function undo(): Promise<void> {
  return atTheBench(async (text) => {
    const { past, future } = now();
    const previous = past.at(-1);
    if (previous === undefined) return;
    finished();
    await takeOver(previous);
    set({ past: past.slice(0, -1), future: [text, ...future] });
  });
}

export function redo(): Promise<void> {
  return atTheBench(async (text) => {
    const { past, future } = now();
    const [next, ...rest] = future;
    if (next === undefined) return;
    finished();
    await takeOver(next);
    set({ past: [...past, text], future: rest });
  });
}

/** Do the steps in another order; it is kept with the job on this desk. */
export function reschedule(schedule: Schedule): Promise<void> {
  return atTheBench(async (text) => {
    const { job } = now();
    if (job) await setSchedule({ path: { job_id: job.id }, body: { schedule } }).catch(tellProblem);
    show(await asked(text, { schedule }));
    look({ step: null, opened: null });
  });
}

/** Draw the job with another kit, by name; the usual one where it is empty. */
export function takeKit(kit: string): Promise<void> {
  return atTheBench(async () => {
    const { job } = now();
    if (job) await setKit({ path: { job_id: job.id }, body: { kit } });
    set({ kit });
    await drawWithKit();
  });
}

/** Kits have been changed: what is on the bench is drawn with what there is now. */
export const kitsChanged = () => atTheBench(drawWithKit);

async function drawWithKit(): Promise<void> {
  const { kit, work, text } = now();
  set({ kitText: await kitCalled(kit) });
  if (work) show(await asked(text));
}

/** Save the text as the next revision. */
export function save(note = ""): Promise<void> {
  return inTurn(async () => {
    const { job, text, base } = now();
    if (!job) return;
    try {
      const revision = await saveRevision({ path: { job_id: job.id }, body: { text, based_on: base, note } });
      keepDraft(job.id, { base, text }, text);
      tabs.postMessage({ job: job.id, revision: revision.number });
      set({ base: revision.number, saved: revision.text, stale: null, elsewhere: null });
      tell(`Revision ${revision.number} saved.`);
    } catch (problem) {
      if (problem instanceof Problem && problem.newest) compare(problem.newest);
      else tellProblem(problem);
    }
  });
}

/** Go on from another revision with the text as it is. */
export function goOnFrom(base: number): void {
  const { job, text, saved } = now();
  set({ base, stale: null, elsewhere: null });
  if (job) keepDraft(job.id, { base, text }, saved);
}

tabs.onmessage = (event: MessageEvent<{ job: number; revision: number }>) => {
  const { job, base, text, saved } = now();
  if (job?.id !== event.data.job || event.data.revision <= base) return;
  if (text === saved)
    void load(job.id).then(() =>
      tell(`Revision ${event.data.revision} was saved in another tab; it is on the bench now.`),
    );
  else
    void openJob({ path: { job_id: job.id } })
      .then(({ newest }) => set({ elsewhere: newest }))
      .catch(() => undefined);
};
