import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useRef, useState } from "react";
import { api, kitsChanged, type KitOut } from "../api/client";
import { useBench } from "../state/bench";
import { Header } from "./Header";

interface Said {
  unit: string;
  graduation: string;
  compass: string;
  least: string;
  protractor: string | null;
  set_squares: boolean;
  template_holes: string[];
  entrick_kit: number;
}

/** The kits of instruments: what each holds, what it lacks for the job at hand, and which one is usual. */
export function KitsPage() {
  const { data, error } = useQuery({ queryKey: ["kits"], queryFn: api.kits });
  const [chosen, setChosen] = useState<string | null>(null);
  useEffect(() => {
    document.title = "Kits · Entrick";
  }, []);
  const kit =
    data?.kits.find((each) => each.name === chosen) ?? data?.kits.find((each) => each.usual) ?? data?.kits[0];
  return (
    <div className="flex h-full flex-col">
      <Header>
        <h1>Kits</h1>
      </Header>
      <main className="min-h-0 flex-1 overflow-auto p-6 max-[700px]:p-1">
        <div className="mx-auto flex max-w-5xl gap-8 bg-page px-8 py-6 max-[700px]:flex-col max-[700px]:px-3">
          {error && <p role="alert">{error.message}</p>}
          <nav aria-label="Every kit" className="w-52 shrink-0">
            <ul className="space-y-1">
              {data?.kits.map((each) => (
                <li key={each.name}>
                  <button
                    className="act w-full text-left"
                    aria-pressed={each.name === kit?.name}
                    onClick={() => setChosen(each.name)}
                  >
                    {each.name}
                    {each.usual && " · usual"}
                  </button>
                </li>
              ))}
            </ul>
            <p className="pt-3 text-sm text-pencil">
              Without a usual kit, settings are read on the school kit of the plan’s unit.
            </p>
          </nav>
          {kit && (
            <Editor key={`${kit.name} ${kit.text}`} kit={kit} units={data?.units ?? []} shown={setChosen} />
          )}
        </div>
      </main>
    </div>
  );
}

const SIZES = [
  ["graduation", "Rule, finest graduation"],
  ["compass", "Compass, largest radius"],
  ["least", "Compass, smallest radius"],
] as const;

interface EditorProps {
  kit: KitOut;
  units: readonly string[];
  shown: (name: string) => void;
}

