import { useMutation, useQuery } from "@tanstack/react-query";
import { useEffect, useRef, useState } from "react";
import { useNavigate } from "react-router";
import {
  enterJob,
  Problem,
  type ProfileIn,
  profileToTry,
  type ReadBackOut,
  readBackProfile,
  workedOut,
} from "../api/client";
import { Held } from "../compare/Held";
import { Sheet } from "../sheet/Sheet";
import { type Opened, textOf, useOpened } from "../state/opened";
import { Bar } from "../views/Bar";
import { profileEndings, useFormats } from "../state/server";
import { Button } from "../ui/Button";
import { Steps } from "../ui/Steps";
import { Check } from "../ui/Check";

type Plan = ReadBackOut["plans"][number];
type Asked = Required<Pick<ProfileIn, "units" | "layers" | "keep_centre_lines">> & { within: string };

/** How much more a file may be off where reading it took too long. */
const WIDER = 10;

/** How the desk heads its refusal of what would take too long. */
const TOO_MUCH = "More work than the desk does at once";

const AS_IT_IS: Asked = { units: "", within: "", layers: [], keep_centre_lines: false };

/** A bare profile read back: what came, what was seen in it, and the plan it may have been drawn from. */
export function Component() {
  const formats = useFormats();
  const { file, put } = useOpened();
  const [asked, setAsked] = useState(AS_IT_IS);
  const [trouble, setTrouble] = useState("");
  const picker = useRef<HTMLInputElement>(null);
  useEffect(() => {
    document.title = "Open a profile · Entrick";
  }, []);
  const open = async (chosen: File | undefined) => {
    if (!chosen) return;
    const found = await textOf(chosen, await profileEndings());
    setTrouble(found ? "" : `${chosen.name} is no profile: it is neither DXF, SVG nor CSV.`);
    if (!found) return;
    setAsked(AS_IT_IS);
    put(found);
  };
  return (
    <div
      className="flex h-full flex-col"
      onDragOver={(event) => event.preventDefault()}
      onDrop={(event) => {
        event.preventDefault();
        void open(event.dataTransfer.files[0]);
      }}
    >
      <Bar title={`A profile${file ? `: ${file.name}` : ""}`}>
        <Button onClick={() => picker.current?.click()}>{file ? "Another file…" : "Choose a file…"}</Button>
        <input
          ref={picker}
          type="file"
          className="hidden"
          accept={formats?.profiles.map((ending) => `.${ending}`).join(",")}
          aria-label="Choose a profile"
          onChange={(event) => {
            void open(event.target.files?.[0]);
            event.target.value = "";
          }}
        />
      </Bar>
      {trouble && (
        <p role="alert" className="p-5">
          {trouble}
        </p>
      )}
      {file ? (
        <Read file={file} asked={asked} ask={setAsked} />
      ) : (
        <main
          id="page"
          tabIndex={-1}
          className="min-h-0 flex-1 space-y-3 overflow-auto bg-page p-8 text-lg tight:p-3"
        >
          <p>
            A DXF, an SVG or a CSV of points, dropped here or chosen above, is read back into the plan
            somebody would have written: centres, radii, what touches what, and numbers as round as the file
            allows.
          </p>
          <p className="text-pencil">The file is read on this machine and not kept.</p>
          <Steps
            each={[
              [
                "Choose a file",
                "or drop it on the register: outlines and holes at full size, in mm or inches.",
              ],
              [
                "See what was understood",
                "numbers in a table, said in several ways; layers and units put right.",
              ],
              ["Enter it", "as a job like any other, to be drawn, proved and changed by its givens."],
            ]}
          />
          <Button
            onClick={() => void profileToTry().then(put, (problem: Error) => setTrouble(problem.message))}
          >
            Try one of the lock yard
          </Button>
        </main>
      )}
    </div>
  );
}

interface ReadProps {
  file: Opened;
  asked: Asked;
  ask: (asked: Asked) => void;
}

