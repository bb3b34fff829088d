/** Two plans that go on from one: what both say, line by line. */
import { diff3Merge } from "node-diff3";

const lines = (text: string) => text.replace(/\n$/, "").split("\n");

/** Both sets of changes in one text; null where they meet in a line. */
export function bothKept(base: string, mine: string, theirs: string): string | null {
  const regions = diff3Merge(lines(mine), lines(base), lines(theirs), { excludeFalseConflicts: true });
  if (regions.some((region) => region.conflict)) return null;
  return `${regions.flatMap((region) => region.ok ?? []).join("\n")}\n`;
}
