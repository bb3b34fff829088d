import { useQuery } from "@tanstack/react-query";
import { around, type JobWithPlan, openLogbook, schedules, type SittingOut, workedOut } from "../api/client";
import { kitCalled, useKits } from "../state/kits";
import { placeOf } from "../state/sitting";
import { Button } from "../ui/Button";
import { useSearchParams } from "react-router";
import { Figures } from "../ui/Figures";

/** How many acts are shown before one begins. */
const FIRST = 3;

interface Props {
  job: JobWithPlan;
  start: () => void;
  takeUp: (sitting: SittingOut) => Promise<void>;
}

/** Before a sitting begins: how it begins, how long it takes, with what, and what was left off last time. */
export function BoardStart({ job, start, takeUp }: Props) {
  const { text } = job.newest;
  const { schedule, kit } = job;
  const kits = useKits().data?.kits ?? [];
  const usual = kits.find((each) => each.usual)?.name;
  const { data } = useQuery({
    queryKey: ["board-start", job.job.id, text, schedule, kit],
    queryFn: async () => {
      const body = { text, schedule, kit: await kitCalled(kit) };
      const [work, about, counted, book] = await Promise.all([
        workedOut(body, null),
        around({ body }),
        schedules({ body }),
        openLogbook({ query: { job: job.job.id, events: true } }),
      ]);
      return { work, about, counted, book };
    },
    retry: false,
  });
  const [asked] = useSearchParams();
  const items = data ? [...data.about.ready, ...data.work.steps, ...data.about.finish] : [];
  // A step that slipped is shown with what follows it; those that make the sheet ready come before it.
  const wanted = Number(asked.get("step"));
  const from = wanted > 0 && data ? Math.min(data.about.ready.length + wanted, items.length) - 1 : 0;
  const order = data?.counted.schedules.find((each) => each.schedule === schedule);
  const last = data?.book.sittings.find((each) => !each.rehearsed && !each.removed);
  const place = last ? placeOf(last.events) : 0;
  const open = last && place > 0 && place < items.length;
  return (
    <div className="grid gap-8 min-[900px]:grid-cols-[minmax(0,1fr)_minmax(0,1fr)]">
      <div>
        <div className="flex flex-wrap gap-3">
          {open && (
            <Button main className="text-lg" onClick={() => void takeUp(last)}>
              Go on with step {place + 1} of {items.length}
            </Button>
          )}
          <Button main={!open} className="text-lg" onClick={start}>
            Begin a sitting
          </Button>
        </div>
        {last && (
          <p className="pt-2 text-base">
            Last time,{" "}
            {new Date(last.started_at).toLocaleString([], { dateStyle: "medium", timeStyle: "short" })}:{" "}
            {open ? `left off after ${place} of ${items.length} steps` : `${last.steps} steps done`}
            {last.slips > 0 && `, ${last.slips} slip${last.slips === 1 ? "" : "s"} noted`}.
          </p>
        )}
        {data && (
          <section aria-labelledby="first" className="pt-4">
            <h2 id="first" className="text-lg font-semibold">
              {items.length} steps{order && `, about ${Math.max(1, Math.round(order.minutes))} minutes`}, with{" "}
              {kit || usual || "an ordinary kit"}
            </h2>
            <ol className="pt-1">
              {items.slice(from, from + FIRST).map((step, index) => (
                <li
                  key={index}
                  className={`flex gap-3 border-b border-ruling py-1 ${from > 0 && index === 0 ? "bg-tab" : ""}`}
                >
                  <span className="w-8 text-right text-pencil">{from + index + 1}</span>
                  <span className="min-w-0 flex-1">{step.text}</span>
                  <span className="font-semibold whitespace-nowrap">
                    {step.setting && <Figures text={step.setting.reading} />}
                  </span>
                </li>
              ))}
            </ol>
          </section>
        )}
        <p className="pt-4 text-base">
          A sitting keeps what happens in the logbook. It is kept in this browser as well, and goes on when
          the desk is away.
        </p>
      </div>
      {job.job.pictured && (
        <img
          src={`/api/jobs/${job.job.id}/thumbnail.svg?r=${job.job.revision}`}
          alt={`${job.job.title}, as it will stand on the sheet`}
          className="on-paper max-h-[32rem] w-full border border-rim object-contain p-4"
        />
      )}
    </div>
  );
}
