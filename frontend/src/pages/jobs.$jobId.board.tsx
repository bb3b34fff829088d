import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useLayoutEffect, useRef, useState } from "react";
import { useParams } from "react-router";
import {
  around,
  inWords,
  measured,
  openLogbook,
  pairing,
  type PairingOut,
  Problem,
  renewCode,
  sendAway,
  type StepOut,
  type VerdictOut,
  workedOut,
} from "../api/client";
import { kitCalled } from "../state/kits";
import { useJob } from "../state/server";
import { Sheet } from "../sheet/Sheet";
import { look } from "../state/looks";
import { keepForLater, useWakefulScreen } from "../state/keepAwake";
import { minutesOf, orAsBefore, placeOf, type Sitting, useSitting } from "../state/sitting";
import { Figures } from "../ui/Figures";
import { BoardStart } from "../views/BoardStart";
import { Bar, JobBar } from "../views/Bar";
import { Button } from "../ui/Button";

/** How much the desk does not have yet: what happened, and what was measured and could not be compared. */
const keptHere = ({ events, sent, uncompared = [] }: Sitting) => events.length - sent + uncompared.length;

/** At the board: one step at a time, large enough to be read from where one draws. */
export function Component() {
  const job = Number(useParams().jobId);
  const { sitting, away, kept, begin, takeUp, record, setUncompared, close } = useSitting(job);
  const newest = useJob(job);
  useEffect(() => {
    document.title = `At the board · Entrick`;
  }, []);
  const changed = sitting && newest.data && newest.data.newest.number > sitting.revision;
  const kit = sitting?.kit ?? newest.data?.kit ?? "";
  const start = () => {
    if (newest.data) begin(newest.data.newest.number, newest.data.schedule, kit, newest.data.newest.text);
  };
  return (
    <div className="flex h-full flex-col">
      <Bar>
        <JobBar
          job={newest.data?.job}
          status={
            sitting &&
            (!kept
              ? "keeping…"
              : away
                ? `the desk does not answer; ${keptHere(sitting)} kept here`
                : keptHere(sitting) === 0
                  ? "all is in the logbook"
                  : "sending…")
          }
        />
      </Bar>
      {changed && (
        <p role="alert" className="flex flex-wrap items-center gap-2 bg-wash px-4 py-1">
          Revision {newest.data.newest.number} has been saved since; this sitting goes on with revision{" "}
          {sitting.revision}.<Button onClick={start}>Begin anew with {newest.data.newest.number}</Button>
        </p>
      )}
      {sitting === undefined ? (
        <p className="p-8">Opening…</p>
      ) : sitting ? (
        <AtWork
          key={sitting.uid}
          sitting={sitting}
          record={record}
          setUncompared={setUncompared}
          close={close}
        />
      ) : (
        <main id="page" tabIndex={-1} className="min-h-0 flex-1 overflow-auto bg-page p-8 text-lg tight:p-3">
          {newest.error ? (
            <p role="alert">{newest.error.message}</p>
          ) : (
            <>
              {newest.data && <BoardStart job={newest.data} start={start} takeUp={takeUp} />}
              <OtherDevices job={job} />
            </>
          )}
        </main>
      )}
    </div>
  );
}

/** How often the code and the devices at the door are looked at again. */
const LOOK = 15_000;

