/** The drawing by layers, and what stays the same object from one answer to the next. */
import { expect, test } from "vitest";
import type { WorkOut } from "../src/api/generated";
import { assembled, merged } from "../src/api/layers";

const mark = (line: number, step: number) => ({ kind: "dot", x: 1, y: 2, role: "outline", line, step });

/** An answer as the desk sends it, with these layers: null where it is known to be here. */
function answer(layers: Record<string, unknown[] | null>, text = "O = datum\n"): WorkOut {
  return {
    text,
    entries: [{ line: 1, text: "O = datum" }],
    sheet_drawing: {
      width: 297,
      height: 210,
      origin: [10, 10],
      space: [10, 10, 287, 200],
      ground: [mark(0, 0)],
      layers: Object.entries(layers).map(([key, marks]) => ({ key, marks })),
    },
  } as unknown as WorkOut;
}

test("a layer that is not sent again is the one that was here", () => {
  const first = assembled(answer({ a: [mark(1, 1), mark(1, 4)], b: [mark(2, 2)] }), null);
  const second = assembled(answer({ a: null, c: [mark(2, 3)] }), first);
  expect(second.drawn.layers[0]).toBe(first.drawn.layers[0]);
  expect(second.drawn.layers.map((layer) => layer.key)).toEqual(["a", "c"]);
  expect([first.drawn.layers[0]?.first, first.drawn.layers[0]?.last]).toEqual([1, 4]);
});

test("layers of one line keep apart places", () => {
  const { drawn } = assembled(answer({ a: [mark(2, 1)], b: [mark(2, 2)], c: [mark(3, 2)] }), null);
  expect(drawn.places).toEqual(["2 1", "2 2", "3 1"]);
});

test("what has not changed stays the same object", () => {
  const first = assembled(answer({ a: [mark(1, 1)] }), null);
  const second = merged(first, assembled(answer({ a: null }, "O = datum\n# more\n"), first));
  expect(second.entries).toBe(first.entries);
  expect(second.drawn.ground).toBe(first.drawn.ground);
  expect(second.text).not.toBe(first.text);
  expect(merged(null, first)).toBe(first);
});
