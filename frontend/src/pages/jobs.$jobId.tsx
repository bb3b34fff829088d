import { Tabs } from "radix-ui";
import { lazy, Suspense, useEffect } from "react";
import { useParams } from "react-router";
import { type Entry, type ProofOut } from "../api/client";
import { Findings, SIGNS } from "../notebook/Findings";
import { Givens } from "../notebook/Givens";
import { Lesson } from "../notebook/Lesson";
import { OrderOfWork } from "../notebook/OrderOfWork";
import { PlanText } from "../notebook/PlanText";
import { Revisions } from "../notebook/Revisions";
import { SheetPage } from "../notebook/SheetPage";
import { Sheet } from "../sheet/Sheet";
import { StepSlider } from "../sheet/StepSlider";
import { useAddress } from "../state/address";
import {
  compare,
  edit,
  load,
  redo,
  save,
  tell,
  undo,
  useDocument,
  useSome,
  useUnsaved,
} from "../state/document";
import { isSwitchedOff } from "../state/letterKeys";
import { look, useLook, useLooks } from "../state/looks";
import { Signing } from "../office/Signing";
import { useProof, useVocabulary } from "../state/server";
import { LOW, useMedia } from "../state/useMedia";
import { Bar, JobBar } from "../views/Bar";
import { Issue } from "../views/Issue";
import { StaleSave } from "../views/StaleSave";
import { Button } from "../ui/Button";

const Worksheet = lazy(async () => ({ default: (await import("../worksheet/Worksheet")).Worksheet }));

/** In a low window the drawing is turned to as the pages of the notebook are; elsewhere it lies beside them. */
const TABS = ["Drawing", "Working", "Sheet", "Findings", "Text", "Revisions"] as const;

/** The sign of the worst that was found, and how many of it there are. */
function Badge({ proof }: { proof: ProofOut | undefined }) {
  const count = (weight: string) =>
    proof?.findings.filter((finding) => finding.weight === weight).length ?? 0;
  const worst = (["wrong", "look"] as const).find((weight) => count(weight) > 0);
  if (!worst) return null;
  const told = `${count(worst)} ${worst === "wrong" ? "wrong" : "to look at again"}`;
  return (
    <span className={`ml-1 bg-page px-1 ${worst === "wrong" ? "text-accent" : ""}`} title={told}>
      <span aria-hidden="true">
        {SIGNS[worst]}
        {count(worst)}
      </span>
      <span className="sr-only">, {told}</span>
    </span>
  );
}

/** Choose the candidate of a letter, of the card that is open or the statement that waits for it; tell whether one was. */
function chooseByLetter(key: string): boolean {
  const { work } = useDocument.getState();
  const { open } = useLooks.getState();
  const entries = (work?.entries ?? []).filter((entry) => !entry.comment) as Entry[];
  const entry =
    entries.find((each) => each.line === open && each.candidates.length > 0) ??
    entries.find((each) => each.error && each.candidates.length > 0);
  const letter = key.toUpperCase();
  if (!entry?.candidates.some((candidate) => candidate.letter === letter)) return false;
  void edit({ op: "choose", line: entry.line, letter }).then(() =>
    document.getElementById("new-line")?.focus(),
  );
  return true;
}

