import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useRef, useState } from "react";
import { type KitItemOut, kitLacks, type KitOut, putKit, removeKit } from "../api/client";
import { useKits } from "../state/kits";
import { kitsChanged, takeKit, useSome } from "../state/document";
import { Bar } from "../views/Bar";
import { Button } from "../ui/Button";
import { Check } from "../ui/Check";

/** A kit as its file says it: what each item is, by its key. */
type Value = string | boolean | null | string[];
type Said = Record<string, Value>;

/** The kits of instruments: what each holds, what it lacks for the job at hand, and which one is usual. */
export function Component() {
  const { data, error } = useKits();
  const [chosen, setChosen] = useState<string | null>(null);
  useEffect(() => {
    document.title = "Kits · Entrick";
  }, []);
  const kit =
    data?.kits.find((each) => each.name === chosen) ?? data?.kits.find((each) => each.usual) ?? data?.kits[0];
  return (
    <div className="flex h-full flex-col">
      <Bar title="Kits" />
      <main id="page" tabIndex={-1} className="min-h-0 flex-1 overflow-auto p-6 max-[700px]:p-1">
        <div className="mx-auto flex max-w-6xl gap-8 bg-page px-8 py-6 max-[700px]:flex-col max-[700px]:px-3">
          {error && <p role="alert">{error.message}</p>}
          <nav aria-label="Every kit" className="w-52 shrink-0">
            <ul className="space-y-1">
              {data?.kits.map((each) => (
                <li key={each.name}>
                  <Button
                    className="w-full text-left"
                    aria-pressed={each.name === kit?.name}
                    onClick={() => setChosen(each.name)}
                  >
                    {each.name}
                    {each.usual && " · usual"}
                  </Button>
                </li>
              ))}
            </ul>
            <p className="pt-3 text-sm text-pencil">
              Without a usual kit, settings are read on the school kit of the plan’s unit.
            </p>
            <OfJob names={data?.kits.map((each) => each.name) ?? []} />
          </nav>
          {kit && (
            <Editor key={`${kit.name} ${kit.text}`} kit={kit} items={data?.items ?? []} shown={setChosen} />
          )}
        </div>
      </main>
    </div>
  );
}

/** Which kit the job on the bench is drawn with. */
function OfJob({ names }: { names: readonly string[] }) {
  const { job, kit } = useSome("job", "kit");
  if (!job) return null;
  return (
    <p className="pt-4">
      <label htmlFor="kit-of-job">{job.title || "The job on the bench"} is drawn with</label>
      <select
        id="kit-of-job"
        className="field w-full"
        value={kit}
        onChange={(event) => void takeKit(event.target.value)}
      >
        <option value="">the usual kit</option>
        {names.map((name) => (
          <option key={name}>{name}</option>
        ))}
      </select>
    </p>
  );
}

interface EditorProps {
  kit: KitOut;
  items: readonly KitItemOut[];
  shown: (name: string) => void;
}

