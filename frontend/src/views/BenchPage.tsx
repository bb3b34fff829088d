import { useQuery } from "@tanstack/react-query";
import { Tabs } from "radix-ui";
import { lazy, Suspense, useEffect, useState } from "react";
import { Link, useParams } from "react-router";
import { api, type Entry } from "../api/client";
import { Findings } from "../notebook/Findings";
import { Givens } from "../notebook/Givens";
import { OrderOfWork } from "../notebook/OrderOfWork";
import { PlanText } from "../notebook/PlanText";
import { Revisions } from "../notebook/Revisions";
import { SheetPage } from "../notebook/SheetPage";
import { Sheet } from "../sheet/Sheet";
import { StepSlider } from "../sheet/StepSlider";
import { useBench, useProof, useUnsaved } from "../state/bench";
import { Header } from "./Header";
import { Issue } from "./Issue";
import { Keys } from "./Keys";
import { StaleSave } from "./StaleSave";

const Worksheet = lazy(async () => ({ default: (await import("../worksheet/Worksheet")).Worksheet }));

const TABS = ["Working", "Sheet", "Findings", "Text", "Revisions"] as const;

/** The Bench: an open notebook beside a drawing board. */
export function BenchPage() {
  const { jobId } = useParams();
  const { job, work, past, future, base, message, worksheet, load, undo, redo, save, set } = useBench();
  const unsaved = useUnsaved();
  const [help, setHelp] = useState(false);
  const { data } = useQuery({ queryKey: ["kinds"], queryFn: api.kinds, staleTime: Infinity });
  useEffect(() => {
    if (useBench.getState().job?.id !== Number(jobId)) void load(Number(jobId));
  }, [jobId, load]);
  useEffect(() => {
    document.title = work ? `${work.title || "Untitled"} · Entrick` : "Entrick";
  }, [work]);
  useEffect(() => {
    const press = (event: KeyboardEvent) => {
      const typing = event.target instanceof Element && event.target.closest("input, textarea, select");
      const command = event.ctrlKey || event.metaKey;
      const key = event.key.toLowerCase();
      const bench = useBench.getState();
      const steps = bench.work?.steps.length ?? 0;
      const stepTo = (to: number) => set({ step: to >= steps ? null : Math.max(0, to) });
      if (command && key === "s") void save();
      else if (command && key === "z" && !typing) void (event.shiftKey ? redo() : undo());
      else if (command && key === "y" && !typing) void redo();
      else if (command || typing) {
        if (event.key === "Escape") set({ pick: null, regions: null });
        return;
      } else if (key === "n") document.getElementById("new-line")?.focus();
      else if (key === "[") stepTo((bench.step ?? steps) - 1);
      else if (key === "]") stepTo((bench.step ?? steps) + 1);
      else if (key === "?") setHelp(true);
      else if (event.key === "Escape")
        set({ pick: null, step: null, regions: null, opened: null, worksheet: null });
      else return;
      event.preventDefault();
    };
    window.addEventListener("keydown", press);
    return () => window.removeEventListener("keydown", press);
  }, [save, undo, redo, set]);

  const proof = useProof();
  const turning = work?.entries.find((entry) => entry.line === worksheet && !entry.comment);
  const wrong = proof?.findings.filter((f) => f.weight === "wrong" || f.weight === "look").length ?? 0;
  return (
    <div className="flex h-full flex-col">
      <Header>
        {work && (
          <>
            <h1 className="truncate">
              <span className="font-semibold">{work.drawing}</span> {work.title || "Untitled"}
            </h1>
            <span className="text-sm whitespace-nowrap" role="status">
              revision {base}
              {unsaved ? ", with unsaved work" : ", saved"}
            </span>
            <span className="flex-1" />
            <button className="act" onClick={() => void undo()} disabled={past.length === 0} title="Ctrl+Z">
              Undo
            </button>
            <button
              className="act"
              onClick={() => void redo()}
              disabled={future.length === 0}
              title="Ctrl+Shift+Z"
            >
              Redo
            </button>
            <button className="act" onClick={() => void save()} disabled={!unsaved} title="Ctrl+S">
              Save
            </button>
            <Link className="act" to={`/jobs/${jobId}/proof`}>
              Proof
            </Link>
            <Issue work={work} proof={proof} />
            <button className="act" onClick={() => setHelp(true)} aria-label="Keys" title="Keys  ?">
              ?
            </button>
          </>
        )}
      </Header>
      {message && (
        <p role="status" className="flex items-center justify-between bg-wash px-4 py-1">
          {message}
          <button className="act" onClick={() => set({ message: "" })} aria-label="Put this note away">
            ×
          </button>
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
        <main className="flex min-h-0 flex-1 max-[900px]:flex-col max-[900px]:overflow-auto">
          <Tabs.Root
            defaultValue={work.trouble ? "Text" : "Working"}
            orientation="vertical"
            className="flex w-[36%] max-w-[620px] min-w-[400px] flex-col max-[900px]:w-full max-[900px]:max-w-none"
          >
            <Tabs.List aria-label="Pages of the notebook" className="flex gap-px bg-table px-3 pt-2">
              {TABS.map((tab) => (
                <Tabs.Trigger
                  key={tab}
                  value={tab}
                  className="min-h-8 bg-[#c9cdc3] px-3 text-ink data-[state=active]:bg-page data-[state=active]:font-semibold"
                >
                  {tab}
                  {tab === "Findings" && wrong > 0 && <span className="text-accent"> ✗{wrong}</span>}
                </Tabs.Trigger>
              ))}
            </Tabs.List>
            <Tabs.Content value="Working" className="page min-h-0 flex-1 overflow-auto px-3" tabIndex={-1}>
              <Givens work={work} />
              <OrderOfWork key={job.id} work={work} kinds={data?.kinds ?? []} />
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
          <div className="flex min-h-0 min-w-0 flex-1 flex-col max-[900px]:min-h-[70vh]">
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
          </div>
        </main>
      )}
      <Keys open={help} onOpenChange={setHelp} />
      <StaleSave />
    </div>
  );
}
