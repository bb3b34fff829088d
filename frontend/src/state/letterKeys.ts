/** Whether single letters are keys: whoever speaks to the desk, or whose hand trembles, can switch them off. */
import { create } from "zustand";

const KEY = "entrick.letter-keys";

export const useLetterKeys = create<{ on: boolean }>(() => ({ on: localStorage.getItem(KEY) !== "off" }));

export function switchLetterKeys(on: boolean): void {
  localStorage.setItem(KEY, on ? "on" : "off");
  useLetterKeys.setState({ on });
}

/** Whether a press is a single sign while those are switched off. */
export const isSwitchedOff = (event: KeyboardEvent): boolean =>
  event.key.length === 1 && !event.ctrlKey && !event.metaKey && !useLetterKeys.getState().on;
