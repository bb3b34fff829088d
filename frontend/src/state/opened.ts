/** The file that was opened last and is no plan: from the register it is carried to where it is read back. */
import { create } from "zustand";

export interface Opened {
  name: string;
  text: string;
}

export const useOpened = create<{ file: Opened | null; put: (file: Opened | null) => void }>((set) => ({
  file: null,
  put: (file) => set({ file }),
}));

/** Whether the name of a file ends in one of these. */
export const endsIn = (name: string, endings: readonly string[]) =>
  endings.some((ending) => name.toLowerCase().endsWith(`.${ending}`));

/** What is in a chosen file, if it is text; a drawing of another encoding is read as well as it can be. */
export async function textOf(file: File, profiles: readonly string[]): Promise<Opened | null> {
  const bytes = await file.arrayBuffer();
  const [first, second] = new Uint8Array(bytes, 0, Math.min(2, bytes.byteLength));
  // Spreadsheets write in two bytes a letter, and say so by a mark.
  const order =
    first === 0xff && second === 0xfe ? "utf-16le" : first === 0xfe && second === 0xff ? "utf-16be" : "";
  if (order) return { name: file.name, text: new TextDecoder(order).decode(bytes) };
  try {
    return { name: file.name, text: new TextDecoder("utf-8", { fatal: true }).decode(bytes) };
  } catch {
    if (!endsIn(file.name, profiles)) return null;
    return { name: file.name, text: new TextDecoder("windows-1252").decode(bytes) };
  }
}