/** The Bench: an open notebook beside a drawing board. */
export function Component() {
  const { jobId } = useParams();
  const { job, work, past, future, base, message, elsewhere } = useSome(
    "job",
    "work",
    "past",
    "future",
    "base",
    "message",
    "elsewhere",
  );
  const { worksheet } = useLook("worksheet");
  const unsaved = useUnsaved();
  const low = useMedia(LOW);
  const { pick, regions } = useLook("pick", "regions");
  const [asked, turnTo] = useAddress(TABS, work?.trouble ? "Text" : "Working");
  // What is pointed at on the drawing is pointed at where it is seen.
  const page = low ? (pick || regions ? "Drawing" : asked) : asked === "Drawing" ? "Working" : asked;
  const vocabulary = useVocabulary();
  useEffect(() => {
    if (useDocument.getState().job?.id !== Number(jobId)) void load(Number(jobId));
  }, [jobId]);
  useEffect(() => {
    const at = page === "Working" ? "" : `${page} of `;
    document.title = work ? `${at}${work.title || "Untitled"} · Entrick` : "Entrick";
  }, [work, page]);
  useEffect(() => {
    const press = (event: KeyboardEvent) => {
      const typing = event.target instanceof Element && event.target.closest("input, textarea, select");
      const command = event.ctrlKey || event.metaKey;
      const key = event.key.toLowerCase();
      const { step } = useLooks.getState();
      const steps = useDocument.getState().work?.steps.length ?? 0;
      const stepTo = (to: number) => look({ step: to >= steps ? null : Math.max(0, to) });
      if (command && key === "s") void save();
      else if (command && key === "z" && !typing) void (event.shiftKey ? redo() : undo());
      else if (command && key === "y" && !typing) void redo();
      else if (command || typing) {
        if (event.key === "Escape") look({ pick: null, regions: null });
        return;
      } else if (isSwitchedOff(event)) {
        return;
      } else if (chooseByLetter(event.key)) {
        // A letter that stands on the sheet has been chosen.
      } else if (key === "n") document.getElementById("new-line")?.focus();
      else if (key === "[") stepTo((step ?? steps) - 1);
      else if (key === "]") stepTo((step ?? steps) + 1);
      else if (event.key === "Escape")
        look({ pick: null, step: null, regions: null, opened: null, worksheet: null });
      else return;
      event.preventDefault();
    };
    window.addEventListener("keydown", press);
    return () => window.removeEventListener("keydown", press);
  }, []);

  const proof = useProof();
  const turning = work?.entries.find((entry) => entry.line === worksheet && !entry.comment);
  const drawing = work && (
    <>
      {turning ? (
        <Suspense fallback={<p className="p-8">Opening the worksheet…</p>}>
          <Worksheet key={turning.line} entry={turning as Entry} work={work} />
        </Suspense>
      ) : (
        <>
          <Sheet key={`${work.sheet.width} ${work.sheet.height}`} work={work} />
          <StepSlider work={work} />
        </>
      )}
    </>
  );
  return (
    <div className="flex h-full flex-col">
      <Bar
        skips={[
          ["new-line", "To the next statement"],
          ["sheet", "To the sheet"],
        ]}
      >
        <JobBar
          job={work ?? undefined}
          status={work && `revision ${base}${unsaved ? ", with unsaved work" : ", saved"}`}
        >
          {work && (
            <>
              <Button onClick={() => void undo()} aria-disabled={past.length === 0} title="Ctrl+Z">
                Undo
              </Button>
              <Button onClick={() => void redo()} aria-disabled={future.length === 0} title="Ctrl+Shift+Z">
                Redo
              </Button>
              <Button onClick={() => unsaved && void save()} aria-disabled={!unsaved} title="Ctrl+S">
                Save
              </Button>
              {job && <Signing job={job.id} unsaved={unsaved} />}
              <Issue work={work} proof={proof} />
            </>
          )}
        </JobBar>
      </Bar>
      {elsewhere && (
        <p role="alert" className="flex items-center gap-3 border-l-4 border-accent bg-wash px-4 py-1">
          Revision {elsewhere.number} of this job was saved in another tab, while this one holds unsaved work.
          <Button onClick={() => compare(elsewhere)}>Compare the two</Button>
        </p>
      )}
      {/* It lies over the desk: what comes and goes moves nothing that is about to be pressed. */}
      {message && (
        <p
          role="status"
          className="absolute inset-x-0 bottom-16 z-10 mx-auto flex w-fit max-w-[90%] items-center gap-3 border border-ink bg-wash px-4 py-1 shadow-md"
        >
          {message}
          <Button onClick={() => tell("")} aria-label="Put this note away">
            ×
          </Button>
        </p>
      )}
      {work?.trouble && (
        <p role="alert" className="border-l-4 border-accent bg-wash px-4 py-1">
          Not worked out: {work.trouble}. The plan stands on the page Text, and can be changed and saved
          there.
        </p>
      )}
      {!work || !job ? (
        <p className="p-8">{message ? "" : "Opening the job…"}</p>
      ) : (
        <main id="page" tabIndex={-1} className="flex min-h-0 flex-1 stacked:flex-col">
          <Tabs.Root
            value={page}
            onValueChange={turnTo}
            orientation="vertical"
            className="flex w-[36%] max-w-[620px] min-w-[400px] flex-col low:min-h-0 low:w-full low:max-w-none low:min-w-0 low:flex-1 stacked:min-h-0 stacked:w-full stacked:max-w-none stacked:min-w-0 stacked:flex-1"
          >
            <Tabs.List
              aria-label="Pages of the notebook"
              className="flex gap-px overflow-x-auto bg-table px-3 pt-2 tight:pt-1"
            >
              {TABS.filter((tab) => low || tab !== "Drawing").map((tab) => (
                <Tabs.Trigger
                  key={tab}
                  value={tab}
                  className="min-h-8 shrink-0 bg-tab px-3 whitespace-nowrap text-ink data-[state=active]:bg-page data-[state=active]:font-semibold"
                >
                  {tab}
                  {tab === "Findings" && <Badge proof={proof} />}
                </Tabs.Trigger>
              ))}
            </Tabs.List>
            {low && (
              <Tabs.Content value="Drawing" className="flex min-h-0 flex-1 flex-col" tabIndex={-1}>
                {drawing}
              </Tabs.Content>
            )}
            <Tabs.Content value="Working" className="page min-h-0 flex-1 overflow-auto px-3" tabIndex={-1}>
              <Lesson key={job.id} work={work} job={job.id} />
              <Givens work={work} />
              <OrderOfWork key={job.id} work={work} kinds={vocabulary?.kinds ?? []} />
            </Tabs.Content>
            <Tabs.Content value="Sheet" className="page min-h-0 flex-1 overflow-auto px-3" tabIndex={-1}>
              <SheetPage work={work} />
            </Tabs.Content>
            <Tabs.Content value="Findings" className="page min-h-0 flex-1 overflow-auto px-3" tabIndex={-1}>
              <Findings proof={proof} link={`/jobs/${job.id}/proof`} />
            </Tabs.Content>
            <Tabs.Content value="Text" className="page min-h-0 flex-1 overflow-auto px-3 pb-3" tabIndex={-1}>
              <PlanText work={work} />
            </Tabs.Content>
            <Tabs.Content value="Revisions" className="page min-h-0 flex-1 overflow-auto px-3" tabIndex={-1}>
              <Revisions />
            </Tabs.Content>
          </Tabs.Root>
          {!low && (
            <div className="flex min-h-0 min-w-0 flex-1 flex-col stacked:order-first stacked:h-[52%] stacked:flex-none">
              {drawing}
            </div>
          )}
        </main>
      )}
      <StaleSave />
    </div>
  );
}