/** How a phone or tablet propped beside the board is brought here, and which have come. */
function OtherDevices({ job }: { job: number }) {
  const queries = useQueryClient();
  const [told, setTold] = useState("");
  const { data } = useQuery({ queryKey: ["pairing"], queryFn: () => pairing(), refetchInterval: LOOK });
  if (!data) return null;
  const after = (change: Promise<PairingOut>) =>
    void change
      .then((now) => queries.setQueryData(["pairing"], now))
      .catch((problem: unknown) => setTold(inWords(problem)));
  return (
    <section aria-labelledby="devices" className="pt-8 text-base">
      <h2 id="devices" className="text-lg font-semibold">
        On a phone or tablet beside the board
      </h2>
      {data.address ? (
        <>
          <div className="flex flex-wrap items-start gap-6 pt-2">
            <img src={data.picture} alt={`${data.address} for a camera`} className="size-44 bg-white" />
            <div className="max-w-md">
              <p>
                Point its camera at the picture, or open <strong>{data.address}</strong>, and type the code{" "}
                <strong className="text-2xl tracking-widest">{data.code}</strong>, which is good for{" "}
                {Math.max(1, Math.ceil(data.seconds / 60))} minutes yet. Then open this job, and{" "}
                <em>At the board</em> (its address ends in /jobs/{job}/board).
                {!data.secure &&
                  " Without a certificate of your own a browser keeps no page there: what is recorded is kept, but do not reload it while the desk is away."}
              </p>
              <p className="pt-2">
                <Button onClick={() => after(renewCode())}>Another code</Button>
              </p>
              {data.knocks && <p role="status">{data.knocks}</p>}
              {told && <p role="alert">{told}</p>}
            </div>
          </div>
          {data.devices.length > 0 && (
            <ul aria-label="Devices that may come in" className="pt-2">
              {data.devices.map((device) => (
                <li key={device.key} className="flex flex-wrap items-center gap-3 py-1">
                  {device.name} from {device.address}, let in at{" "}
                  {new Date(device.came_at).toLocaleTimeString([], { hour: "2-digit", minute: "2-digit" })}
                  <Button onClick={() => after(sendAway({ path: { key: device.key } }))}>
                    Send {device.name} away
                  </Button>
                </li>
              ))}
            </ul>
          )}
        </>
      ) : (
        <p>
          Start the desk with <code>entrick serve --lan</code>: it then listens on the local network too, and
          shows an address and a code here.
        </p>
      )}
    </section>
  );
}

interface Item {
  step: StepOut;
  /** Which step of the plan it is; null while the sheet is made ready or finished. */
  planned: number | null;
  ready: boolean;
}

interface WorkProps {
  sitting: Sitting;
  setUncompared: ReturnType<typeof useSitting>["setUncompared"];
  record: ReturnType<typeof useSitting>["record"];
  close: () => void;
}

/** Keys, of a keyboard, a presenter or a foot switch, that go on, and back. */
const ON = [" ", "ArrowRight", "PageDown", "Enter"];
const BACK = ["ArrowLeft", "PageUp", "Backspace"];

/** After so long at one step it pauses by itself, ms. */
const LONG = 600_000;

/** Whether a key is typed into something, or pressed on what was gone to by keys and not touched. */
function isMeantForAnother(event: KeyboardEvent, touched: boolean) {
  if (!(event.target instanceof Element)) return false;
  if (event.target.closest("input, textarea, select")) return true;
  return !touched && event.target.closest("button, a, svg, summary") !== null;
}

/** How long a step has been worked at, ms, in a page that was loaded anew; from now on where it has just come. */
function begunBefore(uid: string, at: number) {
  const key = `at-step ${uid}`;
  const [step, began] = (sessionStorage.getItem(key) ?? "").split(" ").map(Number);
  const now = Date.now();
  if (step === at && began !== undefined && began <= now) return Math.min(now - began, LONG);
  sessionStorage.setItem(key, `${at} ${now}`);
  return 0;
}