function Read({ file, asked, ask }: ReadProps) {
  const within = Number(asked.within.replace(",", ".")) || null;
  const wanted: ProfileIn = { ...file, ...asked, within };
  const found = useQuery({
    queryKey: ["profile", wanted],
    queryFn: ({ signal }) => readBackProfile({ body: wanted, signal }),
    retry: false,
    staleTime: Infinity,
    placeholderData: (before, query) =>
      (query?.queryKey[1] as ProfileIn | undefined)?.text === file.text ? before : undefined,
  });
  const [way, setWay] = useState("");
  const [over, setOver] = useState(false);
  const data = found.data;
  const plan = data && (data.plans.find((each) => each.way === way) ?? data.plans[0]);
  return (
    <main id="page" tabIndex={-1} className="flex min-h-0 flex-1 stacked:flex-col">
      <section
        aria-label="What was read"
        className="flex w-[38%] flex-col gap-3 overflow-auto bg-page p-5 stacked:max-h-[60%] stacked:w-full"
      >
        <p role="status" className={found.isFetching ? "text-pencil" : "sr-only"}>
          {found.isFetching ? <Waiting size={file.text.length} /> : "read"}
        </p>
        {found.error && (
          <div role="alert" className="space-y-2">
            <p>{found.error.message}</p>
            {found.error instanceof Problem && found.error.title === TOO_MUCH && (
              <Button onClick={() => ask({ ...asked, within: String(WIDER * (within ?? 0.001)) })}>
                Let it be off by {WIDER * (within ?? 0.001)}
              </Button>
            )}
          </div>
        )}
        {data && <Outlines data={data} />}
        {data?.why && (
          <div role="alert" className="space-y-2">
            <p>{data.why}</p>
            {data.wider > 0 && (
              <Button onClick={() => ask({ ...asked, within: String(Number(data.wider.toPrecision(3))) })}>
                Let it be off by {Number(data.wider.toPrecision(3))}
              </Button>
            )}
          </div>
        )}
        <Settings
          key={asked.within}
          asked={asked}
          ask={ask}
          layers={data?.layers ?? []}
          centreLines={data?.centre_lines ?? 0}
          unit={data?.unit ?? ""}
        />
        {data && plan && (
          <>
            <Seen plan={plan} />
            {data.plans.length > 1 && <Others plans={data.plans} chosen={plan} choose={setWay} />}
            <Enter plan={plan} name={file.name} />
            <Check label="plan and file over each other" on={over} put={setOver} />
            <label className="block">
              <span className="text-sm text-pencil">The plan</span>
              <textarea
                className="field h-56 w-full text-sm"
                aria-label="The plan that was read back"
                readOnly
                value={plan.text}
              />
            </label>
          </>
        )}
      </section>
      <div className="flex min-h-0 min-w-0 flex-1 flex-col">
        {plan &&
          (over ? (
            <Held asked={{ text: plan.text, made: file, within: within ?? 0.001 }} />
          ) : (
            <Laid text={plan.text} />
          ))}
      </div>
    </main>
  );
}

/** How long it has been going on: a large drawing takes its time. */
function Waiting({ size }: { size: number }) {
  const [seconds, setSeconds] = useState(0);
  useEffect(() => {
    const tick = setInterval(() => setSeconds((before) => before + 1), 1000);
    return () => clearInterval(tick);
  }, []);
  return (
    <>
      Reading {Math.ceil(size / 1024)} kB{seconds > 0 && `, ${seconds} s`}…
    </>
  );
}

/** The outlines as the file has them. */
function Outlines({ data }: { data: ReadBackOut }) {
  const [x0, y0, x1, y1] = data.box;
  const room = 0.04 * Math.max(x1 - x0, y1 - y0);
  const size = (x1 - x0).toFixed(2).replace(/\.?0+$/, "");
  const high = (y1 - y0).toFixed(2).replace(/\.?0+$/, "");
  return (
    <figure>
      <svg
        className="h-40 w-full"
        role="img"
        aria-label={`The profile as it came: ${data.outlines} outlines`}
        viewBox={`${x0 - room} ${y0 - room} ${x1 - x0 + 2 * room} ${y1 - y0 + 2 * room}`}
        fill="none"
      >
        {data.paths.map((path, i) => (
          <path
            key={i}
            d={path}
            stroke="var(--color-ink)"
            strokeWidth={1.25}
            vectorEffect="non-scaling-stroke"
          />
        ))}
        {data.ends.map(([x, y], i) => (
          <circle
            key={i}
            cx={x}
            cy={y}
            r={room / 3}
            stroke="var(--color-accent)"
            strokeWidth={2}
            vectorEffect="non-scaling-stroke"
          />
        ))}
      </svg>
      <figcaption className="text-sm text-pencil">
        As it came: {data.outlines} {data.outlines === 1 ? "outline" : "outlines"}, {size} by {high} over all
        {data.ends.length > 0 && `; ${data.ends.length} loose ends are ringed`}
      </figcaption>
    </figure>
  );
}

interface SettingsProps {
  asked: Asked;
  ask: (asked: Asked) => void;
  layers: readonly string[];
  centreLines: number;
  unit: string;
}

