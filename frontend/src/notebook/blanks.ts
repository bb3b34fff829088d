/** A row with blanks: places where a value has still to be written. */

/** Stands in a row where a value has still to be written. */
export const BLANK = "…";

/** From where to where something is selected in the row. */
export type Selection = readonly [number, number];

/** The blank that comes next in a row, from a place on, or the first; null where none is left. */
export function blankIn(row: string, from: number): Selection | null {
  const later = row.indexOf(BLANK, from);
  const at = later >= 0 ? later : row.indexOf(BLANK);
  return at >= 0 ? [at, at + BLANK.length] : null;
}
