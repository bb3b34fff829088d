import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { Link, useSearchParams } from "react-router";
import {
  type AmendedIn,
  amendSitting,
  type EventIoOutput as SittingEvent,
  forgetPractice,
  type LogbookOut,
  openLogbook,
  openSitting,
  practiceRecord,
  removeSitting,
  type SittingOut,
} from "../api/client";
import { useOffice } from "../state/office";
import { Bars } from "../ui/Bars";
import { Dots } from "../ui/Dots";
import { Heads } from "../ui/Heads";
import { Tabled } from "../ui/Tabled";
import { Bar } from "../views/Bar";
import { Button } from "../ui/Button";

/** What stands behind an address that is asked for of a person. */
const of = (person: number | null) => (person ? `?person=${person}` : "");

/** The logbook: sittings, and what they teach of one's own hand. */
export function Component() {
  const office = useOffice();
  const [said] = useSearchParams();
  const person = office ? Number(said.get("person")) || null : null;
  const whose = office?.people.find((each) => each.id === person);
  const { data, error } = useQuery({
    queryKey: ["logbook", person],
    queryFn: () => openLogbook({ query: { events: false, person } }),
  });
  const queries = useQueryClient();
  useEffect(() => {
    document.title = "Logbook · Entrick";
  }, []);
  const [open, setOpen] = useState<string | null>(null);
  const come = async () => {
    await queries.invalidateQueries();
  };
  const remove = async (sitting: SittingOut) => {
    await removeSitting({ path: { uid: sitting.uid }, body: { removed: !sitting.removed } });
    await come();
  };
  const drawn = data?.sittings.filter((sitting) => !sitting.removed).toReversed() ?? [];
  return (
    <div className="flex h-full flex-col">
      <Bar title="Logbook">
        <a className="act" href={`/api/logbook.csv${of(person)}`} download>
          ↓ CSV
        </a>
        <a className="act" href={`/api/logbook${of(person)}`} download="logbook.json">
          ↓ JSON
        </a>
      </Bar>
      <main id="page" tabIndex={-1} className="min-h-0 flex-1 overflow-auto p-6 max-[700px]:p-1">
        <div className="mx-auto max-w-5xl space-y-6 bg-page px-8 py-6 max-[700px]:px-3">
          {error && <p role="alert">{error.message}</p>}
          {whose && <p className="text-lg">The logbook and the practice of {whose.name}</p>}
          {!!data?.unread && (
            <p role="status">
              {data.unread} rows of the logbook cannot be read any more; all others are here.
            </p>
          )}
          {data?.sittings.length === 0 && (
            <p>
              Nothing has been drawn yet. <em>At the board</em>, on the bench of any job, goes through its
              steps and keeps what happens here.
            </p>
          )}
          {data && data.sittings.length > 0 && (
            <>
              <section>
                <h2 className="text-lg font-semibold">Sittings</h2>
                <div className="overflow-x-auto">
                  <table className="w-full text-left">
                    <thead>
                      <tr className="border-y border-ink text-sm">
                        {["Begun", "Job", "Revision", "Steps", "Minutes", "Slips", "Gap", ""].map(
                          (head, i) => (
                            <th
                              key={i}
                              scope="col"
                              className={`pr-3 font-semibold ${i === 2 || i === 3 ? "max-[700px]:hidden" : ""}`}
                            >
                              {head || <span className="sr-only">What can be done</span>}
                            </th>
                          ),
                        )}
                      </tr>
                    </thead>
                    <tbody>
                      {data.sittings.map((sitting) => (
                        <Row
                          key={sitting.uid}
                          sitting={sitting}
                          remove={() => void remove(sitting)}
                          open={open === sitting.uid}
                          toggle={() => setOpen(open === sitting.uid ? null : sitting.uid)}
                          come={come}
                        />
                      ))}
                    </tbody>
                  </table>
                </div>
                <Bars
                  labels={drawn.map((sitting) => new Date(sitting.started_at).toLocaleDateString())}
                  values={drawn.map((sitting) => sitting.minutes ?? 0)}
                  unit="minutes, by date"
                  upright
                />
              </section>
              {data.pace.length > 0 && (
                <section>
                  <h2 className="text-lg font-semibold">How long a step takes</h2>
                  <Bars
                    labels={data.pace.map((pace) => pace.tool)}
                    values={data.pace.map((pace) => pace.seconds)}
                    unit="seconds, median"
                  />
                  <Tabled
                    heads={["Instrument", "Seconds, median", "Steps it rests on"]}
                    rows={data.pace.map((pace) => [pace.tool, pace.seconds.toFixed(0), String(pace.count)])}
                  />
                </section>
              )}
              {data.values.length > 0 && (
                <section className="space-y-2">
                  <h2 className="text-lg font-semibold">Measured less computed</h2>
                  <p className="text-sm text-pencil">
                    Each dot a value measured back, the first on the left; mean and its interval in red-ochre,
                    grey the usual hand: one standard deviation either side. What is far off is a slip, and
                    counts for no mean. mm on paper, or degrees; intervals hold in 95 of 100 cases.
                  </p>
                  {data.values.map((each) => {
                    const spread = data.spreads.find((known) => known.tool === each.tool);
                    return (
                      <figure key={each.tool}>
                        <figcaption>
                          <strong>{each.tool}</strong>
                          {spread && `: ${spread.hint || "in the middle, as far as can be told"}`}
                        </figcaption>
                        <Dots
                          values={each.offs}
                          days={each.days}
                          mean={spread && { at: spread.bias, off: spread.bias_off }}
                          assumed={each.assumed}
                          unit={each.unit}
                          label={each.tool}
                        />
                      </figure>
                    );
                  })}
                  {data.spreads.length > 0 && (
                    <Tabled
                      heads={["Instrument", "Values", "Bias", "Spread", "its interval"]}
                      rows={data.spreads.map((spread) => [
                        spread.tool,
                        String(spread.count),
                        `${spread.bias.toFixed(2).replace("-", "−")} ± ${spread.bias_off.toFixed(2)}`,
                        spread.spread.toFixed(2),
                        `${spread.low.toFixed(2)} to ${spread.high.toFixed(2)}`,
                      ])}
                      figures={[1, 2, 3, 4]}
                    />
                  )}
                </section>
              )}
              {data.again.length > 0 && (
                <section>
                  <h2 className="text-lg font-semibold">The same step, before and now</h2>
                  <Tabled
                    heads={["Job", "Step", "Instrument", "First, s", "Last, s", "Times"]}
                    rows={data.again.map((each) => [
                      each.title || `job ${each.job}`,
                      String(each.step + 1),
                      each.tool,
                      each.first.toFixed(0),
                      each.last.toFixed(0),
                      String(each.times),
                    ])}
                    figures={[1, 3, 4, 5]}
                  />
                </section>
              )}
              {data.slips.length > 0 && (
                <section>
                  <h2 className="text-lg font-semibold">Slips, week by week</h2>
                  <SlipWeeks slips={data.slips} weeks={data.weeks} />
                </section>
              )}
            </>
          )}
          <Practised person={person} />
        </div>
      </main>
    </div>
  );
}

