/** What is kept in the browser until the desk has it. */
import { beforeEach, expect, test, vi } from "vitest";
import type { Edit } from "../src/api/client";
import { dropPending, keepDraft, keepPending, placeOf, readDraft, readPending } from "../src/state/outbox";

class Kept {
  private readonly items = new Map<string, string>();
  getItem = (key: string) => this.items.get(key) ?? null;
  setItem = (key: string, value: string) => void this.items.set(key, value);
  removeItem = (key: string) => void this.items.delete(key);
  get length() {
    return this.items.size;
  }
}

let kept: Kept;
let register: string;
beforeEach(() => {
  kept = new Kept();
  register = "ours";
  vi.stubGlobal("document", { querySelector: () => ({ content: register }) });
  vi.stubGlobal("localStorage", kept);
});

const given = (line: number, value: string): Edit => ({ op: "given", line, value });

test("of two edits at the same place the later one is kept, and others stay", () => {
  keepPending(7, given(3, "4"));
  keepPending(7, given(5, "9"));
  keepPending(7, given(3, "4 1/2"));
  expect(readPending(7)).toEqual([given(3, "4 1/2"), given(5, "9")]);
  expect(readPending(8)).toEqual([]);
});

test("an edit that was answered is dropped, and the last leaves nothing behind", () => {
  keepPending(7, given(3, "4"));
  dropPending(7, given(3, "4"));
  expect(readPending(7)).toEqual([]);
  expect(kept.length).toBe(0);
});

test("every edit has a place of its own", () => {
  const edits: Edit[] = [
    given(3, "4"),
    { op: "line", line: 3, text: "x" },
    { op: "insert", after: 3, text: "x" },
    { op: "append", text: "x" },
    { op: "head", key: "units", text: "mm" },
  ];
  expect(new Set(edits.map(placeOf)).size).toBe(edits.length);
});

test("a draft is kept while it differs from what is saved", () => {
  keepDraft(7, { base: 2, text: "O = datum" }, "");
  expect(readDraft(7)).toEqual({ base: 2, text: "O = datum" });
  keepDraft(7, { base: 2, text: "saved" }, "saved");
  expect(readDraft(7)).toBeNull();
});

test("what cannot be read is as if nothing had been kept", () => {
  kept.setItem("entrick.draft.ours.7", "{ half");
  kept.setItem("entrick.pending.ours.7", "{ half");
  expect(readDraft(7)).toBeNull();
  expect(readPending(7)).toEqual([]);
});

test("what is kept of one register is not seen from another, though its job has the same number", () => {
  keepDraft(7, { base: 1, text: "ours" }, "");
  register = "theirs";
  expect(readDraft(7)).toBeNull();
  register = "ours";
  expect(readDraft(7)?.text).toBe("ours");
});
