import { useEffect } from "react";
import { Link, useNavigate, useSearchParams } from "react-router";
import { addressOf, figureOf, useChapters, usePage } from "../state/handbook";
import { useKeptScroll } from "../state/keptScroll";
import { useLastJob } from "../state/lastJob";
import { look } from "../state/looks";
import { BeginLesson } from "../notebook/Lesson";
import { Button } from "../ui/Button";
import { Bar } from "../views/Bar";
import { Contents } from "./Contents";
import { Cover } from "./Cover";
import { Told } from "./Told";

/** The handbook: what stands where, beside the page that is open. */
export function Handbook({ chapter = "", page = "" }: { chapter?: string; page?: string }) {
  const [said, say] = useSearchParams();
  const words = said.get("find") ?? "";
  const find = (next: string) => say(next ? { find: next } : {}, { replace: true });
  const scroll = useKeptScroll<HTMLElement>(true);
  return (
    <div className="flex h-full flex-col">
      <Bar title="Handbook">
        <Button onClick={() => print()}>Print</Button>
      </Bar>
      <div className="flex min-h-0 flex-1 bg-page max-[700px]:flex-col max-[700px]:overflow-auto">
        <div className="w-72 shrink-0 overflow-auto border-r border-rim max-[700px]:w-full max-[700px]:overflow-visible max-[700px]:border-0">
          <Contents words={words} look={find} chapter={chapter} />
        </div>
        <main
          id="page"
          tabIndex={-1}
          ref={scroll}
          className="min-w-0 flex-1 overflow-auto px-8 py-5 max-[700px]:overflow-visible max-[700px]:px-4"
        >
          {page ? <Open key={`${chapter} ${page}`} chapter={chapter} page={page} /> : <Cover />}
        </main>
      </div>
    </div>
  );
}

function Open({ chapter, page }: { chapter: string; page: string }) {
  const { data, error } = usePage(chapter, page);
  useEffect(() => {
    document.title = `${data?.leaf.title ?? "Handbook"} · Handbook · Entrick`;
  }, [data]);
  if (error) return <p role="alert">{error.message}</p>;
  if (!data) return <p>Opening the page…</p>;
  const { leaf } = data;
  return (
    <article aria-labelledby="leaf" className="max-w-[80ch] space-y-3">
      <p className="text-sm text-pencil">{leaf.group}</p>
      <h2 id="leaf" className="text-2xl font-semibold">
        {leaf.title}
      </h2>
      <p className="text-lg">{leaf.summary}</p>
      {chapter === "constructions" && <Begin kind={page} />}
      {chapter === "lessons" && <BeginLesson lesson={page}>Begin the lesson</BeginLesson>}
      {leaf.figured && (
        <figure className="on-paper border border-rim p-2">
          <img
            src={figureOf(leaf)}
            alt={`${leaf.title}, as the desk draws the plan below`}
            className="max-h-96 w-full object-contain"
          />
        </figure>
      )}
      <Told markdown={data.markdown} title={leaf.title} />
      <Neighbours chapter={chapter} page={page} />
    </article>
  );
}

/** Begin a statement of the kind on the bench of the job that was worked on last. */
function Begin({ kind }: { kind: string }) {
  const job = useLastJob((known) => known.job);
  const go = useNavigate();
  if (!job) return null;
  return (
    <p className="not-on-paper">
      <Button
        main
        onClick={() => {
          look({ begin: kind });
          void go(`/jobs/${job.id}`);
        }}
      >
        Begin one in {job.drawing || job.title || "the job at hand"}
      </Button>
    </p>
  );
}

function Neighbours({ chapter, page }: { chapter: string; page: string }) {
  const pages = useChapters()?.find((each) => each.key === chapter)?.pages ?? [];
  const at = pages.findIndex((leaf) => leaf.key === page);
  const before = pages[at - 1];
  const after = pages[at + 1];
  return (
    <p className="not-on-paper flex justify-between gap-4 border-t border-rim pt-3">
      {before ? (
        <Link className="place" to={addressOf(chapter, before.key)}>
          ← {before.title}
        </Link>
      ) : (
        <span />
      )}
      {after && (
        <Link className="place" to={addressOf(chapter, after.key)}>
          {after.title} →
        </Link>
      )}
    </p>
  );
}
