import { useMutation, useQuery } from "@tanstack/react-query";
import { useEffect, useRef, useState } from "react";
import { Link, useParams } from "react-router";
import {
  addEvents,
  beginSitting,
  inWords,
  type JobWithPlan,
  lookAtMeasured,
  lookAtSheet,
  type LookedOut,
  type PlacesOut,
  type SampleIn,
  sampleSheet,
} from "../api/client";
import { base64Of, bytesOf, PICTURES } from "../state/pictures";
import { kitCalled } from "../state/kits";
import { useJob } from "../state/server";
import { Button } from "../ui/Button";
import { Heads } from "../ui/Heads";
import { Tabled } from "../ui/Tabled";
import { Bar, JobBar } from "../views/Bar";
import { DrawnSheet } from "../worksheet/DrawnSheet";

/** A finished sheet looked at: its picture straightened, the plan over it, and what is off. */
export function Component() {
  const id = Number(useParams().jobId);
  const found = useJob(id);
  useEffect(() => {
    document.title = "On the sheet · Entrick";
  }, []);
  const job = found.data;
  return (
    <div className="flex h-full flex-col">
      <Bar>
        <JobBar job={job?.job} />
      </Bar>
      {job ? <Looking job={job} /> : <p className="p-8">{found.error?.message ?? "Opening the job…"}</p>}
    </div>
  );
}

const SAMPLES: { which: NonNullable<SampleIn["which"]>; said: string }[] = [
  { which: "sound", said: "a sound one" },
  { which: "slipped", said: "one with a slip" },
  { which: "photographed", said: "one photographed askew" },
];

interface Shown {
  name: string;
  looked: LookedOut;
}