function Editor({ kit, items, shown }: EditorProps) {
  const queries = useQueryClient();
  const [name, setName] = useState(kit.starter ? `my ${kit.name}` : kit.name);
  const [said, setSaid] = useState(() => JSON.parse(kit.text) as Said);
  const [told, setTold] = useState("");
  const file = useRef<HTMLInputElement>(null);
  const text = JSON.stringify(said, null, 1);
  const come = async () => {
    await queries.invalidateQueries();
    await kitsChanged();
  };
  const keep = async (usual: boolean, of: string = text) => {
    try {
      await putKit({ path: { name }, body: { text: of, usual } });
      setTold(usual ? `${name} is the usual kit now.` : `${name} is kept.`);
      shown(name);
      await come();
    } catch (problem) {
      setTold(problem instanceof Error ? problem.message : String(problem));
    }
  };
  const put = (change: Said) => setSaid({ ...said, ...change });
  return (
    <section
      aria-label={`The kit ${kit.name}`}
      className="flex min-w-0 flex-1 items-start gap-6 max-[1000px]:flex-col"
    >
      <div className="min-w-0 flex-1 space-y-3">
        <div className="sticky top-0 z-[1] space-y-2 bg-page pb-2">
          <Field label="Name" value={name} put={setName} />
          <div className="flex flex-wrap items-center gap-2">
            <Button onClick={() => void keep(false)}>Keep</Button>
            <Button main onClick={() => void keep(true)}>
              Keep as the usual kit
            </Button>
            <a
              className="act"
              href={`data:application/json;charset=utf-8,${encodeURIComponent(`${text}\n`)}`}
              download={`${name}.kit.json`}
            >
              ↓ To a file
            </a>
            <Button onClick={() => file.current?.click()}>From a file…</Button>
            {!kit.starter && (
              <Button onClick={() => void removeKit({ path: { name: kit.name } }).then(come)}>
                Take away
              </Button>
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
          <p role="status" className="empty:hidden">
            {told}
          </p>
        </div>
        <ul>
          {items.map((item, i) => (
            <li key={item.key} className="flex items-center gap-3 border-b border-ruling py-1">
              <span className="flex h-16 w-32 shrink-0 items-center justify-center overflow-hidden">
                {items[i - 1]?.picture !== item.picture && (
                  <img
                    src={item.picture}
                    alt=""
                    className={`max-h-full max-w-full ${said[item.key] === false || said[item.key] === null ? "opacity-25" : ""}`}
                  />
                )}
              </span>
              <Asked
                item={item}
                unit={String(said["unit"])}
                value={said[item.key] ?? null}
                put={(value) => put({ [item.key]: value })}
              />
            </li>
          ))}
        </ul>
      </div>
      <Lacks kit={text} />
    </section>
  );
}

/** What the kit lacks for the job that was on the bench last. */
function Lacks({ kit }: { kit: string }) {
  const { text, work } = useSome("text", "work");
  const { data, error } = useQuery({
    queryKey: ["lacks", text, kit],
    queryFn: () => kitLacks({ body: { text, kit } }),
    enabled: text !== "",
    retry: false,
  });
  if (!work)
    return (
      <p className="sticky top-0 w-64 shrink-0 text-pencil">
        Open a job first: what a kit lacks for it is shown here.
      </p>
    );
  return (
    <section aria-label="What it lacks" className="sticky top-0 w-64 shrink-0 max-[1000px]:w-full">
      <h2 className="text-lg font-semibold">For {work.title || "the job on the bench"}</h2>
      {error && <p role="alert">{error.message}</p>}
      {data?.lacks.length === 0 && <p>Nothing is lacking.</p>}
      <ul>
        {data?.lacks.map((lack) => (
          <li key={lack.told} className="pb-2">
            <strong>{lack.told}</strong>
            {lack.more > 0 && `, ${lack.more} steps more`}:
            <ul className="ml-5 list-disc text-base">
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

interface FieldProps {
  label: string;
  value: string;
  put: (value: string) => void;
  /** Whether several things stand in it, which want more than a line. */
  several?: boolean;
}

function Field({ label, value, put, several = false }: FieldProps) {
  const id = `kit-${label.toLowerCase().replace(/\W+/g, "-")}`;
  // What is being typed stands as it is: a list is read apart only beside it.
  const [typed, setTyped] = useState<string | null>(null);
  const said = {
    id,
    className: "field min-w-32 flex-1",
    value: typed ?? value,
    spellCheck: false,
    onChange: (event: { target: { value: string } }) => {
      setTyped(event.target.value);
      put(event.target.value);
    },
    onBlur: () => setTyped(null),
  };
  return (
    <p className="flex flex-1 flex-wrap items-baseline gap-2">
      <label htmlFor={id} className="w-52 shrink-0">
        {label}
      </label>
      {several ? (
        <textarea {...said} rows={Math.min(4, 1 + Math.floor(value.length / 36))} />
      ) : (
        <input {...said} autoComplete="off" />
      )}
    </p>
  );
}

/** One item of a kit, asked for as it is sorted: a size, whether there is one, several, one of several. */
function Asked({
  item,
  unit,
  value,
  put,
}: {
  item: KitItemOut;
  unit: string;
  value: Value;
  put: (value: Value) => void;
}) {
  const label = item.in_unit ? `${item.label}, ${unit}` : item.label;
  const id = `kit-${item.key}`;
  if (item.sort === "yes") return <Check label={label} on={value === true} put={put} />;
  if (item.sort === "choice")
    return (
      <p className="flex flex-1 flex-wrap items-baseline gap-2">
        <label htmlFor={id} className="w-52 shrink-0">
          {label}
        </label>
        <select id={id} className="field" value={String(value)} onChange={(event) => put(event.target.value)}>
          {item.choices.map((choice) => (
            <option key={choice}>{choice}</option>
          ))}
        </select>
      </p>
    );
  if (item.sort === "list")
    return (
      <Field
        several
        label={label}
        value={Array.isArray(value) ? value.join(" ") : ""}
        put={(typed) => put(typed.split(/[\s;]+/).filter(Boolean))}
      />
    );
  return (
    <span className="flex flex-1 flex-wrap items-center gap-2">
      {item.sort === "size or none" && (
        <Check
          label=""
          name={`There is one: ${label}`}
          on={value !== null}
          put={(on) => put(on ? item.usual : null)}
        />
      )}
      {value === null ? label : <Field label={label} value={String(value)} put={put} />}
    </span>
  );
}