/** Which slips were made in which week. */
function SlipWeeks({ slips, weeks }: Pick<LogbookOut, "slips" | "weeks">) {
  const columns = [...new Set(weeks.map((each) => each.week))];
  const counted = (told: string, week: string) =>
    weeks.find((each) => each.told === told && each.week === week)?.count ?? 0;
  return (
    <Tabled
      heads={["Slip", ...columns, "in all"]}
      rows={slips.map((slip) => [
        slip.told,
        ...columns.map((week) => String(counted(slip.told, week) || "")),
        String(slip.count),
      ])}
      figures={[...columns.keys(), columns.length].map((i) => i + 1)}
    />
  );
}

interface RowProps {
  sitting: SittingOut;
  remove: () => void;
  open: boolean;
  toggle: () => void;
  come: () => Promise<void>;
}

function Row({ sitting, remove, open, toggle, come }: RowProps) {
  const name = sitting.title || `job ${sitting.job}`;
  return (
    <>
      <tr className={`border-b border-ruling ${sitting.removed ? "text-pencil line-through" : ""}`}>
        <td className="pr-3">
          <button className="text-left underline decoration-dotted" aria-expanded={open} onClick={toggle}>
            {new Date(sitting.started_at).toLocaleString([], { dateStyle: "medium", timeStyle: "short" })}
            <span className="sr-only">, what happened in the sitting of {name}</span>
          </button>
        </td>
        <td className="pr-3">
          <Link className="underline" to={`/jobs/${sitting.job}`}>
            {name}
          </Link>
          {sitting.rehearsed && <span className="block text-sm text-pencil">rehearsed, not drawn</span>}
          {sitting.kit && <span className="block text-sm text-pencil">with {sitting.kit}</span>}
        </td>
        <td className="pr-3 max-[700px]:hidden">{sitting.revision}</td>
        <td className="pr-3 max-[700px]:hidden">{sitting.steps}</td>
        <td className="pr-3">{Math.round(sitting.minutes ?? 0)}</td>
        <td className="pr-3">{sitting.slips}</td>
        <td className="pr-3">{sitting.gap === null ? "" : `${sitting.gap} mm`}</td>
        <td className="text-right">
          <Button onClick={remove}>
            {sitting.removed ? "Put back" : "Take out"}
            <span className="sr-only"> the sitting of {sitting.title}</span>
          </Button>
        </td>
      </tr>
      {open && (
        <tr>
          <td colSpan={8}>
            <Happened uid={sitting.uid} come={come} />
          </td>
        </tr>
      )}
    </>
  );
}