function Looking({ job }: { job: JobWithPlan }) {
  const { text } = job.newest;
  const kit = useQuery({
    queryKey: ["kit to look with", job.kit],
    queryFn: () => kitCalled(job.kit),
    staleTime: Infinity,
  });
  const [tolerance, setTolerance] = useState("0.5");
  const [lit, setLit] = useState<string | null>(null);
  const picker = useRef<HTMLInputElement>(null);
  const look = useMutation({
    mutationFn: async (asked: { name: string; picture: () => Promise<string> }): Promise<Shown> => ({
      name: asked.name,
      looked: await lookAtSheet({
        body: {
          text,
          kit: kit.data ?? "",
          schedule: job.schedule,
          picture: await asked.picture(),
          tolerance: Number(tolerance.replace(",", ".")) || 0.5,
        },
      }),
    }),
  });
  const measured = useMutation({
    mutationFn: async (file: File) =>
      lookAtMeasured({
        body: { text, kit: kit.data ?? "", schedule: job.schedule, table: await file.text() },
      }),
  });
  const choose = (file: File | undefined) => {
    measured.reset();
    if (file?.name.toLowerCase().endsWith(".csv")) {
      look.reset();
      measured.mutate(file);
    } else if (file) look.mutate({ name: file.name, picture: async () => base64Of(await bytesOf(file)) });
  };
  const sample = (which: NonNullable<SampleIn["which"]>) => {
    measured.reset();
    look.mutate({
      name: `the yard's, ${which}`,
      picture: async () => (await sampleSheet({ body: { text, kit: kit.data ?? "", which } })).picture,
    });
  };
  const shown = look.data;
  const trouble = look.error ?? measured.error;
  return (
    <main
      id="page"
      tabIndex={-1}
      className="flex min-h-0 flex-1 stacked:flex-col"
      onDragOver={(event) => event.preventDefault()}
      onDrop={(event) => {
        event.preventDefault();
        choose(event.dataTransfer.files[0]);
      }}
    >
      <section
        aria-label="What is found"
        className="page plain w-[40%] min-w-[400px] space-y-3 overflow-auto px-4 py-3 stacked:max-h-[55%] stacked:w-full stacked:min-w-0"
      >
        <div className="flex flex-wrap items-baseline gap-2">
          <Button main disabled={look.isPending} onClick={() => picker.current?.click()}>
            {shown ? "Another picture…" : "Choose a picture…"}
          </Button>
          <input
            ref={picker}
            type="file"
            className="hidden"
            accept={`${PICTURES},.csv`}
            aria-label="Choose a picture of the sheet"
            onChange={(event) => {
              choose(event.target.files?.[0]);
              event.target.value = "";
            }}
          />
          <label className="flex items-baseline gap-1.5">
            within
            <input
              className="field w-14"
              inputMode="decimal"
              value={tolerance}
              onChange={(event) => setTolerance(event.target.value)}
            />
            mm on paper
          </label>
        </div>
        <p className="flex flex-wrap items-baseline gap-x-2">
          Or try:
          {SAMPLES.map(({ which, said }) => (
            <button
              key={which}
              type="button"
              className="underline disabled:opacity-60"
              disabled={look.isPending}
              onClick={() => sample(which)}
            >
              {said}
            </button>
          ))}
        </p>
        <p role="status" aria-live="polite">
          {(look.isPending || measured.isPending) && "Looking at the sheet…"}
        </p>
        {trouble && (
          <p role="alert" className="border-l-4 border-accent pl-2">
            {inWords(trouble)}
          </p>
        )}
        {measured.data && <FromPlaces job={job} found={measured.data} />}
        {!shown && !measured.data && !look.isPending && !trouble && (
          <p className="text-pencil">
            Scan the finished sheet at 150 to 600 dpi, or photograph it with all four sides of its border in
            view, and the desk measures every piece of it against this plan. The picture is looked at on this
            machine and not kept. A table of measured places does as well, <code>x,y,piece</code> in mm from
            the lower left corner of the sheet, or of sizes, <code>piece,size</code>.
          </p>
        )}
        {shown && !look.isPending && <Found job={job} shown={shown} lit={lit} light={setLit} />}
      </section>
      <div className="flex min-h-0 min-w-0 flex-1 flex-col">
        {shown && !look.isPending && <DrawnSheet looked={shown.looked} lit={lit} light={setLit} />}
      </div>
    </main>
  );
}

/** What a table of measured places or sizes tells. */
function FromPlaces({ job, found }: { job: JobWithPlan; found: PlacesOut }) {
  return (
    <div className="space-y-2">
      <p className="text-lg font-semibold" role="status" data-testid="measured">
        {found.sentence}
      </p>
      {found.slips.slice(0, 3).map((slip) => (
        <p key={`${slip.step} ${slip.key}`}>
          <Link className="underline" to={`/jobs/${job.job.id}/board?step=${slip.step}`}>
            Step {slip.step}
          </Link>
          : {slip.act}
        </p>
      ))}
      <Tabled
        label="Pieces that were measured"
        heads={["piece", "off at most, mm on paper"]}
        rows={found.off.map((each) => [each.name, each.off.toFixed(2)])}
      />
    </div>
  );
}

const SIGNS = { within: "✓", unsure: "?", off: "✗", missing: "–" } as const;
const WORDS = {
  within: "within",
  unsure: "beyond it, but not for sure",
  off: "off",
  missing: "not there",
} as const;

interface FoundProps {
  job: JobWithPlan;
  shown: Shown;
  lit: string | null;
  light: (name: string | null) => void;
}

/** The radii of one's own sheet as values measured back: what the hand is taught by, many at a time. */
async function teach(job: JobWithPlan, looked: LookedOut): Promise<number> {
  const uid = crypto.randomUUID();
  const round = looked.rows.filter((row) => row.size && row.step > 0 && row.tool.includes("compass"));
  const events = round.map((row, index) => ({
    number: index + 1,
    kind: "measured" as const,
    step: row.step,
    tool: row.tool,
    off: row.size!.paper,
    text: `${row.name}, from the picture`,
  }));
  const { schedule, kit } = job;
  await beginSitting({ body: { uid, job: job.job.id, revision: job.newest.number, schedule, kit } });
  await addEvents({ path: { uid }, body: { events } });
  return events.length;
}