function AtWork({ sitting, record, setUncompared, close }: WorkProps) {
  const { text, schedule } = sitting;
  const found = useQuery({
    queryKey: ["board", text, schedule],
    queryFn: () =>
      orAsBefore(sitting.job, async () => {
        const kit = await kitCalled(sitting.kit);
        const work = await workedOut({ text, schedule, kit }, null);
        const query = { events: false, unit: work.unit };
        return {
          work,
          around: await around({ body: { text, schedule, kit } }),
          hints: (await openLogbook({ query }).catch(() => null))?.spreads ?? [],
        };
      }),
    retry: false,
    staleTime: Infinity,
    gcTime: Infinity,
  });
  const at = placeOf(sitting.events);
  const work = found.data?.work;
  const items: Item[] = found.data
    ? [
        ...found.data.around.ready.map((step) => ({ step, planned: null, ready: true })),
        ...found.data.work.steps.map((step) => ({ step, planned: step.number, ready: false })),
        ...found.data.around.finish.map((step) => ({ step, planned: null, ready: false })),
      ]
    : [];
  const item = items[at];
  const [lasts, setLasts] = useState<boolean | null>(null);
  useEffect(() => {
    if (!found.data || found.isStale) return;
    const { work, around } = found.data;
    const steps = [...around.ready, ...work.steps, ...around.finish];
    const pictures = steps.flatMap((step) => (step.setting ? [step.setting.picture] : []));
    void keepForLater(pictures).then(setLasts);
  }, [found.data, found.isStale]);
  const before = items.slice(0, at + 1).findLast((each) => each.planned !== null)?.planned ?? 0;
  useEffect(() => {
    look({ step: before, open: null, hover: null });
    return () => look({ step: null });
  }, [before]);
  const since = useRef(0);
  const [paused, setPaused] = useState<number | null>(null);
  useEffect(() => {
    since.current = performance.now() - begunBefore(sitting.uid, at);
  }, [sitting.uid, at]);
  useEffect(() => {
    // Nobody works ten minutes at one step: who has gone away did not say so.
    if (paused !== null) return;
    const later = setTimeout(() => setPaused(performance.now() - since.current), LONG);
    return () => clearTimeout(later);
  }, [at, paused]);
  useWakefulScreen();

  const done = () => {
    if (!item) return;
    const seconds = (paused ?? performance.now() - since.current) / 1000;
    setPaused(null);
    record({ kind: "done", step: at, tool: item.step.tool, seconds: Math.round(seconds * 10) / 10 });
  };
  const back = () => at > 0 && record({ kind: "back", step: at - 1 });
  const pause = () => {
    if (paused === null) setPaused(performance.now() - since.current);
    else {
      since.current = performance.now() - paused;
      setPaused(null);
    }
  };
  const [awake, setAwake] = useState(sitting.events.length > 0);
  const wake = () => setAwake(true);
  const handlers = useRef({ done, back, wake, awake });
  // Before it is painted: a key pressed on seeing a step is a key for that step.
  useLayoutEffect(() => {
    handlers.current = { done, back, wake, awake };
  });
  useEffect(() => {
    let touched = false;
    const touch = () => (touched = true);
    const press = (event: KeyboardEvent) => {
      if (event.key === "Tab") touched = false;
      if (isMeantForAnother(event, touched)) return;
      const { done, back, wake, awake } = handlers.current;
      const act = ON.includes(event.key) ? done : BACK.includes(event.key) ? back : null;
      if (!act) return;
      event.preventDefault();
      // What was touched last has no part in what a key does.
      if (document.activeElement instanceof HTMLElement) document.activeElement.blur();
      if (event.repeat) return;
      if (awake) act();
      else wake();
    };
    window.addEventListener("keydown", press);
    window.addEventListener("pointerdown", touch);
    return () => {
      window.removeEventListener("keydown", press);
      window.removeEventListener("pointerdown", touch);
    };
  }, []);
  const touch = useRef(0);

  if (!found.data || !work)
    return <p className="p-8">{found.error ? found.error.message : "Laying out the steps…"}</p>;
  if (!item)
    return (
      <main id="page" tabIndex={-1} className="m-6 bg-page p-6 text-2xl">
        <p className="pb-4">
          Done: {items.length} steps
          {minutesOf(sitting.events) > 0 && `, ${minutesOf(sitting.events)} minutes`}.
        </p>
        <Closed record={record} />
        <Button className="text-lg" onClick={back}>
          Back to the last step
        </Button>{" "}
        <Button main className="text-lg" disabled={sitting.sent < sitting.events.length} onClick={close}>
          Close the sitting
        </Button>
      </main>
    );
  const hint = found.data.hints.find((spread) => spread.tool === item.step.tool)?.hint;
  const mistake = found.data.around.mistakes[String(item.step.line)];
  return (
    <main
      id="page"
      tabIndex={-1}
      className="flex min-h-0 flex-1 stacked:flex-col"
      onTouchStart={(event) => (touch.current = event.touches[0]?.clientX ?? 0)}
      onTouchEnd={(event) => {
        if (event.target instanceof Element && event.target.closest("svg, input, button")) return;
        const moved = (event.changedTouches[0]?.clientX ?? touch.current) - touch.current;
        if (moved < -70) done();
        else if (moved > 70) back();
      }}
    >
      <section
        aria-label="The step at hand"
        className="flex w-[46%] flex-col overflow-auto bg-page p-4 stacked:w-full stacked:flex-1"
      >
        <p className="text-pencil">
          {at + 1} of {items.length} ·{" "}
          <span className="inline-block first-letter:uppercase">{item.step.tool}</span>
          {item.step.name && ` · ${item.step.name}`}
        </p>
        {item.step.setting && (
          <p
            className="text-[clamp(2.2rem,6vw,4.5rem)] leading-none font-semibold"
            data-testid="board-setting"
          >
            {item.step.setting.kept && <span className="block text-2xl font-normal">as it is</span>}
            <Figures text={item.step.setting.reading} />
          </p>
        )}
        {item.step.setting && item.step.setting.told !== item.step.setting.reading && (
          <p className="text-lg text-pencil">
            <Figures text={item.step.setting.told} />
          </p>
        )}
        <p
          className="py-2 text-[clamp(1.3rem,2.6vw,2rem)] leading-snug stacked:text-[clamp(1.3rem,5.2vw,2.8rem)] stacked:leading-tight"
          data-testid="board-text"
          aria-live="polite"
        >
          {item.step.text}
        </p>
        {item.step.check && (
          <p className="text-lg">
            <span className="font-semibold">Look:</span> <Figures text={item.step.check} />
          </p>
        )}
        {hint && <p className="border-l-4 border-accent pl-2 text-lg">{hint}</p>}
        {mistake && (
          <p className="border-l-4 border-[#8b8f85] pl-2">
            <span className="font-semibold">Usual mistake.</span> {mistake}
          </p>
        )}
        {item.step.setting && (
          <div className="min-h-0 flex-1 overflow-hidden py-2 max-[700px]:hidden">
            <img src={item.step.setting.picture} alt="" className="max-w-none" />
          </div>
        )}
        {at === 0 && <p className="border-l-4 border-ink pl-2 font-semibold">{found.data.around.caution}</p>}
        {at === 0 && (
          <p role="status" className="pt-1">
            {awake
              ? "Keys and foot switch are awake: the space bar or → is Done, ← goes back."
              : "The first key only wakes keys and foot switch; after it the space bar or → is Done, ← goes back."}
          </p>
        )}
        {at === 0 && lasts !== null && (
          <p className="pt-1 text-pencil">
            {lasts
              ? "Kept here for when the desk is away, also after a reload."
              : "This browser keeps what is recorded, but not the page: should the desk be away, do not reload it."}
          </p>
        )}
        {!item.step.setting && <span className="flex-1" />}
        <Remarks
          key={at}
          sitting={sitting}
          item={item}
          at={at}
          record={record}
          setUncompared={setUncompared}
        />
        <div className="flex gap-2 pt-2">
          <Button className="min-h-16! w-1/4 text-lg" onClick={back} disabled={at === 0}>
            Back
          </Button>
          <Button className="min-h-16! w-1/5 text-lg" onClick={pause} aria-pressed={paused !== null}>
            {paused === null ? "Pause" : "Go on"}
          </Button>
          <Button main className="min-h-16! flex-1 text-2xl" onClick={done}>
            Done
          </Button>
        </div>
      </section>
      <div className="flex min-h-0 min-w-0 flex-1 flex-col stacked:order-first stacked:h-[36%] stacked:flex-none">
        <Sheet work={work} near />
      </div>
    </main>
  );
}

