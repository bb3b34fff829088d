/** Blanks in a row, and the kit a name stands for. */
import { expect, test } from "vitest";
import type { KitOut } from "../src/api/generated";
import { blankIn } from "../src/notebook/blanks";
import { kitText } from "../src/state/kits";

test("the next blank from where one writes, or the first again", () => {
  const row = "c = circle, centre …, radius …";
  expect(blankIn(row, 0)).toEqual([19, 20]);
  expect(blankIn(row, 20)).toEqual([29, 30]);
  expect(blankIn(row, 30)).toEqual([19, 20]);
  expect(blankIn("c = circle", 0)).toBeNull();
});

test("a kit by its name, else the usual one, else none", () => {
  const kit = (name: string, usual: boolean): KitOut => ({
    name,
    text: `the ${name}`,
    usual,
    starter: false,
  });
  const kits = [kit("school", false), kit("mine", true)];
  expect(kitText(kits, "school")).toBe("the school");
  expect(kitText(kits, "")).toBe("the mine");
  expect(kitText(kits, "gone")).toBe("the mine");
  expect(kitText([kit("school", false)], "")).toBe("");
});
