/** Who works here, and everybody who could. At a desk used alone nothing of it shows. */
import { useQuery } from "@tanstack/react-query";
import {
  type HereOut,
  nobodyWorksHere,
  sayWhoWorksHere,
  type SignatureOut,
  whoWorksHere,
} from "../api/client";

const HERE = { queryKey: ["here"], queryFn: () => whoWorksHere(), staleTime: 60_000 };

/** Who works here; undefined until it is known. */
export function useHere(): HereOut | undefined {
  return useQuery(HERE).data;
}

/** Whether there are several people, and it is said whose things are. */
export const useOffice = () => {
  const here = useHere();
  return here && !here.alone ? here : undefined;
};

/** Say who works here from now on, by number or by what they are called. Every page begins anew: nothing of one person
 * is shown to another. */
export async function workAs(who: { person?: number; called?: string }, secret = "") {
  await sayWhoWorksHere({ body: { ...who, secret } });
  location.reload();
}

/** Say that nobody works here any more. */
export async function leave() {
  await nobodyWorksHere();
  location.reload();
}

const day = (at: string) =>
  new Date(at).toLocaleDateString(undefined, { day: "numeric", month: "short", year: "numeric" });

/** A signature in a few words. */
export const signedBy = (signature: SignatureOut) =>
  `${signature.signed_as} by ${signature.name}, ${day(signature.at)}`;

/** What stands in the title block of a revision: who did what, and when. */
export function inTitleBlock(revision: {
  initials: string;
  saved_at: string;
  signatures: readonly SignatureOut[];
}) {
  const of = (what: SignatureOut["signed_as"]) => {
    const found = revision.signatures.find((each) => each.signed_as === what);
    return found ? `${found.initials} ${day(found.at)}` : "";
  };
  return {
    drawn: revision.initials && `${revision.initials} ${day(revision.saved_at)}`,
    checked: of("checked"),
    approved: of("approved"),
    date: "",
  };
}
