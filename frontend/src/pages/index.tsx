import { keepPreviousData, useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useDeferredValue, useEffect, useRef, useState } from "react";
import { Link, useNavigate } from "react-router";
import {
  type ListJobsData,
  archiveJob,
  enterJob,
  type JobIn,
  type JobOut,
  lesson,
  listJobs,
  notice,
} from "../api/client";
import { takeAway, takeIn } from "../api/files";
import { beginLesson } from "../notebook/Lesson";
import { textOf, useOpened, endsIn } from "../state/opened";
import { profileEndings, useFormats } from "../state/server";
import { Header } from "../views/Header";
import { Button } from "../ui/Button";

const ORDERS: [Wanted["order"], string][] = [
  ["worked", "last worked first"],
  ["entered", "last entered first"],
  ["title", "by title"],
  ["drawing", "by number"],
];

const words = (problem: unknown) => (problem instanceof Error ? problem.message : String(problem));

/** Which part of the register is wanted. */
type Wanted = Required<Omit<NonNullable<ListJobsData["query"]>, "size">>;

/** The drawing office's list of jobs, a page at a time. */
export function Component() {
  const [wanted, setWanted] = useState<Wanted>({ archived: false, search: "", order: "worked", page: 1 });
  const file = useRef<HTMLInputElement>(null);
  const go = useNavigate();
  const formats = useFormats();
  const queries = useQueryClient();
  const asked = useDeferredValue(wanted);
  const { data, error, isPending } = useQuery({
    queryKey: ["jobs", asked],
    queryFn: ({ signal }) => listJobs({ query: asked, signal }),
    placeholderData: keepPreviousData,
    // What has not been worked out yet is looked at again until it has.
    refetchInterval: (query) => (query.state.data?.jobs.some((job) => job.pending) ? 1500 : false),
  });
  const keeper = useQuery({ queryKey: ["notice"], queryFn: () => notice(), staleTime: Infinity }).data?.told;
  const [trouble, setTrouble] = useState("");
  const [over, setOver] = useState(false);
  const openProfile = useOpened((opened) => opened.put);
  useEffect(() => {
    document.title = "Register · Entrick";
  }, []);
  const enter = useMutation({
    mutationFn: (job: JobIn) => enterJob({ body: job }),
    onSuccess: (job) => go(`/jobs/${job.id}`),
    onError: (problem) => setTrouble(problem.message),
  });
  const put = useMutation({
    mutationFn: (job: JobOut) => archiveJob({ path: { job_id: job.id }, body: { archived: !job.archived } }),
    onSuccess: () => queries.invalidateQueries({ queryKey: ["jobs"] }),
    onError: (problem) => setTrouble(problem.message),
  });
  const open = async (chosen: File | undefined) => {
    if (!chosen) return;
    setTrouble("");
    const profiles = await profileEndings();
    const found = await textOf(chosen, profiles);
    if (!found) {
      setTrouble(`${chosen.name} is not a plan: a plan is text, and this is not (or not in UTF-8).`);
      return;
    }
    // What is no plan may be a bare profile: then it is looked at before it is a job.
    if (endsIn(found.name, profiles)) {
      openProfile(found);
      await go("/profile");
      return;
    }
    try {
      const job = await enterJob({
        body: { text: found.text, note: `opened from ${found.name}`.slice(0, 200) },
      });
      await go(`/jobs/${job.id}`);
    } catch (problem) {
      setTrouble(words(problem));
    }
  };
  const learn = async () => {
    try {
      const { start } = await lesson({ body: { text: "" } });
      const job = await enterJob({ body: { text: start, note: "the first job" } });
      beginLesson(job.id);
      await go(`/jobs/${job.id}`);
    } catch (problem) {
      setTrouble(problem instanceof Error ? problem.message : String(problem));
    }
  };
  const look = (change: Partial<Wanted>) => setWanted({ ...wanted, page: 1, ...change });
  const { archived } = wanted;

  return (
    <div
      className="flex h-full flex-col"
      onDragOver={(event) => {
        event.preventDefault();
        setOver(event.dataTransfer.types.includes("Files"));
      }}
      onDragLeave={(event) => event.currentTarget === event.target && setOver(false)}
      onDrop={(event) => {
        event.preventDefault();
        setOver(false);
        void open(event.dataTransfer.files[0]);
      }}
    >
      <Header>
        <h1>Register of the drawing office</h1>
        <span className="flex-1" />
        <Link className="act" to="/class">
          For a class
        </Link>
        <Link className="act" to="/kits">
          Kits
        </Link>
        <Link className="act" to="/logbook">
          Logbook
        </Link>
        <Button onClick={() => enter.mutate({})}>New job</Button>
        <Button onClick={() => file.current?.click()}>Open a plan or profile…</Button>
        <input
          ref={file}
          type="file"
          className="hidden"
          accept={[".entrick", ...(formats?.profiles ?? []).map((ending) => `.${ending}`), "text/plain"].join(
            ",",
          )}
          aria-label="Open a plan from disk"
          onChange={(event) => {
            void open(event.target.files?.[0]);
            event.target.value = "";
          }}
        />
      </Header>
      <main className="min-h-0 flex-1 overflow-auto p-6 max-[700px]:p-1">
        <div
          className={`mx-auto max-w-5xl bg-page px-8 py-6 max-[700px]:px-3 ${over ? "outline-4 outline-accent outline-dashed" : ""}`}
        >
          {over && <p role="status">Let go to open the plan, or the profile, as a job.</p>}
          {[keeper, trouble || error?.message].filter(Boolean).map((told) => (
            <p key={told} role="alert" className="mb-3 border-l-4 border-accent bg-wash px-3 py-1">
              {told}
            </p>
          ))}
          <div className="flex flex-wrap items-baseline gap-x-4 gap-y-1 pb-2">
            <h2 id="listed" className="font-lettering text-2xl">
              {archived ? "Archived jobs" : "Jobs at work"}
            </h2>
            <span role="status" className="text-sm text-pencil">
              {isPending ? "looking them up…" : data && data.total !== 1 ? `${data.total} jobs` : "1 job"}
            </span>
            <span className="flex-1" />
            <label className="text-sm">
              Find{" "}
              <input
                type="search"
                className="field w-56"
                placeholder="words of title or number"
                value={wanted.search}
                maxLength={200}
                onChange={(event) => look({ search: event.target.value })}
              />
            </label>
            <label className="text-sm">
              Order{" "}
              <select
                className="field"
                value={wanted.order}
                onChange={(event) => look({ order: event.target.value as Wanted["order"] })}
              >
                {ORDERS.map(([order, told]) => (
                  <option key={order} value={order}>
                    {told}
                  </option>
                ))}
              </select>
            </label>
          </div>
          <div className="overflow-x-auto">
            <table className="w-full min-w-[46rem] border-collapse text-left" aria-labelledby="listed">
              <thead>
                <tr className="border-y border-ink text-sm">
                  <th className="w-24 py-1 font-semibold">Number</th>
                  <th className="w-36 font-semibold">Part</th>
                  <th className="font-semibold">Title</th>
                  <th className="w-16 font-semibold">Units</th>
                  <th className="w-16 font-semibold">Scale</th>
                  <th className="w-20 font-semibold">Revision</th>
                  <th className="w-40 font-semibold">Last worked</th>
                  <th className="w-44">
                    <span className="sr-only">What can be done</span>
                  </th>
                </tr>
              </thead>
              <tbody>
                {data?.jobs.map((job) => (
                  <Row
                    key={job.id}
                    job={job}
                    copy={() => enter.mutate({ copy_of: job.id })}
                    put={() => put.mutate(job)}
                  />
                ))}
              </tbody>
            </table>
          </div>
          {data?.total === 0 && <Empty wanted={wanted} learn={() => void learn()} />}
          <div className="flex flex-wrap items-center gap-2 pt-4">
            <Button onClick={() => look({ archived: !archived, search: "" })}>
              {archived ? "Back to the jobs at work" : "Show archived jobs"}
            </Button>
            <span className="flex-1" />
            {data && data.pages > 1 && (
              <Pages page={wanted.page} pages={data.pages} turn={(page) => setWanted({ ...wanted, page })} />
            )}
          </div>
          <WholeRegister came={() => queries.invalidateQueries({ queryKey: ["jobs"] })} />
        </div>
      </main>
    </div>
  );
}

