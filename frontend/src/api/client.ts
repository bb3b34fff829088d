/** Calls to the desk. They are generated from its OpenAPI document, with the types of what crosses; here stands how
 * they wait, and how what is refused comes back. */
import type { Problem as Told, RevisionOut, WorkIn, WorkOut } from "./generated";
import { client } from "./generated/client.gen";
import { type DrawnArc, type DrawnCircle, type DrawnDot, type DrawnLine, type DrawnRun } from "./generated";
import { type Arrowhead, type Lettering, workOutPlan } from "./generated";
import { assembled, type Work } from "./layers";

export * from "./generated";
export type { Layer, Work } from "./layers";

export type Edit = NonNullable<WorkIn["edit"]>;
export type Entry = WorkOut["entries"][number];
export type Schedule = WorkOut["schedule"];
export type Mark = DrawnLine | DrawnArc | DrawnCircle | DrawnRun | DrawnDot | Arrowhead | Lettering;

/** A problem+json answer; its status is 0 where the desk did not answer at all. */
export class Problem extends Error {
  constructor(
    readonly status: number,
    readonly title: string,
    readonly detail: string,
    readonly newest?: RevisionOut,
  ) {
    super(detail || title);
  }

  /** Whether the desk could not look at what was sent: it is away, or busy. */
  get isAway() {
    return this.status === 0 || this.status >= 500;
  }
}

/** What is told of something that went wrong: its title, and the reason as the same sentence or another one. */
export const inWords = (problem: unknown) =>
  problem instanceof Problem
    ? [problem.title, problem.detail].filter(Boolean).join(/^\p{Ll}/u.test(problem.detail) ? ": " : ". ")
    : problem instanceof Error
      ? problem.message
      : String(problem);

/** Whether a call was ended because something newer overtook it, or nobody waits for it any more. */
export const isOvertaken = (error: unknown) => error instanceof DOMException && error.name === "AbortError";

/** How often an answer that the desk is busy is taken as a "later". */
const PATIENCE = 3;

/** Send a request; where the desk is busy, again when it says. */
async function patient(request: RequestInfo | URL, options?: RequestInit): Promise<Response> {
  const sent = new Request(request, options);
  for (let turn = 1; ; turn++) {
    const response = await fetch(turn <= PATIENCE ? sent.clone() : sent);
    if (response.status !== 503 || turn > PATIENCE) return response;
    const seconds = Number(response.headers.get("Retry-After")) || 1;
    await new Promise((later) => setTimeout(later, seconds * 1000));
    sent.signal.throwIfAborted();
  }
}

/** Told to the page when the desk says that nobody has said who works here, whatever was asked for. */
export const NOBODY = "entrick:nobody";

client.setConfig({ baseUrl: "", fetch: patient });
client.interceptors.error.use((error, response) => {
  if (isOvertaken(error)) return error;
  if (!response)
    return new Problem(
      0,
      "The desk does not answer",
      "Is it still running? Nothing typed is lost; try again.",
    );
  if (response.status === 401) window.dispatchEvent(new Event(NOBODY));
  // Whatever stands between the browser and the desk may answer in a form of its own.
  const told: Partial<Told> = error !== null && typeof error === "object" ? error : {};
  const { title = response.statusText, detail = "", newest } = told;
  return new Problem(response.status, title, detail, newest ?? undefined);
});

/** Work a plan out, after an edit if there is one; layers that `before` has are not sent again. */
export async function workedOut(
  plan: Omit<WorkIn, "known">,
  before: Work | null,
  signal?: AbortSignal,
): Promise<Work> {
  const known = before?.drawn.layers.map((layer) => layer.key) ?? [];
  return assembled(await workOutPlan({ body: { ...plan, known }, signal }), before);
}
