/** Calls to the desk. Types are generated from its OpenAPI document. */
import type {
  AmendedIn,
  Arrowhead,
  BriefOut,
  ChoicesOut,
  AroundOut,
  KitOut,
  KitsOut,
  LacksOut,
  EventIo,
  CompleteOut,
  LogbookOut,
  SittingIn,
  SittingOut,
  VerdictOut,
  LessonOut,
  DrawnArc,
  DrawnCircle,
  DrawnDot,
  DrawnLine,
  DrawnRun,
  EntryOut,
  ExportIn,
  JobIn,
  JobOut,
  JobsOut,
  JobWithPlan,
  KindsOut,
  Lettering,
  MethodsOut,
  NoticeOut,
  OpenedOut,
  ClassMarksOut,
  CutIn,
  CutOut,
  HintOut,
  OpenedToOut,
  PairingOut,
  PracticeIn,
  PracticeOut,
  Problem as Told,
  RoundIn,
  RoundOut,
  SetPartIn,
  VerdictInPractice,
  ProofOut,
  ProfileIn,
  ReadBackOut,
  RegionsOut,
  RehearsalOut,
  RevisionOut,
  RevisionsOut,
  SampleProfileOut,
  SchedulesOut,
  SuggestOut,
  WorkIn,
  WorkOut,
  WorksheetOut,
} from "./generated";

import { assembled, type Work } from "./layers";

export type * from "./generated";
export type { Layer, Work } from "./layers";
export type Edit = NonNullable<WorkIn["edit"]>;
export type Entry = Required<EntryOut>;
export type Mark =
  | Required<DrawnLine>
  | Required<DrawnArc>
  | Required<DrawnCircle>
  | Required<DrawnRun>
  | Required<DrawnDot>
  | Required<Arrowhead>
  | Required<Lettering>;
/** Which part of the register is wanted. */
export interface Wanted {
  archived: boolean;
  search: string;
  order: "worked" | "entered" | "title" | "drawing";
  page: number;
}
/** In which order the steps are done. */
export type Schedule = NonNullable<WorkIn["schedule"]>;
export type FileFormat = "pdf" | "svg" | "dxf" | "cutter" | "csv" | "run-sheet" | "entrick";
export type SittingEvent = EventIo;

/** A problem+json answer. */
export class Problem extends Error {
  constructor(
    readonly status: number,
    readonly title: string,
    readonly detail: string,
    readonly newest?: RevisionOut,
  ) {
    super(detail || title);
  }
}

/** How often an answer that the desk is busy is taken as a "later". */
const PATIENCE = 3;

/** Whether a call was ended because something newer overtook it, or nobody waits for it any more. */
export const isOvertaken = (error: unknown) => error instanceof DOMException && error.name === "AbortError";

async function send(method: string, path: string, body?: unknown, signal?: AbortSignal): Promise<Response> {
  let response: Response;
  for (let turn = 1; ; turn++) {
    try {
      response = await fetch(path, {
        method,
        headers: body === undefined ? {} : { "Content-Type": "application/json" },
        body: body === undefined ? undefined : JSON.stringify(body),
        signal,
      });
    } catch (error) {
      if (isOvertaken(error)) throw error;
      throw new Problem(
        0,
        "The desk does not answer",
        "Is it still running? Nothing typed is lost; try again.",
      );
    }
    if (response.status !== 503 || turn > PATIENCE) break;
    const seconds = Number(response.headers.get("Retry-After")) || 1;
    await new Promise((later) => setTimeout(later, seconds * 1000));
    signal?.throwIfAborted();
  }
  if (!response.ok) throw await problemIn(response);
  return response;
}

async function problemIn(response: Response): Promise<Problem> {
  // Whatever stands between the browser and the desk may answer in a form of its own.
  const told = (await response.json().catch(() => ({}))) as Partial<Told>;
  return new Problem(
    response.status,
    told.title ?? response.statusText,
    told.detail ?? "",
    told.newest ?? undefined,
  );
}

const json = async <T>(method: string, path: string, body?: unknown, signal?: AbortSignal): Promise<T> =>
  (await send(method, path, body, signal)).json() as Promise<T>;

/** The kits by name, and the one the job at hand names; settings are read on that, or on the usual one. */
let kits: readonly KitOut[] = [];
let named = "";
let asked: Promise<unknown> | null = null;
async function kitAtHand(): Promise<string> {
  asked ??= json<KitsOut>("GET", "/api/kits")
    .then((found) => (kits = found.kits))
    .catch(() => (asked = null));
  await asked;
  return (kits.find((each) => each.name === named) ?? kits.find((each) => each.usual))?.text ?? "";
}
/** Kits have been changed: the next answer is asked for with what there is now. */
export const kitsChanged = () => (asked = null);
/** The job at hand is drawn with the kit of this name; with the usual one where it is empty. */
export const drawWith = (kit: string) => (named = kit);

