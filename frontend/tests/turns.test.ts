/** Edits go to the desk one at a time, and a newer one of the same field overtakes the one before. */
import { expect, test } from "vitest";
import { inTurn, isQuiet, overtake } from "../src/state/turns";

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
