/** The kits of instruments: settings are read on the one a job names, or on the usual one. */
import { useQuery } from "@tanstack/react-query";
import { type KitOut, listKits } from "../api/client";
import { queries } from "./queries";

const KITS = { queryKey: ["kits"], queryFn: () => listKits(), staleTime: Infinity };

export const useKits = () => useQuery(KITS);

/** What is in a kit of a name, in the usual one where it is empty; empty where there is neither. */
export function kitText(kits: readonly KitOut[], name: string): string {
  const kit = kits.find((each) => each.name === name) ?? kits.find((each) => each.usual);
  return kit?.text ?? "";
}

/** The same, asked of the desk; empty where it does not answer. */
export async function kitCalled(name: string): Promise<string> {
  try {
    return kitText((await queries.ensureQueryData(KITS)).kits, name);
  } catch {
    return "";
  }
}
