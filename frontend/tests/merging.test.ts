/** Two plans that go on from one. */
import { expect, test } from "vitest";
import { bothKept } from "../src/state/merging";

const base =
  "units mm\nO = datum\na = circle, centre O, radius 5\nb = circle, centre O, radius 9\nlast = line in, a\n";

test("changes that do not meet are both kept", () => {
  const mine = base.replace("radius 5", "radius 6");
  const theirs = base.replace("last = line in, a", "last = line in, b");
  const both = bothKept(base, mine, theirs);
  expect(both).toBe(mine.replace("last = line in, a", "last = line in, b"));
  expect(bothKept(base, theirs, mine)).toBe(both);
});

test("changes of one line are for the drafter to settle", () => {
  expect(bothKept(base, base.replace("5", "6"), base.replace("5", "7"))).toBeNull();
});

test("a change made by both is kept once", () => {
  const same = base.replace("radius 9", "radius 8");
  expect(bothKept(base, same, same)).toBe(same);
});
