/** How the job on the bench is looked at: what is open, hovered, pointed at and being picked. Nothing of it is saved. */
import { create } from "zustand";
import { useShallow } from "zustand/react/shallow";
import type { OpenedOut, RegionsOut } from "../api/client";

export type Construction = "kept" | "faded" | "away";

/** A reference being picked on the sheet: what is wanted, and who gets it. */
export interface Picking {
  wanted: string;
  take: (name: string) => void;
}

/** Regions being pointed at, mm on paper, with the boundary they make so far. */
export interface Regions {
  kind: string;
  spots: readonly (readonly [number, number])[];
  found: RegionsOut | null;
  told: string;
}

/** Where the hands of a rehearsal put a join: the join, and their places, mm on paper. */
export interface Cloud {
  at: readonly [number, number];
  places: readonly (readonly [number, number])[];
  times: number;
}

export interface Looks {
  /** Line of the statement whose card is open. */
  open: number | null;
  hover: number | null;
  /** Line of the statement whose candidates are shown. */
  ghosts: number | null;
  letter: string | null;
  step: number | null;
  construction: Construction;
  pick: Picking | null;
  spot: readonly [number, number] | null;
  cloud: Cloud | null;
  regions: Regions | null;
  /** Strokes as they come out with a wrong answer, mm on paper. */
  wrong: readonly (readonly (readonly [number, number])[])[] | null;
  /** A step opened up into its classic construction, drawn as far as the sub-step it has come to. */
  opened: { step: number; text: string; found: OpenedOut; upTo: number } | null;
  /** Line of the statement whose worksheet lies over the sheet. */
  worksheet: number | null;
  /** A kind of which a statement is to be begun, asked for on another page. */
  begin: string | null;
}

const NOTHING: Looks = {
  open: null,
  hover: null,
  ghosts: null,
  letter: null,
  step: null,
  construction: "kept",
  pick: null,
  spot: null,
  cloud: null,
  regions: null,
  wrong: null,
  opened: null,
  worksheet: null,
  begin: null,
};

export const useLooks = create<Looks>(() => NOTHING);

/** Look at something else. */
export const look = (change: Partial<Looks>) => useLooks.setState(change);

/** Another job comes on the bench: whatever was looked at of the one before is put away. */
export const lookAfresh = () => {
  const { construction, begin } = useLooks.getState();
  useLooks.setState({ ...NOTHING, construction, begin });
};

/** Some of it: whoever asks is drawn again when one of those changes, and not otherwise. */
export function useLook<K extends keyof Looks>(...keys: readonly K[]): Pick<Looks, K> {
  return useLooks(
    useShallow((looks) => Object.fromEntries(keys.map((key) => [key, looks[key]])) as Pick<Looks, K>),
  );
}
