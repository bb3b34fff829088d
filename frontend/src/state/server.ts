/** What several parts of a page ask the desk for. */
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { everyFormat, brief as readBrief, openJob, proof, vocabulary } from "../api/client";
import { useDocument } from "./document";
import { queries } from "./queries";
import { onceQuiet } from "./turns";

/** Every kind of construction, and the words of the trade. */
export const useVocabulary = () =>
  useQuery({ queryKey: ["kinds"], queryFn: () => vocabulary(), staleTime: Infinity }).data;

const FORMATS = { queryKey: ["formats"], queryFn: () => everyFormat(), staleTime: Infinity };

/** Every file a plan goes out as, and those a profile is read from. */
export const useFormats = () => useQuery(FORMATS).data;

/** How the names of files end that may be bare profiles. */
export const profileEndings = async () => (await queries.ensureQueryData(FORMATS)).profiles;

/** A job with its newest revision. */
export const useJob = (job: number) =>
  useQuery({ queryKey: ["job", job], queryFn: () => openJob({ path: { job_id: job } }), retry: false });

/** A job as it was last saved from here. */
export function useSavedJob(job: number) {
  const base = useDocument((document) => document.base);
  return useQuery({
    queryKey: ["job", job, base],
    queryFn: () => openJob({ path: { job_id: job } }),
    retry: false,
    placeholderData: keepPreviousData,
  });
}

/** A value once it has stood still for a while and no edit is under way: the inspection does not run after every
 * letter, and never beside an edit, which would have to share the desk with it. */
function useSettled<T>(value: T, milliseconds: number): T {
  const [settled, setSettled] = useState(value);
  useEffect(() => onceQuiet(() => setSettled(value), milliseconds), [value, milliseconds]);
  return settled;
}

/** How a brief is read, a moment after it was typed: its events as they were understood, or what was not. */
export function useBrief(line: number, brief: string) {
  const { text } = useDocument.getState();
  const settled = useSettled(brief, 200);
  const { data, error } = useQuery({
    queryKey: ["brief", text, line, settled],
    queryFn: ({ signal }) => readBrief({ body: { text, line, brief: settled }, signal }),
    enabled: settled.trim() !== "",
    placeholderData: keepPreviousData,
    retry: false,
    gcTime: 60_000,
  });
  const read = settled.trim() ? data : undefined;
  return { read, error, statement: settled === brief ? (read?.statement ?? "") : "" };
}

/** What the inspection finds in the plan on the bench, as it is drawn here; it follows the sheet a moment later. */
export function useProof() {
  const text = useSettled(
    useDocument((document) => document.text),
    250,
  );
  const kit = useDocument((document) => document.kitText);
  const schedule = useDocument((document) => document.work?.schedule ?? "written");
  const ready = useDocument((document) => document.work !== null);
  return useQuery({
    queryKey: ["proof", text, kit, schedule],
    queryFn: ({ signal }) => proof({ body: { text, kit, schedule }, signal }),
    enabled: ready,
    placeholderData: keepPreviousData,
    staleTime: Infinity,
    gcTime: 60_000,
  }).data;
}
