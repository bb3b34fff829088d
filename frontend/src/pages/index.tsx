import { keepPreviousData, useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useDeferredValue, useEffect, useRef, useState } from "react";
import { Link, useNavigate, useSearchParams } from "react-router";
import {
  archiveJob,
  enterJob,
  inWords,
  type JobIn,
  type JobOut,
  type JobsOut,
  listJobs,
  type ListJobsData,
  notice,
} from "../api/client";
import { BeginLesson } from "../notebook/Lesson";
import { JobSheet } from "../register/JobSheet";
import { NewJob } from "../register/NewJob";
import { WholeRegister } from "../register/WholeRegister";
import { useKeptScroll } from "../state/keptScroll";
import { addressOf } from "../state/handbook";
import { useOffice } from "../state/office";
import { endsIn, textOf, useOpened } from "../state/opened";
import { profileEndings, useFormats } from "../state/server";
import { Button } from "../ui/Button";
import { Bar } from "../views/Bar";

const ORDERS: [Wanted["order"], string][] = [
  ["worked", "last worked first"],
  ["entered", "last entered first"],
  ["title", "by title"],
  ["drawing", "by number"],
];

const ONLY: [Wanted["only"], string][] = [
  ["", "everybody’s jobs"],
  ["own", "your jobs"],
  ["unchecked", "drawn by others, to be checked"],
];

/** Which part of the register is wanted. */
type Wanted = Required<Omit<NonNullable<ListJobsData["query"]>, "size">>;

/** Which part is wanted stands in the address, so that Back gives the register as it was left. */
function useWanted() {
  const [said, say] = useSearchParams();
  const order = ORDERS.find(([each]) => each === said.get("order"))?.[0] ?? "worked";
  const wanted: Wanted = {
    archived: said.get("archived") === "yes",
    search: said.get("find") ?? "",
    order,
    only: ONLY.find(([each]) => each === said.get("only"))?.[0] ?? "",
    page: Math.max(1, Number(said.get("page")) || 1),
  };
  const want = (change: Partial<Wanted>) => {
    const next = { ...wanted, page: 1, ...change };
    say(
      Object.fromEntries(
        [
          ["archived", next.archived ? "yes" : ""],
          ["find", next.search],
          ["order", next.order === "worked" ? "" : next.order],
          ["only", next.only],
          ["page", next.page > 1 ? String(next.page) : ""],
        ].filter(([, value]) => value),
      ) as Record<string, string>,
      { replace: true },
    );
  };
  return [wanted, want] as const;
}

/** The drawing office's jobs, as sheets in a drawer, a page at a time. */
export function Component() {
  const [wanted, want] = useWanted();
  const office = useOffice();
  const go = useNavigate();
  const queries = useQueryClient();
  const asked = useDeferredValue(wanted);
  const queryKey = ["jobs", asked];
  const { data, error, isPending } = useQuery({
    queryKey,
    queryFn: ({ signal }) => listJobs({ query: asked, signal }),
    placeholderData: keepPreviousData,
    // What has not been worked out yet is looked at again until it has.
    refetchInterval: (query) => (query.state.data?.jobs.some((job) => job.pending) ? 1500 : false),
  });
  const keeper = useQuery({ queryKey: ["notice"], queryFn: () => notice(), staleTime: Infinity }).data?.told;
  const [trouble, setTrouble] = useState("");
  const [told, setTold] = useState("");
  const page = useKeptScroll<HTMLElement>(data !== undefined);
  useEffect(() => {
    document.title = "Register · Entrick";
  }, []);
  const tell = (problem: unknown) => setTrouble(inWords(problem));
  const enter = useMutation({
    mutationFn: (job: JobIn) => enterJob({ body: job }),
    onSuccess: (job) => go(`/jobs/${job.id}`),
    onError: tell,
  });
  const put = useMutation({
    mutationFn: (job: JobOut) => archiveJob({ path: { job_id: job.id }, body: { archived: !job.archived } }),
    onSuccess: (done) => {
      // It stays where it was, struck through, until the page is looked at anew: a slip is put back in place.
      queries.setQueryData<JobsOut>(
        queryKey,
        (all) => all && { ...all, jobs: all.jobs.map((job) => (job.id === done.id ? done : job)) },
      );
      void queries.invalidateQueries({ queryKey: ["jobs"], refetchType: "none" });
      setTold(`${done.drawing} ${done.title} is ${done.archived ? "archived" : "at work again"}.`);
    },
    onError: tell,
  });
  const { open, over, dropping } = useOpening(setTrouble);
  const { archived } = wanted;

  return (
    <div className="flex h-full flex-col" {...dropping}>
      <Bar title="Register of the drawing office">
        <NewJob enter={(job) => enter.mutate(job)} />
        <OpenFile open={open} />
      </Bar>
      <main
        id="page"
        tabIndex={-1}
        ref={page}
        className={`min-h-0 flex-1 overflow-auto p-4 tight:p-2 ${over ? "outline-4 -outline-offset-4 outline-accent outline-dashed" : ""}`}
      >
        {over && <p role="status">Let go to open the plan, or the profile, as a job.</p>}
        {[keeper, trouble || error?.message].filter(Boolean).map((each) => (
          <p key={each} role="alert" className="mb-3 border-l-4 border-accent bg-wash px-3 py-1">
            {each}
          </p>
        ))}
        <div className="flex flex-wrap items-center gap-x-4 gap-y-1 pb-3">
          <h2 id="listed" className="text-lg font-semibold">
            {archived ? "Archived jobs" : "Jobs at work"}
          </h2>
          <span role="status" className="text-sm">
            {told ||
              (isPending ? "looking them up…" : data && data.total !== 1 ? `${data.total} jobs` : "1 job")}
          </span>
          <Link className="place" to={addressOf("lessons", "link")}>
            Lessons
          </Link>
          <span className="flex-1" />
          <label>
            <span className="sr-only">Find</span>
            <input
              type="search"
              className="field on-table w-64 max-w-[60vw]"
              placeholder="find by title or number"
              value={wanted.search}
              maxLength={200}
              onChange={(event) => want({ search: event.target.value })}
            />
          </label>
          {office && (
            <label>
              <span className="sr-only">Whose</span>
              <select
                className="field on-table"
                value={wanted.only}
                onChange={(event) => want({ only: event.target.value as Wanted["only"] })}
              >
                {ONLY.map(([only, said]) => (
                  <option key={only} value={only}>
                    {said}
                  </option>
                ))}
              </select>
            </label>
          )}
          <label>
            <span className="sr-only">Order</span>
            <select
              className="field on-table"
              value={wanted.order}
              onChange={(event) => want({ order: event.target.value as Wanted["order"] })}
            >
              {ORDERS.map(([order, said]) => (
                <option key={order} value={order}>
                  {said}
                </option>
              ))}
            </select>
          </label>
          <Button onClick={() => want({ archived: !archived, search: "" })}>
            {archived ? "Back to the jobs at work" : "Show archived jobs"}
          </Button>
        </div>
        <ul
          aria-labelledby="listed"
          className="grid grid-cols-[repeat(auto-fill,minmax(min(15rem,100%),1fr))] gap-4"
        >
          {data?.jobs.map((job) => (
            <JobSheet
              key={job.id}
              job={job}
              aside={job.archived !== archived}
              copy={() => enter.mutate({ copy_of: job.id })}
              put={() => put.mutate(job)}
            />
          ))}
        </ul>
        {data?.total === 0 && <Empty wanted={wanted} />}
        {data && data.pages > 1 && (
          <Pages page={wanted.page} pages={data.pages} turn={(to) => want({ page: to })} />
        )}
        {(!office || office.may.includes("run the office")) && (
          <WholeRegister came={() => queries.invalidateQueries({ queryKey: ["jobs"] })} />
        )}
      </main>
    </div>
  );
}

