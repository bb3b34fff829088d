/** Files out of the desk and into it. */
import {
  type ClassIn,
  exportPlan,
  exportRegister,
  type ExportIn,
  importRegister,
  marksOfClass,
  Problem,
  setAnswers,
  setPapers,
  type PapersIn,
  type SheetIn,
  worksheetFile,
  type WorksheetFileIn,
} from "./client";

/** A file is wanted as it is, with what the desk says of it. */
const WHOLE = { parseAs: "blob", responseStyle: "fields" } as const;
const PIECEWISE = { parseAs: "stream", responseStyle: "fields" } as const;

interface Fetched {
  data: unknown;
  response: Response;
}

/** Hand a file to the browser to keep; returns its name. */
export function keep(content: Blob, name: string): string {
  const url = URL.createObjectURL(content);
  const link = document.createElement("a");
  link.href = url;
  link.download = name;
  link.click();
  setTimeout(() => URL.revokeObjectURL(url), 10_000);
  return name;
}

function nameOf(response: Response, usual: string): string {
  return /filename="([^"]+)"/.exec(response.headers.get("Content-Disposition") ?? "")?.[1] ?? usual;
}

async function kept(fetched: Promise<unknown>, usual: string): Promise<string> {
  const { data, response } = (await fetched) as Fetched;
  return keep(data as Blob, nameOf(response, usual));
}

/** Fetch a plan as a file. */
export const download = (format: string, plan: ExportIn) =>
  kept(exportPlan({ path: { format }, body: plan, ...WHOLE }), `plan.${format}`);

/** Fetch a worksheet as a file: its drawing, or one of its tables. */
export const downloadWorksheet = (format: "pdf" | "csv", worksheet: WorksheetFileIn) =>
  kept(worksheetFile({ path: { format }, body: worksheet, ...WHOLE }), `worksheet.${format}`);

/** Fetch the papers of a set, or its key. */
export const downloadPapers = (papers: PapersIn) => kept(setPapers({ body: papers, ...WHOLE }), "papers.pdf");

/** Fetch an empty table of answers to a set. */
export const downloadAnswerSheet = (sheet: SheetIn) =>
  kept(setAnswers({ body: sheet, ...WHOLE }), "answers.csv");

/** Fetch the marks of a class as a table. */
export const keepMarks = (students: ClassIn["students"]) =>
  kept(marksOfClass({ body: { students }, ...WHOLE }), "marks.csv");

/** Hears how far something is: so many of so many. */
export type Progress = (done: number, of: number) => void;

/** Fetch the whole register as open files in a zip, and hand it to the browser to keep. */
export async function takeAway(progress: Progress): Promise<string> {
  const { data, response } = (await exportRegister(PIECEWISE)) as unknown as Fetched;
  const size = Number(response.headers.get("Content-Length"));
  const blocks: BlobPart[] = [];
  let done = 0;
  for (const reader = (data as ReadableStream<Uint8Array<ArrayBuffer>>).getReader(); ;) {
    const { value, done: ended } = await reader.read();
    if (ended) break;
    blocks.push(value);
    progress((done += value.length), size);
  }
  return keep(new Blob(blocks), nameOf(response, "register.zip"));
}

interface Step {
  done?: number;
  of?: number;
  jobs?: number;
  known?: number;
  problem?: string;
}

/** Enter every job of a register that was taken away; returns what came of it in words. */
export async function takeIn(file: File, progress: Progress): Promise<string> {
  const { data } = (await importRegister({ body: file, ...PIECEWISE })) as unknown as Fetched;
  const reader = (data as ReadableStream<BufferSource>).pipeThrough(new TextDecoderStream()).getReader();
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
