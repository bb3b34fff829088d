/** Calls to the desk. Types are generated from its OpenAPI document. */
import type {
  Arrowhead,
  BriefOut,
  ChoicesOut,
  CompleteOut,
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
  OpenedOut,
  ProofOut,
  RegionsOut,
  RevisionOut,
  RevisionsOut,
  SuggestOut,
  WorkIn,
  WorkOut,
  WorksheetOut,
} from "./generated";

export type * from "./generated";
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
export type FileFormat = "pdf" | "svg" | "dxf" | "cutter" | "csv" | "entrick";

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

async function send(method: string, path: string, body?: unknown): Promise<Response> {
  let response: Response;
  try {
    response = await fetch(path, {
      method,
      headers: body === undefined ? {} : { "Content-Type": "application/json" },
      body: body === undefined ? undefined : JSON.stringify(body),
    });
  } catch {
    throw new Problem(
      0,
      "The desk does not answer",
      "Is it still running? Nothing typed is lost; try again.",
    );
  }
  if (!response.ok) {
    const told = (await response.json().catch(() => ({}))) as Partial<Problem>;
    throw new Problem(
      response.status,
      told.title ?? response.statusText,
      told.detail ?? "",
      told.newest ?? undefined,
    );
  }
  return response;
}

const json = async <T>(method: string, path: string, body?: unknown): Promise<T> =>
  (await send(method, path, body)).json() as Promise<T>;

export const api = {
  kinds: () => json<KindsOut>("GET", "/api/kinds"),
  work: (text: string, edit?: Edit) => json<WorkOut>("POST", "/api/work", { text, edit }),
  complete: (text: string, after: number, row: string) =>
    json<CompleteOut>("POST", "/api/complete", { text, after, row }),
  proof: (text: string) => json<ProofOut>("POST", "/api/proof", { text }),
  suggest: (text: string) => json<SuggestOut>("POST", "/api/suggest", { text }),
  regions: (text: string, spots: readonly (readonly [number, number])[], kind: string) =>
    json<RegionsOut>("POST", "/api/regions", { text, spots, kind }),
  opened: (text: string, step: number) => json<OpenedOut>("POST", "/api/opened", { text, step }),
  methods: (text: string, line: number) => json<MethodsOut>("POST", "/api/methods", { text, line }),
  worksheet: (text: string, line: number, turn: number) =>
    json<WorksheetOut>("POST", "/api/worksheet", { text, line, turn }),
  brief: (text: string, line: number, brief: string) =>
    json<BriefOut>("POST", "/api/brief", { text, line, brief }),
  sheetChoices: (text: string) => json<ChoicesOut>("POST", "/api/sheet-choices", { text }),
  jobs: (archived: boolean) => json<JobsOut>("GET", `/api/jobs?archived=${archived}`),
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
  return keep(await send("POST", `/api/export/${format}`, { text, ...options }), format);
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