/** How events are called. */
const CALLED: Record<string, string> = {
  done: "done",
  back: "went back",
  measured: "measured",
  slip: "slip",
  note: "note",
  closed: "closed",
};

/** What happened in a sitting, event by event: each can be put right or taken out, and that undone. */
function Happened({ uid, come }: { uid: string; come: () => Promise<void> }) {
  const { data: sitting, error } = useQuery({
    queryKey: ["sitting", uid],
    queryFn: () => openSitting({ path: { uid } }),
  });
  const [at, setAt] = useState<number | null>(null);
  const [last, setLast] = useState<number | null>(null);
  const [told, setTold] = useState("");
  const amend = async (amended: AmendedIn, done: string) => {
    try {
      const found = await amendSitting({ path: { uid }, body: amended });
      setLast(found.events.at(-1)?.number ?? null);
      setTold(done);
      setAt(null);
      await come();
    } catch (problem) {
      setTold(problem instanceof Error ? problem.message : String(problem));
    }
  };
  if (!sitting) return <p role={error ? "alert" : "status"}>{error ? error.message : "A moment …"}</p>;
  const done = (sitting.standing ?? []).filter((event) => event.kind === "done");
  return (
    <div className="border-b border-ruling bg-wash p-2">
      <Bars
        labels={done.map((event) => String((event.step ?? 0) + 1))}
        values={done.map((event) => event.seconds ?? 0)}
        unit="seconds a step"
        upright
      />
      <p className="flex min-h-8 items-center gap-2" role="status">
        {told}
        {last !== null && (
          <Button
            onClick={() => void amend({ of: last, kind: "undone" }, "Undone.").then(() => setLast(null))}
          >
            Undo
          </Button>
        )}
      </p>
      <div className="overflow-x-auto">
        <table className="w-full text-left text-base">
          <Heads
            of={["", "Step", "What", "Instrument", "Seconds", "Off", "In words", ""]}
            unseen={{ 0: "Number", 7: "What can be done" }}
          />
          <tbody>
            {(sitting.standing ?? []).map((event) =>
              at === event.number ? (
                <Correction
                  key={event.number}
                  event={event}
                  put={(fresh) => void amend({ ...fresh, of: event.number, kind: "corrected" }, "Corrected.")}
                  leave={() => setAt(null)}
                />
              ) : (
                <tr key={event.number} className="border-b border-ruling">
                  <td className="pr-3 text-pencil">{event.number}</td>
                  <td className="pr-3">{(event.step ?? 0) + 1}</td>
                  <td className="pr-3">{CALLED[event.kind]}</td>
                  <td className="pr-3">{event.tool}</td>
                  <td className="pr-3">{event.kind === "done" ? event.seconds : ""}</td>
                  <td className="pr-3">
                    {event.kind === "measured" || event.kind === "closed" ? event.off : ""}
                  </td>
                  <td className="pr-3">{event.text}</td>
                  <td className="text-right whitespace-nowrap">
                    {event.kind !== "back" && (
                      <Button
                        aria-label={`Correct event ${event.number}`}
                        onClick={() => setAt(event.number)}
                      >
                        Correct
                      </Button>
                    )}{" "}
                    <Button
                      aria-label={`Take out event ${event.number}`}
                      onClick={() => void amend({ of: event.number, kind: "undone" }, "Taken out.")}
                    >
                      Take out
                    </Button>
                  </td>
                </tr>
              ),
            )}
          </tbody>
        </table>
      </div>
    </div>
  );
}