function Editor({ kit, units, shown }: EditorProps) {
  const queries = useQueryClient();
  const [name, setName] = useState(kit.starter ? `my ${kit.name}` : kit.name);
  const [said, setSaid] = useState(() => JSON.parse(kit.text) as Said);
  const [told, setTold] = useState("");
  const file = useRef<HTMLInputElement>(null);
  const text = JSON.stringify(said, null, 1);
  const come = async () => {
    kitsChanged();
    await queries.invalidateQueries();
  };
  const keep = async (usual: boolean, of: string = text) => {
    try {
      await api.putKit(name, of, usual);
      setTold(usual ? `${name} is the usual kit now.` : `${name} is kept.`);
      shown(name);
      await come();
    } catch (problem) {
      setTold(problem instanceof Error ? problem.message : String(problem));
    }
  };
  const put = (change: Partial<Said>) => setSaid({ ...said, ...change });
  return (
    <section aria-label={`The kit ${kit.name}`} className="min-w-0 flex-1 space-y-3">
      <Field label="Name" value={name} put={setName} />
      <p className="flex flex-wrap items-baseline gap-2">
        <label htmlFor="kit-unit" className="w-56 shrink-0">
          Unit of the rule
        </label>
        <select
          id="kit-unit"
          className="field"
          value={said.unit}
          onChange={(event) => put({ unit: event.target.value })}
        >
          {units.map((unit) => (
            <option key={unit}>{unit}</option>
          ))}
        </select>
      </p>
      {SIZES.map(([key, label]) => (
        <Field
          key={key}
          label={`${label}, ${said.unit}`}
          value={said[key]}
          put={(value) => put({ [key]: value })}
        />
      ))}
      <Check
        label="Set squares, 45° and 30/60"
        on={said.set_squares}
        put={(on) => put({ set_squares: on })}
      />
      <Check
        label="Protractor"
        on={said.protractor !== null}
        put={(on) => put({ protractor: on ? "1/2" : null })}
      />
      {said.protractor !== null && (
        <Field
          label="Protractor, finest graduation, °"
          value={said.protractor}
          put={(protractor) => put({ protractor })}
        />
      )}
      <Field
        label={`Holes of the circle template, ${said.unit}`}
        value={said.template_holes.join(" ")}
        put={(holes) => put({ template_holes: holes.split(/[\s;]+/).filter(Boolean) })}
      />
      <p className="flex items-end gap-3" aria-hidden="true">
        {kit.pictures.map((picture) => (
          <img key={picture} src={picture} alt="" className="max-h-28" />
        ))}
      </p>
      <div className="flex flex-wrap gap-2">
        <button className="act" onClick={() => void keep(false)}>
          Keep
        </button>
        <button className="act act-main" onClick={() => void keep(true)}>
          Keep as the usual kit
        </button>
        <a
          className="act"
          href={`data:application/json;charset=utf-8,${encodeURIComponent(`${text}\n`)}`}
          download={`${name}.kit.json`}
        >
          To a file
        </a>
        <button className="act" onClick={() => file.current?.click()}>
          From a file…
        </button>
        {!kit.starter && (
          <button className="act" onClick={() => void api.removeKit(kit.name).then(come)}>
            Take away
          </button>
        )}
        <input
          ref={file}
          type="file"
          className="hidden"
          accept=".json,application/json"
          aria-label="A kit from disk"
          onChange={(event) => {
            const chosen = event.target.files?.[0];
            event.target.value = "";
            if (chosen) void chosen.text().then((of) => keep(false, of));
          }}
        />
      </div>
      <p role="status">{told}</p>
      <Lacks kit={text} />
    </section>
  );
}

/** What the kit lacks for the job that was on the bench last. */
function Lacks({ kit }: { kit: string }) {
  const { text, work } = useBench();
  const { data, error } = useQuery({
    queryKey: ["lacks", text, kit],
    queryFn: () => api.lacks(text, kit),
    enabled: text !== "",
    retry: false,
  });
  if (!work) return <p className="text-pencil">Open a job first: what a kit lacks for it is shown here.</p>;
  return (
    <section aria-label="What it lacks">
      <h2 className="text-lg font-semibold">For {work.title || "the job on the bench"}</h2>
      {error && <p role="alert">{error.message}</p>}
      {data?.lacks.length === 0 && <p>Nothing is lacking.</p>}
      <ul>
        {data?.lacks.map((lack) => (
          <li key={lack.told} className="pb-2">
            <strong>{lack.told}</strong>
            {lack.more > 0 && `, ${lack.more} steps more`}:
            <ul className="ml-5 list-disc text-[15px]">
              {lack.instead.map((each) => (
                <li key={each}>{each}</li>
              ))}
            </ul>
          </li>
        ))}
      </ul>
    </section>
  );
}

function Field({ label, value, put }: { label: string; value: string; put: (value: string) => void }) {
  const id = `kit-${label.toLowerCase().replace(/\W+/g, "-")}`;
  return (
    <p className="flex flex-wrap items-baseline gap-2">
      <label htmlFor={id} className="w-56 shrink-0">
        {label}
      </label>
      <input
        id={id}
        className="field min-w-32 flex-1"
        value={value}
        autoComplete="off"
        spellCheck={false}
        onChange={(event) => put(event.target.value)}
      />
    </p>
  );
}

function Check({ label, on, put }: { label: string; on: boolean; put: (on: boolean) => void }) {
  return (
    <label className="flex min-h-7 items-center gap-2">
      <input
        type="checkbox"
        className="size-4 accent-[var(--color-ink)]"
        checked={on}
        onChange={(event) => put(event.target.checked)}
      />
      {label}
    </label>
  );
}