function Found({ job, shown: { name, looked }, lit, light }: FoundProps) {
  const { marks } = looked;
  const taught = useMutation({ mutationFn: () => teach(job, looked) });
  const parts = ["accuracy", "tangency", "weight", "completeness", "centring"] as const;
  return (
    <>
      <div role="status" data-testid="looked">
        <p className="text-pencil">{name}</p>
        <p className="text-lg font-semibold">{looked.sentence}</p>
      </div>
      {[...looked.slips.slice(0, 3), ...looked.second.slice(0, 1)].map((slip) => (
        <p key={`${slip.step} ${slip.key}`}>
          <Link className="underline" to={`/jobs/${job.job.id}/board?step=${slip.step}`}>
            Step {slip.step}
          </Link>
          : {slip.act}
        </p>
      ))}
      {looked.notes.length > 0 && (
        <ul className="list-disc pl-5">
          {looked.notes.map((note) => (
            <li key={note}>{note}</li>
          ))}
        </ul>
      )}
      <table className="w-full text-base">
        <caption className="sr-only">Every piece as given and as drawn</caption>
        <Heads of={["Piece", "Given", "Drawn", "By, mm", "Place, mm", "Judged"]} figures={[3, 4]} />
        <tbody>
          {looked.rows.map((row, index) => (
            <tr
              key={index}
              className={`border-b border-ruling ${lit === row.name ? "bg-tab" : ""}`}
              onMouseEnter={() => light(row.name)}
              onMouseLeave={() => light(null)}
            >
              <th scope="row" className="py-0.5 pr-3 text-left font-normal">
                {row.name}
              </th>
              <td className="pr-3 whitespace-nowrap">{row.size?.what ?? ""}</td>
              <td className="pr-3 whitespace-nowrap">
                {row.size && `${figure(row.size.drawn, looked.unit)} ± ${figure(row.size.u, looked.unit)}`}
              </td>
              <td className="pr-3 text-right">{row.size && signed(row.size.paper)}</td>
              <td className="pr-3 text-right whitespace-nowrap">
                {row.judged !== "missing" && `${row.place.toFixed(2)} ± ${row.place_u.toFixed(2)}`}
              </td>
              <td>
                <span aria-hidden="true">{SIGNS[row.judged]} </span>
                {row.told || WORDS[row.judged]}
                {row.carried && ", as the slip has it"}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <p>
        <span className="font-semibold">
          {marks.whole} of {marks.most} marks
        </span>{" "}
        <span className="text-pencil">
          ({parts.map((part) => `${part} ${marks[part].toFixed(1)}`).join(", ")}; what is right given a slip
          counts)
        </span>
      </p>
      {looked.rows.some((row) => row.size && row.step > 0) && (
        <p className="flex flex-wrap items-baseline gap-2">
          <Button disabled={taught.isPending || taught.isSuccess} onClick={() => taught.mutate()}>
            My own sheet: keep its radii in the logbook
          </Button>
          <span role="status" data-testid="taught">
            {taught.isSuccess && `${taught.data} measured values kept`}
            {taught.error && inWords(taught.error)}
          </span>
        </p>
      )}
      <p className="text-pencil">
        How far the line of a round is off, and a piece from its place, are mm on paper. ± is what the
        measuring may be off, 95 times in 100; nothing within it is called wrong. Judge by the sheet itself
        before anything is made from it.
      </p>
    </>
  );
}

const signed = (off: number) => `${off < 0 ? "−" : "+"}${Math.abs(off).toFixed(2)}`;

const figure = (size: number, unit: string) => size.toFixed(unit === "in" ? 3 : 2);