export const api = {
  kinds: () => json<KindsOut>("GET", "/api/kinds"),
  /** Work a plan out, after an edit if there is one; layers that `before` has are not sent again. */
  work: async (
    text: string,
    before: Work | null,
    edit?: Edit,
    signal?: AbortSignal,
    schedule: Schedule = before?.schedule ?? "written",
  ) => {
    const known = before?.drawn.layers.map((layer) => layer.key) ?? [];
    return assembled(
      await json<WorkOut>(
        "POST",
        "/api/work",
        { text, edit, known, schedule, kit: await kitAtHand() },
        signal,
      ),
      before,
    );
  },
  /** A row being written, with a kind to begin it or something picked for it. */
  lesson: (text: string) => json<LessonOut>("POST", "/api/lesson", { text }),
  complete: (text: string, row: string, more: { begin?: string; pick?: string; caret?: number } = {}) =>
    json<CompleteOut>("POST", "/api/complete", { text, row, ...more }),
  proof: (text: string, signal?: AbortSignal) => json<ProofOut>("POST", "/api/proof", { text }, signal),
  suggest: (text: string) => json<SuggestOut>("POST", "/api/suggest", { text }),
  regions: (text: string, spots: readonly (readonly [number, number])[], kind: string) =>
    json<RegionsOut>("POST", "/api/regions", { text, spots, kind }),
  opened: async (text: string, step: number, schedule: Schedule) =>
    json<OpenedOut>("POST", "/api/opened", { text, step, schedule, kit: await kitAtHand() }),
  schedules: async (text: string, signal?: AbortSignal) =>
    json<SchedulesOut>("POST", "/api/schedules", { text, kit: await kitAtHand() }, signal),
  rehearsal: async (text: string, signal?: AbortSignal) =>
    json<RehearsalOut>("POST", "/api/rehearsal", { text, kit: await kitAtHand() }, signal),
  methods: (text: string, line: number) => json<MethodsOut>("POST", "/api/methods", { text, line }),
  worksheet: (text: string, line: number, turn: number) =>
    json<WorksheetOut>("POST", "/api/worksheet", { text, line, turn }),
  brief: (text: string, line: number, brief: string) =>
    json<BriefOut>("POST", "/api/brief", { text, line, brief }),
  sheetChoices: (text: string) => json<ChoicesOut>("POST", "/api/sheet-choices", { text }),
  jobs: (wanted: Wanted, signal?: AbortSignal) =>
    json<JobsOut>(
      "GET",
      `/api/jobs?${new URLSearchParams({
        archived: String(wanted.archived),
        search: wanted.search,
        order: wanted.order,
        page: String(wanted.page),
      })}`,
      undefined,
      signal,
    ),
  around: async (text: string, schedule: Schedule) =>
    json<AroundOut>("POST", "/api/around", { text, schedule, kit: await kitAtHand() }),
  measured: async (text: string, schedule: Schedule, step: number, ready: boolean, value: string) =>
    json<VerdictOut>("POST", "/api/measured", { text, schedule, step, ready, value, kit: await kitAtHand() }),
  kits: () => json<KitsOut>("GET", "/api/kits"),
  putKit: (name: string, text: string, usual: boolean) =>
    json<KitOut>("PUT", `/api/kits/${encodeURIComponent(name)}`, { text, usual }),
  removeKit: (name: string) => json<KitsOut>("DELETE", `/api/kits/${encodeURIComponent(name)}`),
  lacks: (text: string, kit: string) => json<LacksOut>("POST", "/api/lacks", { text, kit }),
  beginSitting: (sitting: SittingIn) => json<SittingOut>("POST", "/api/sittings", sitting),
  addEvents: (uid: string, events: readonly SittingEvent[]) =>
    json<SittingOut>("POST", `/api/sittings/${uid}/events`, { events }),
  amendSitting: (uid: string, amended: AmendedIn) =>
    json<SittingOut>("POST", `/api/sittings/${uid}/amendments`, amended),
  removeSitting: (uid: string, removed: boolean) => json("PATCH", `/api/sittings/${uid}`, { removed }),
  logbook: () => json<LogbookOut>("GET", "/api/logbook"),
  schedule: (id: number, schedule: Schedule) => json("PUT", `/api/jobs/${id}/schedule`, { schedule }),
  jobKit: (id: number, kit: string) => json("PUT", `/api/jobs/${id}/kit`, { kit }),
  practice: () => json<PracticeOut>("GET", "/api/practice"),
  forgetPractice: () => json<PracticeOut>("DELETE", "/api/practice"),
  round: async (round: Omit<RoundIn, "kit">) =>
    json<RoundOut>("POST", "/api/practice/round", { ...round, kit: await kitAtHand() }),
  hint: async (text: string, seed: number, key: string, number: number) =>
    json<HintOut>("POST", "/api/practice/hint", { text, seed, key, number, kit: await kitAtHand() }),
  openedTo: (said: string, tool: string, unit: string, signal?: AbortSignal) =>
    json<OpenedToOut>("POST", "/api/practice/opened", { said, tool, unit }, signal),
  answer: async (answer: Omit<PracticeIn, "kit">) =>
    json<VerdictInPractice>("POST", "/api/practice/answers", { ...answer, kit: await kitAtHand() }),
  setPart: (part: SetPartIn) => json<Record<string, unknown>>("POST", "/api/practice/set-part", part),
  papers: async (set: string, key: boolean, paper: string) =>
    keep(await send("POST", "/api/practice/set/papers", { set, key, paper }), "pdf"),
  marks: (set: string, answers: string) =>
    json<ClassMarksOut>("POST", "/api/practice/set/marks", { set, answers }),
  readBack: (profile: ProfileIn, signal?: AbortSignal) =>
    json<ReadBackOut>("POST", "/api/read-back", profile, signal),
  sampleProfile: () => json<SampleProfileOut>("GET", "/api/read-back/sample"),
  cut: (cut: CutIn) => json<CutOut>("POST", "/api/cut", cut),
  pairing: () => json<PairingOut>("GET", "/api/register/pairing"),
  notice: () => json<NoticeOut>("GET", "/api/register/notice"),
  job: (id: number) => json<JobWithPlan>("GET", `/api/jobs/${id}`),
  addJob: (job: JobIn) => json<JobOut>("POST", "/api/jobs", job),
  archive: (id: number, archived: boolean) => json<JobOut>("PATCH", `/api/jobs/${id}`, { archived }),
  revisions: (id: number) => json<RevisionsOut>("GET", `/api/jobs/${id}/revisions`),
  save: (id: number, text: string, based_on: number, note = "") =>
    json<RevisionOut>("POST", `/api/jobs/${id}/revisions`, { text, based_on, note }),
};

