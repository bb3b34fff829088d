/** What is kept in the browser until the desk has it: unsaved work, and edits that are on their way. */
import type { Edit } from "../api/client";
import { keptAs } from "./register";

/** Text that is not saved yet, and the revision it goes on from. */
export interface Draft {
  base: number;
  text: string;
}

type Pending = Record<string, Edit>;

const draftKey = (job: number) => keptAs("draft", job);
const pendingKey = (job: number) => keptAs("pending", job);

/** What was kept under a key; null where there is nothing, or nothing that can be read. */
function read<T>(key: string): T | null {
  try {
    return JSON.parse(localStorage.getItem(key) ?? "null") as T | null;
  } catch {
    return null;
  }
}

export function readDraft(job: number): Draft | null {
  const draft = read<Draft>(draftKey(job));
  return draft && typeof draft.text === "string" ? draft : null;
}

/** Keep the text of a job while it differs from what is saved. */
export function keepDraft(job: number, draft: Draft, saved: string): void {
  if (draft.text === saved) localStorage.removeItem(draftKey(job));
  else localStorage.setItem(draftKey(job), JSON.stringify(draft));
}

/** Edits that were made and not answered before the page went. */
export const readPending = (job: number): Edit[] => Object.values(read<Pending>(pendingKey(job)) ?? {});

/** Of two edits at the same place the later one is kept. */
export function placeOf(edit: Edit): string {
  if ("line" in edit) return `${edit.op} ${edit.line}`;
  if ("after" in edit) return `${edit.op} ${edit.after}`;
  if ("key" in edit) return `${edit.op} ${edit.key}`;
  return `${edit.op} ${edit.text}`;
}

/** Keep an edit until it is answered, so that a reload in between loses nothing that was typed. */
export function keepPending(job: number, edit: Edit): void {
  const pending = read<Pending>(pendingKey(job)) ?? {};
  localStorage.setItem(pendingKey(job), JSON.stringify({ ...pending, [placeOf(edit)]: edit }));
}

export function dropPending(job: number, edit: Edit): void {
  const pending = read<Pending>(pendingKey(job)) ?? {};
  delete pending[placeOf(edit)];
  if (Object.keys(pending).length === 0) localStorage.removeItem(pendingKey(job));
  else localStorage.setItem(pendingKey(job), JSON.stringify(pending));
}
