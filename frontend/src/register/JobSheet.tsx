import { Link } from "react-router";
import type { JobOut } from "../api/client";
import { Button } from "../ui/Button";

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

interface Props {
  job: JobOut;
  /** Whether it has been put aside on this page, and so is about to leave it. */
  aside: boolean;
  copy: () => void;
  put: () => void;
}

/** One job as a sheet in the drawer: its outline, and the strip that says what it is. */
export function JobSheet({ job, aside, copy, put }: Props) {
  const at = `/jobs/${job.id}`;
  const name = `${job.drawing} ${job.title}`.trim();
  return (
    <li className="min-w-0">
      <article aria-label={name} className={`on-paper border border-rim ${aside ? "opacity-70" : ""}`}>
        <Link to={at} tabIndex={-1} aria-hidden="true" className="block h-32 p-3">
          {job.pictured && !job.trouble ? (
            <img
              src={`/api/jobs/${job.id}/thumbnail.svg?r=${job.revision}`}
              alt=""
              loading="lazy"
              className="size-full object-contain"
            />
          ) : (
            <span className="block size-full overflow-hidden text-sm text-pencil">
              {job.pending ? "being worked out…" : job.trouble || "nothing drawn yet"}
            </span>
          )}
        </Link>
        <div className={`border-t border-ink px-3 pt-1 pb-2 ${aside ? "line-through" : ""}`}>
          <h2 className="truncate" title={job.title}>
            <Link to={at} className="flex min-h-7 items-baseline gap-2 hover:underline">
              <span className="shrink-0 font-lettering text-sm">{job.drawing || "no number"}</span>
              <span className="truncate font-semibold">{job.title}</span>
            </Link>
          </h2>
          <p className="truncate text-sm text-pencil">
            {[job.unit, job.scale, `revision ${job.revision}`, job.signed, state(job), job.whose]
              .filter(Boolean)
              .join(" · ")}
          </p>
          <div className="flex items-center gap-1 text-sm">
            <time
              className="min-w-0 flex-1 truncate text-pencil"
              dateTime={job.worked_at}
              title={`Last worked ${new Date(job.worked_at).toLocaleString()}`}
            >
              {when(new Date(job.worked_at))}
            </time>
            <Button onClick={copy} aria-label={`Copy ${job.title}`}>
              Copy
            </Button>
            {job.yours && (
              <Button
                onClick={put}
                aria-label={`${aside ? "Put back" : job.archived ? "Take back" : "Archive"} ${job.title}`}
              >
                {aside ? "Put back" : job.archived ? "Take back" : "Archive"}
              </Button>
            )}
          </div>
          {job.double && (
            <p className="text-sm text-accent">
              <span aria-hidden="true">✗ </span>another job has this number
            </p>
          )}
        </div>
      </article>
    </li>
  );
}