/** Fetch a plan as a file and hand it to the browser to keep. */
export async function download(
  format: FileFormat,
  text: string,
  options: Partial<Omit<ExportIn, "text">>,
): Promise<string> {
  return keep(
    await send("POST", `/api/export/${format}`, { text, kit: await kitAtHand(), ...options }),
    format,
  );
}

/** Hears how far something is: so many of so many. */
export type Progress = (done: number, of: number) => void;

/** Fetch the whole register as open files in a zip, and hand it to the browser to keep. */
export async function takeAway(progress: Progress): Promise<string> {
  const response = await send("GET", "/api/register/export.zip");
  const size = Number(response.headers.get("Content-Length"));
  const blocks: BlobPart[] = [];
  let done = 0;
  for (const reader = response.body!.getReader(); ;) {
    const { value, done: ended } = await reader.read();
    if (ended) break;
    blocks.push(value);
    progress((done += value.length), size);
  }
  return keep(new Response(new Blob(blocks), { headers: response.headers }), "zip");
}

/** Enter every job of a register that was taken away; returns what came of it in words. */
export async function takeIn(file: File, progress: Progress): Promise<string> {
  const response = await fetch("/api/register/import", {
    method: "POST",
    headers: { "Content-Type": "application/zip" },
    body: file,
  });
  if (!response.ok) throw await problemIn(response);
  const reader = response.body!.pipeThrough(new TextDecoderStream()).getReader();
  let rest = "";
  for (;;) {
    const { value, done } = await reader.read();
    const rows = (rest + (value ?? "")).split("\n");
    rest = rows.pop() ?? "";
    for (const row of rows) {
      const step = JSON.parse(row) as Step;
      if (step.problem) throw new Problem(500, "Not entered", step.problem);
      if (step.jobs !== undefined)
        return `${step.jobs} job${step.jobs === 1 ? "" : "s"} entered${step.known ? `, ${step.known} were there already` : ""}.`;
      progress(step.done ?? 0, step.of ?? 1);
    }
    if (done) throw new Problem(500, "Not entered", "The desk broke off; nothing was entered.");
  }
}
interface Step {
  done?: number;
  of?: number;
  jobs?: number;
  known?: number;
  problem?: string;
}

/** Fetch a worksheet as a file: its drawing, or one of its tables. */
export async function worksheetFile(
  format: "pdf" | "csv",
  text: string,
  line: number,
  turn: number,
  table?: number,
): Promise<string> {
  return keep(await send("POST", `/api/worksheet/${format}`, { text, line, turn, table }), format);
}

async function keep(response: Response, format: string): Promise<string> {
  const name =
    /filename="([^"]+)"/.exec(response.headers.get("Content-Disposition") ?? "")?.[1] ?? `plan.${format}`;
  const url = URL.createObjectURL(await response.blob());
  const link = document.createElement("a");
  link.href = url;
  link.download = name;
  link.click();
  setTimeout(() => URL.revokeObjectURL(url), 10_000);
  return name;
}