/** How it closed: the gap measured at the last join, kept with the sitting. */
function Closed({ record }: { record: WorkProps["record"] }) {
  const [gap, setGap] = useState("");
  const [told, setTold] = useState("");
  const size = Number(gap.replace(",", "."));
  return (
    <form
      className="flex flex-wrap items-center gap-2 pb-4 text-lg"
      onSubmit={(event) => {
        event.preventDefault();
        record({ kind: "closed", off: size });
        setTold(`The last join gapes ${size} mm: noted.`);
      }}
    >
      <label htmlFor="gap">Gap at the last join, mm</label>
      <input
        id="gap"
        className="field w-24"
        inputMode="decimal"
        autoComplete="off"
        value={gap}
        onChange={(event) => setGap(event.target.value)}
      />
      <Button disabled={gap.trim() === "" || !(size >= 0 && size < 1000)}>Note it</Button>
      <span role="status">{told}</span>
    </form>
  );
}

interface RemarksProps {
  sitting: Sitting;
  setUncompared: ReturnType<typeof useSitting>["setUncompared"];
  item: Item;
  at: number;
  record: ReturnType<typeof useSitting>["record"];
}

/** What is measured back, against the computed; a slip in two touches; a note. */
function Remarks({ sitting, item, at, record, setUncompared }: RemarksProps) {
  const [value, setValue] = useState("");
  const [verdict, setVerdict] = useState<VerdictOut | null>(null);
  const [told, setTold] = useState("");
  const [note, setNote] = useState("");
  const setting = item.step.setting;
  const compare = async () => {
    setTold("");
    try {
      const kit = await kitCalled(sitting.kit);
      const { text, schedule } = sitting;
      const found = await measured({
        body: { text, schedule, step: item.step.number, ready: item.ready, value, kit },
      });
      setVerdict(found);
      record({ kind: "measured", step: at, tool: item.step.tool, off: found.off, text: value });
    } catch (problem) {
      if (problem instanceof Problem && problem.status > 0 && problem.status < 500) {
        setTold(problem.message);
        return;
      }
      const { tool, number } = item.step;
      const kept = { step: at, tool, ready: item.ready, value, number };
      setUncompared([...(sitting.uncompared ?? []), kept]);
      setTold(`${value} is kept; it is compared when the desk answers.`);
    }
  };
  const slip = (text: string) => {
    record({ kind: "slip", step: at, tool: item.step.tool, text });
    setVerdict(null);
    setTold("The slip is noted.");
  };
  return (
    <div className="space-y-1 border-t border-ruling pt-2">
      {setting && item.step.line > 0 && (
        <form
          className="flex flex-wrap items-center gap-2"
          onSubmit={(event) => {
            event.preventDefault();
            void compare();
          }}
        >
          <label htmlFor="measured">{item.step.is_across ? "Measured across" : "Measured back"}</label>
          <input
            id="measured"
            className="field w-32 text-lg"
            value={value}
            autoComplete="off"
            inputMode="text"
            onChange={(event) => setValue(event.target.value)}
          />
          <Button disabled={!value.trim()}>Compare</Button>
        </form>
      )}
      {verdict && (
        <div role="status" className="text-lg" data-testid="verdict">
          <strong>{verdict.told}</strong>
          {verdict.slips.length > 0 && <span> It looks like this; touch what it was:</span>}
          {verdict.judged === "slip" && (
            <span className="flex flex-wrap gap-1 py-1">
              {[...verdict.slips, "something else"].map((each) => (
                <Button key={each} className="text-left" onClick={() => slip(each)}>
                  {each}
                </Button>
              ))}
            </span>
          )}
        </div>
      )}
      {told && <p role="status">{told}</p>}
      <form
        className="flex flex-wrap items-center gap-2"
        onSubmit={(event) => {
          event.preventDefault();
          if (!note.trim()) return;
          record({ kind: "note", step: at, text: note.trim() });
          setNote("");
          setTold("Noted.");
        }}
      >
        <label htmlFor="note">Note</label>
        <input
          id="note"
          className="field min-w-0 flex-1"
          maxLength={500}
          value={note}
          onChange={(event) => setNote(event.target.value)}
        />
        <Button disabled={!note.trim()}>Keep</Button>
        <Button
          type="button"
          disabled={!note.trim()}
          onClick={() => {
            slip(note.trim());
            setNote("");
          }}
        >
          As a slip
        </Button>
      </form>
    </div>
  );
}
