/** The drawing by layers: what the desk did not send again, as it is here already, is put back in its place. */
import { replaceEqualDeep } from "@tanstack/react-query";
import type { Mark, WorkOut } from "./client";

/** What one statement draws, from the datum, and the steps it takes from first to last. */
export interface Layer {
  key: string;
  marks: readonly Mark[];
  first: number;
  last: number;
}

/** A plan worked out, with the whole drawing. */
export type Work = Omit<WorkOut, "sheet_drawing"> & {
  drawn: {
    width: number;
    height: number;
    origin: readonly [number, number];
    /** Left, lower, right and upper side of the room inside the border, clear of the strip. */
    space: readonly [number, number, number, number];
    ground: readonly Mark[];
    layers: readonly Layer[];
    /** For each layer the place it takes: what stands there after an edit is drawn by the same elements. */
    places: readonly string[];
  };
};

/** Put an answer together with the layers of the one before it. */
export function assembled({ sheet_drawing, ...answer }: WorkOut, before: Work | null): Work {
  const here = new Map(before?.drawn.layers.map((layer) => [layer.key, layer]));
  const layers = sheet_drawing.layers.map(({ key, marks }): Layer => {
    const known = here.get(key);
    if (known) return known;
    const fresh = (marks ?? []) as unknown as Mark[];
    const steps = fresh.map((mark) => mark.step);
    return { key, marks: fresh, first: Math.min(...steps), last: Math.max(...steps) };
  });
  const { width, height, origin, space, ground } = sheet_drawing;
  const places = placesOf(layers);
  return {
    ...answer,
    drawn: { width, height, origin, space, ground: ground as unknown as Mark[], layers, places },
  };
}

/** The line of a layer, and which layer of that line it is. */
function placesOf(layers: readonly Layer[]): string[] {
  const seen = new Map<number, number>();
  return layers.map(({ marks }) => {
    const line = marks[0]?.line ?? 0;
    const nth = (seen.get(line) ?? 0) + 1;
    seen.set(line, nth);
    return `${line} ${nth}`;
  });
}

/** What has not changed stays the same object, so that only what has is drawn again. Of the drawing that is so already:
 * a layer that is known by its key is the layer that was here. */
export function merged(before: Work | null, after: Work): Work {
  if (!before) return after;
  const { drawn: was, ...old } = before;
  const { drawn, ...fresh } = after;
  const ground = replaceEqualDeep(was.ground, drawn.ground);
  return { ...replaceEqualDeep(old, fresh), drawn: { ...drawn, ground } };
}