/** One job: its heading, and its outline or what is wrong with it. */
function Row({ job, copy, put }: { job: JobOut; copy: () => void; put: () => void }) {
  return (
    <tr className="border-b border-ruling">
      <td className="font-lettering">{job.drawing || "none yet"}</td>
      <td className="h-20">
        {job.pictured && !job.trouble ? (
          <Link to={`/jobs/${job.id}`} tabIndex={-1} aria-hidden="true">
            <img
              src={`/api/jobs/${job.id}/thumbnail.svg?r=${job.revision}`}
              alt=""
              className="my-2 h-16 w-32 object-contain object-left"
            />
          </Link>
        ) : (
          <span className="block max-h-16 w-32 overflow-hidden text-xs text-pencil" title={job.trouble}>
            {job.pending ? "being worked out…" : job.trouble || "nothing drawn yet"}
          </span>
        )}
      </td>
      <td>
        <Link to={`/jobs/${job.id}`} className="text-lg font-semibold underline decoration-1">
          {job.title}
        </Link>
        <span className="block text-sm text-pencil">{state(job)}</span>
      </td>
      <td>{job.unit}</td>
      <td>{job.scale}</td>
      <td>{job.revision}</td>
      <td className="text-sm">
        <time dateTime={job.worked_at} title={new Date(job.worked_at).toLocaleString()}>
          {when(new Date(job.worked_at))}
        </time>
      </td>
      <td className="space-x-1 text-right whitespace-nowrap">
        <Button onClick={copy} aria-label={`Copy ${job.title}`}>
          Copy
        </Button>
        <Button onClick={put} aria-label={`${job.archived ? "Take back" : "Archive"} ${job.title}`}>
          {job.archived ? "Take back" : "Archive"}
        </Button>
      </td>
    </tr>
  );
}