/** Opening a plan or profile from disk: chosen, or dropped anywhere on the page. */
function useOpening(tell: (trouble: string) => void) {
  const go = useNavigate();
  const [over, setOver] = useState(false);
  const openProfile = useOpened((opened) => opened.put);
  const open = async (chosen: File | undefined) => {
    if (!chosen) return;
    tell("");
    const profiles = await profileEndings();
    const found = await textOf(chosen, profiles);
    if (!found) {
      tell(`${chosen.name} is not a plan: a plan is text, and this is not (or not in UTF-8).`);
      return;
    }
    // What is no plan may be a bare profile: then it is looked at before it is a job.
    if (endsIn(found.name, profiles)) {
      openProfile(found);
      await go("/profile");
      return;
    }
    try {
      const note = `opened from ${found.name}`.slice(0, 200);
      const job = await enterJob({ body: { text: found.text, note } });
      await go(`/jobs/${job.id}`);
    } catch (problem) {
      tell(`${found.name}: ${inWords(problem)}`);
    }
  };
  const dropping = {
    onDragOver: (event: React.DragEvent) => {
      event.preventDefault();
      setOver(event.dataTransfer.types.includes("Files"));
    },
    onDragLeave: (event: React.DragEvent) => event.currentTarget === event.target && setOver(false),
    onDrop: (event: React.DragEvent) => {
      event.preventDefault();
      setOver(false);
      void open(event.dataTransfer.files[0]);
    },
  };
  return { open, over, dropping };
}

function OpenFile({ open }: { open: (file: File | undefined) => Promise<void> }) {
  const file = useRef<HTMLInputElement>(null);
  const formats = useFormats();
  return (
    <>
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
    </>
  );
}

function Empty({ wanted }: { wanted: Wanted }) {
  if (wanted.search) return <p className="py-6">No job has “{wanted.search}” in its title or its number.</p>;
  if (wanted.only === "unchecked") return <p className="py-6">Nothing waits to be checked.</p>;
  if (wanted.only === "own") return <p className="py-6">You have no job yet.</p>;
  if (wanted.archived) return <p className="py-6">Nothing is archived.</p>;
  return (
    <div className="space-y-2 bg-page p-6">
      <p>
        <BeginLesson lesson="link">Set out a first job, in two minutes</BeginLesson> A keeper plate, task by
        task, on the bench itself; left whenever you like.
      </p>
      <p>
        The register is empty. Begin a <em>new job</em>, or drop a plan or a profile anywhere on this page;
        started with <code>--demo</code>, an empty register gets the sample jobs of the lock yard.
      </p>
    </div>
  );
}

function Pages({ page, pages, turn }: { page: number; pages: number; turn: (page: number) => void }) {
  return (
    <nav aria-label="Pages of the register" className="flex items-center gap-2 pt-4">
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