interface CorrectionProps {
  event: SittingEvent;
  put: (fresh: { seconds: number; off: number; text: string }) => void;
  leave: () => void;
}

function Correction({ event, put, leave }: CorrectionProps) {
  const [seconds, setSeconds] = useState(String(event.seconds ?? 0));
  const [off, setOff] = useState(String(event.off ?? 0));
  const [text, setText] = useState(event.text ?? "");
  const number = (typed: string) => Number(typed.replace(",", "."));
  const sound = Number.isFinite(number(off)) && number(seconds) >= 0;
  const field = (label: string, value: string, change: (value: string) => void) => (
    <input
      className="field w-full min-w-16"
      aria-label={`${label} of event ${event.number}`}
      value={value}
      autoComplete="off"
      onChange={(typed) => change(typed.target.value)}
    />
  );
  return (
    <tr className="border-b border-ruling">
      <td className="pr-3 text-pencil">{event.number}</td>
      <td className="pr-3">{(event.step ?? 0) + 1}</td>
      <td className="pr-3">{CALLED[event.kind]}</td>
      <td className="pr-3">{event.tool}</td>
      <td className="pr-3">{event.kind === "done" && field("Seconds", seconds, setSeconds)}</td>
      <td className="pr-3">
        {(event.kind === "measured" || event.kind === "closed") && field("Off", off, setOff)}
      </td>
      <td className="pr-3">{field("Words", text, setText)}</td>
      <td className="text-right whitespace-nowrap">
        <Button
          main
          disabled={!sound}
          onClick={() => put({ seconds: number(seconds), off: number(off), text })}
        >
          Keep
        </Button>{" "}
        <Button onClick={leave}>Leave it</Button>
      </td>
    </tr>
  );
}

/** What practice has shown: rules, the worst first, and the slips that were made. */
function Practised({ person }: { person: number | null }) {
  const { data } = useQuery({
    queryKey: ["practice", person],
    queryFn: () => practiceRecord({ query: { person } }),
  });
  const queries = useQueryClient();
  if (!data || data.standings.length === 0) return null;
  return (
    <section>
      <h2 className="text-lg font-semibold">Practice</h2>
      {data.rehearsed && (
        <p className="text-sm text-pencil">Made by a simulated learner: rehearsed, not answered.</p>
      )}
      <Bars
        labels={data.days.map(([day]) => day)}
        values={data.days.map(([, , share]) => Math.round(share * 100))}
        unit="% right, by date"
        upright
      />
      <Tabled
        heads={["What is tested", "Right now", "Rests on", "Due"]}
        rows={data.standings.map((each) => [
          each.told,
          `${Math.round(each.share * 100)} % (${Math.round(each.low * 100)} to ${Math.round(each.high * 100)})`,
          `${Math.round(each.weighs)} of ${each.asked} answers`,
          new Date(each.due).toLocaleDateString(),
        ])}
      />
      {data.slips.length > 0 && (
        <>
          <Bars
            labels={data.slips.map((each) => each.slip)}
            values={data.slips.map((each) => Math.round(each.share * 100))}
            unit="% of its chances now"
          />
          <Tabled
            heads={["Slip in practice", "Times", "Now"]}
            rows={data.slips.map((each) => [
              each.slip,
              String(each.times),
              each.mastered ? "has left" : `${Math.round(each.share * 100)} %`,
            ])}
          />
        </>
      )}
      {person === null && (
        <Button
          className="mt-2"
          onClick={() =>
            void forgetPractice().then(() => queries.invalidateQueries({ queryKey: ["practice"] }))
          }
        >
          Forget what was practised
        </Button>
      )}
    </section>
  );
}