const DAY = 86_400_000;

/** When something was, as people say it: the time today, the day before that, the date earlier on. */
function when(at: Date): string {
  const midnight = new Date().setHours(0, 0, 0, 0);
  const time = at.toLocaleTimeString(undefined, { hour: "2-digit", minute: "2-digit" });
  if (at.getTime() >= midnight) return `today, ${time}`;
  if (at.getTime() >= midnight - DAY) return `yesterday, ${time}`;
  const year = at.getFullYear() === new Date().getFullYear() ? undefined : "numeric";
  return at.toLocaleDateString(undefined, { day: "numeric", month: "long", year });
}

function state(job: JobOut): string {
  if (job.mistakes > 0) return `${job.mistakes} to put right`;
  if (job.pending && !job.pictured) return "";
  return job.outlines > 0 ? `${job.outlines} outline${job.outlines > 1 ? "s" : ""}` : "not lined in yet";
}

function Empty({ wanted, learn }: { wanted: Wanted; learn: () => void }) {
  if (wanted.search) return <p className="py-6">No job has “{wanted.search}” in its title or its number.</p>;
  if (wanted.archived) return <p className="py-6">Nothing is archived.</p>;
  return (
    <div className="py-6">
      <p className="pb-2">
        <Button main onClick={learn}>
          Set out a first job, in two minutes
        </Button>{" "}
        A keeper plate, task by task, on the bench itself; left whenever you like.
      </p>
      The register is empty. Start a <em>new job</em>, or <em>open a plan</em> from disk; started with{" "}
      <code>--demo</code>, an empty register gets the sample jobs of the lock yard.
    </div>
  );
}

function Pages({ page, pages, turn }: { page: number; pages: number; turn: (page: number) => void }) {
  return (
    <nav aria-label="Pages of the register" className="flex items-center gap-2">
      <Button disabled={page <= 1} onClick={() => turn(page - 1)}>
        Earlier page
      </Button>
      <span className="text-sm">
        page {page} of {pages}
      </span>
      <Button disabled={page >= pages} onClick={() => turn(page + 1)}>
        Next page
      </Button>
    </nav>
  );
}

/** The register as open files: taken away, taken in. */
function WholeRegister({ came }: { came: () => unknown }) {
  const file = useRef<HTMLInputElement>(null);
  const [told, setTold] = useState("");
  const [share, setShare] = useState<number | null>(null);
  const carry = async (
    doing: string,
    work: (progress: (done: number, of: number) => void) => Promise<string>,
  ) => {
    setTold(doing);
    setShare(0);
    try {
      setTold(await work((done, of) => setShare(of > 0 ? done / of : 0)));
    } catch (error) {
      setTold(error instanceof Error ? error.message : String(error));
    }
    setShare(null);
  };
  return (
    <section aria-label="The whole register" className="mt-6 border-t border-ruling pt-3 text-sm">
      <div className="flex flex-wrap items-center gap-2">
        <span className="max-w-xl">
          The whole register as open files: every revision of every job as text, in a zip.{" "}
          <code>entrick backup</code> copies it as it stands; a snapshot is taken every day by itself.
        </span>
        <span className="flex-1" />
        <Button
          disabled={share !== null}
          onClick={() =>
            void carry("Gathering the jobs…", async (progress) => `${await takeAway(progress)} is kept.`)
          }
        >
          Take away…
        </Button>
        <Button disabled={share !== null} onClick={() => file.current?.click()}>
          Take in…
        </Button>
        <input
          ref={file}
          type="file"
          className="hidden"
          accept=".zip,application/zip"
          aria-label="Take in a register from disk"
          onChange={(event) => {
            const chosen = event.target.files?.[0];
            event.target.value = "";
            if (chosen)
              void carry("Entering the jobs…", async (progress) => {
                const what = await takeIn(chosen, progress);
                await came();
                return what;
              });
          }}
        />
      </div>
      <p role="status" className="min-h-6 pt-1">
        {told}{" "}
        {share !== null && (
          <progress className="ml-2 align-middle" value={share} max={1} aria-label="How far it is" />
        )}
      </p>
    </section>
  );
}