function Settings({ asked, ask, layers, centreLines, unit }: SettingsProps) {
  const [within, setWithin] = useState(asked.within);
  const put = () => within !== asked.within && ask({ ...asked, within });
  const chosen = (layer: string) => asked.layers.includes(layer);
  return (
    <form
      className="space-y-2"
      onSubmit={(event) => {
        event.preventDefault();
        put();
      }}
    >
      <label className="flex items-baseline gap-2">
        <span className="w-36">Units</span>
        <select
          className="field"
          value={asked.units}
          onChange={(event) => ask({ ...asked, units: event.target.value as Asked["units"] })}
        >
          <option value="">as the file says, or what is rounder</option>
          <option value="mm">mm</option>
          <option value="in">in</option>
        </select>
      </label>
      <label className="flex items-baseline gap-2">
        <span className="w-36">May be off by</span>
        <input
          className="field w-24"
          inputMode="decimal"
          autoComplete="off"
          placeholder="0.001 mm"
          value={within}
          onChange={(event) => setWithin(event.target.value)}
          onBlur={put}
        />
        <span>{unit}</span>
      </label>
      {centreLines > 0 && (
        <Check
          label={centreLines === 1 ? "the centre line is cut" : `the ${centreLines} centre lines are cut`}
          on={asked.keep_centre_lines}
          put={(keep_centre_lines) => ask({ ...asked, keep_centre_lines })}
        />
      )}
      {layers.length > 1 && (
        <fieldset className="flex flex-wrap gap-x-4">
          <legend className="text-sm text-pencil">
            Layers{asked.layers.length === 0 && " (what is lined in, or all)"}
          </legend>
          {layers.map((layer) => (
            <Check
              key={layer}
              label={layer}
              on={chosen(layer)}
              put={(on) =>
                ask({
                  ...asked,
                  layers: on ? [...asked.layers, layer] : asked.layers.filter((each) => each !== layer),
                })
              }
            />
          ))}
        </fieldset>
      )}
    </form>
  );
}

function Seen({ plan }: { plan: Plan }) {
  return (
    <div className="space-y-2">
      <p className="text-lg font-semibold">
        {plan.numbers} {plan.numbers === 1 ? "number" : "numbers"}, {plan.comes}
      </p>
      <Rows title="Seen in it" rows={plan.seen} />
      <Rows title="Mended, left out, or assumed" rows={[...plan.told, ...plan.assumed]} />
    </div>
  );
}

function Rows({ title, rows }: { title: string; rows: readonly string[] }) {
  if (rows.length === 0) return null;
  return (
    <section aria-label={title}>
      <h2 className="text-sm text-pencil">{title}</h2>
      <ul className="list-disc pl-5">
        {rows.slice(0, 40).map((row) => (
          <li key={row}>{row}</li>
        ))}
        {rows.length > 40 && <li>and {rows.length - 40} more</li>}
      </ul>
    </section>
  );
}

function Others({
  plans,
  chosen,
  choose,
}: {
  plans: readonly Plan[];
  chosen: Plan;
  choose: (way: string) => void;
}) {
  return (
    <fieldset>
      <legend className="text-sm text-pencil">How it may have been given</legend>
      {plans.map((plan) => (
        <label key={plan.way} className="flex items-center gap-2">
          <input
            type="radio"
            name="way"
            className="size-4 accent-[var(--color-ink)]"
            checked={plan.way === chosen.way}
            onChange={() => choose(plan.way)}
          />
          {plan.called}, {plan.numbers} numbers
        </label>
      ))}
    </fieldset>
  );
}

function Enter({ plan, name }: { plan: Plan; name: string }) {
  const go = useNavigate();
  const enter = useMutation({
    mutationFn: () => {
      const told = [`read back from ${name} by ${plan.numbers} numbers`, ...plan.told].join("; ");
      return enterJob({ body: { text: plan.text, note: told.slice(0, 200) } });
    },
    onSuccess: (job) => go(`/jobs/${job.id}`),
  });
  return (
    <div>
      <Button main disabled={enter.isPending} onClick={() => enter.mutate()}>
        Enter it in the register
      </Button>
      {enter.error && <p role="alert">{enter.error.message}</p>}
    </div>
  );
}

/** The plan, laid out on its sheet. */
function Laid({ text }: { text: string }) {
  const work = useQuery({
    queryKey: ["read back", text],
    queryFn: () => workedOut({ text }, null),
    staleTime: Infinity,
    placeholderData: (before) => before,
  });
  return work.data ? (
    <Sheet key={`${work.data.sheet.width} ${work.data.sheet.height}`} work={work.data} />
  ) : null;
}
