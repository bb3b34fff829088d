/** Edits go to the desk one at a time, and a newer one of the same field overtakes the one before. */
import { expect, test, vi } from "vitest";
import { inTurn, isQuiet, onceQuiet, overtake } from "../src/state/turns";

test("each waits for the one before it, also for one that failed", async () => {
  const order: string[] = [];
  const slow = inTurn(async () => {
    await new Promise((later) => setTimeout(later, 5));
    order.push("slow");
    throw new Error("refused");
  });
  const quick = inTurn(() => Promise.resolve(order.push("quick")));
  expect(isQuiet()).toBe(false);
  await expect(slow).rejects.toThrow("refused");
  await quick;
  expect(order).toEqual(["slow", "quick"]);
  expect(isQuiet()).toBe(true);
});

test("typing in one field overtakes itself, another field does not", () => {
  const first = overtake("given 3");
  const second = overtake("given 3");
  const other = overtake("given 4");
  expect([first.aborted, second.aborted, other.aborted]).toEqual([true, false, false]);
  overtake("");
  const alone = overtake("");
  expect(alone.aborted).toBe(false);
});

test("what shares the desk with edits waits until none is under way", async () => {
  vi.useFakeTimers();
  const done: string[] = [];
  let answer = () => undefined as void;
  const edit = inTurn(() => new Promise<void>((resolve) => (answer = resolve)));
  onceQuiet(() => done.push("inspected"), 250);
  const calledOff = onceQuiet(() => done.push("called off"), 250);
  calledOff();
  await vi.advanceTimersByTimeAsync(2000);
  expect(done).toEqual([]);
  answer();
  await edit;
  await vi.advanceTimersByTimeAsync(250);
  expect(done).toEqual(["inspected"]);
  vi.useRealTimers();
});
