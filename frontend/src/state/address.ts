/** The place one is at on the bench, in the address: the page of the notebook, the entry, the step. */
import { useEffect, useRef } from "react";
import { NavigationType, useLocation, useNavigation, useNavigationType, useSearchParams } from "react-router";
import type { Entry, Work } from "../api/client";
import { look, useLooks } from "./looks";
import { useDocument } from "./document";

/** Beside an address the bench has said itself. */
const OWN = { isOwn: true };

/** The entry of a name, or of a line where it has none. */
function lineOf(work: Work, said: string | null): number | null {
  const entries = work.entries.filter((entry) => !entry.comment) as Entry[];
  const found =
    entries.find((entry) => entry.name === said) ?? entries.find((e) => `line-${e.line}` === said);
  return found?.line ?? null;
}

function nameOf(work: Work, line: number | null): string | null {
  const entry = work.entries.find((each) => each.line === line && !each.comment) as Entry | undefined;
  return entry ? entry.name || `line-${entry.line}` : null;
}

/**
 * Keep the address and the bench together, both ways: a reload, a link that was sent and Back come to the same place.
 * Returns the page of the notebook, and how to turn to another.
 */
export function useAddress<Page extends string>(pages: readonly Page[], usual: Page) {
  const [said, say] = useSearchParams();
  const loaded = useDocument((document) => document.work !== null);
  const open = useLooks((looks) => looks.open);
  const step = useLooks((looks) => looks.step);
  const address = said.toString();
  const isOwn = (useLocation().state as { isOwn?: true } | null)?.isOwn === true;
  const type = useNavigationType();
  const isEcho = isOwn && type !== NavigationType.Pop;
  const isLeaving = useNavigation().state !== "idle";
  const begun = useRef(false);

  // What the address says is done, when it comes and when it changes. What the bench itself has said is done already: by
  // the time it is heard another key may have been pressed.
  useEffect(() => {
    const { work } = useDocument.getState();
    const { open: now, step: at } = useLooks.getState();
    if (!loaded || !work) begun.current = false;
    if (!loaded || !work || (begun.current && isEcho)) return;
    begun.current = true;
    const asked = new URLSearchParams(address);
    const line = lineOf(work, asked.get("entry"));
    const said = asked.get("step");
    const number = said ? Number(said) : NaN;
    const wanted = number >= 0 && number < work.steps.length ? number : null;
    if (line !== now || wanted !== at) look({ open: line, step: wanted });
  }, [address, loaded, isEcho]);

  // What is done is said; to another entry with a way back, to another step in its place. Whoever is on the way to
  // another page is not called back.
  useEffect(() => {
    // As it is by now: the address may just have been done.
    const { work } = useDocument.getState();
    const { open: line, step: at } = useLooks.getState();
    if (!loaded || !work || isLeaving) return;
    const entry = nameOf(work, line);
    const next = new URLSearchParams(window.location.search);
    const before = next.toString();
    const elsewhere = next.get("entry") !== entry;
    for (const [key, value] of [
      ["entry", entry],
      ["step", at === null ? null : String(at)],
    ] as const)
      if (value) next.set(key, value);
      else next.delete(key);
    if (next.toString() !== before) say(next, { replace: !elsewhere, state: OWN });
  }, [open, step, loaded, isLeaving, say]);

  const page = pages.find((each) => each.toLowerCase() === said.get("page")) ?? usual;
  const turn = (to: string) => {
    const next = new URLSearchParams(window.location.search);
    // A tab tells that it is turned to when it is pressed, and once more when it gets the focus.
    if ((next.get("page") ?? usual.toLowerCase()) === to.toLowerCase()) return;
    if (to === usual) next.delete("page");
    else next.set("page", to.toLowerCase());
    say(next, { state: OWN });
  };
  return [page, turn] as const;
}
