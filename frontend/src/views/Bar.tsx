import { Popover } from "radix-ui";
import { type ReactNode, useEffect, useState } from "react";
import { Link, NavLink, useLocation, useParams } from "react-router";
import { useLastJob, workedOn } from "../state/lastJob";
import { WhoWorks } from "../office/WhoWorks";
import { useOffice } from "../state/office";
import { isSwitchedOff } from "../state/letterKeys";
import { Keys } from "./Keys";

/** Where one can go from any page, in the order of the bar. */
const PLACES = [
  ["/", "Register"],
  ["/logbook", "Logbook"],
  ["/kits", "Kits"],
  ["/class", "For a class"],
  ["/office", "Office"],
  ["/handbook", "Handbook"],
] as const;

/** The pages of a job, behind its address. */
const JOB_PAGES = [
  ["", "Bench"],
  ["/proof", "Proof"],
  ["/look", "On the sheet"],
  ["/board", "At the board"],
  ["/practice", "Practice"],
  ["/cutter", "Cutter"],
  ["/compare", "Compare"],
] as const;

interface Props {
  /** What the page is called, where no job's name heads it. */
  title?: string;
  /** What can be done on the page. */
  children?: ReactNode;
  /** Where the keyboard can go at once, by the id of what is there. */
  skips?: readonly (readonly [id: string, told: string])[];
}

/** The strip along the top of every page: places, and what can be done here. */
export function Bar({ title, children, skips = [["page", "To the page"]] }: Props) {
  const last = useLastJob((known) => known.job);
  const here = useParams()["jobId"];
  const { pathname } = useLocation();
  const chip = last && (
    <Link
      className={`place max-w-56 truncate ${here ? "place-now" : ""}`}
      to={`/jobs/${last.id}`}
      title={`${last.drawing} ${last.title}`}
    >
      {last.drawing || last.title || "This job"}
    </Link>
  );
  const inside = here !== undefined;
  const office = useOffice();
  // A class is kept by whoever runs the office; there is none where one person works.
  const shown = PLACES.filter(
    ([to]) =>
      (to !== "/class" || !office || office.may.includes("keep a class")) &&
      (to !== "/office" || office !== undefined || pathname === to),
  );
  const places = shown.map(([to, told]) => (
    <NavLink key={to} to={to} end={to === "/"} className={({ isActive }) => placed(isActive)}>
      {told}
    </NavLink>
  ));
  return (
    <header className="bar">
      {skips.map(([id, told]) => (
        <a
          key={id}
          className="skip"
          href={`#${id}`}
          onClick={(event) => {
            event.preventDefault();
            document.getElementById(id)?.focus();
          }}
        >
          {told}
        </a>
      ))}
      <div className="bar-row">
        <Link to="/" className="font-lettering text-2xl tracking-wide" aria-label="Entrick, to the register">
          Entrick
        </Link>
        <Folding
          label="Places"
          now={
            PLACES.find(([to]) => (to === "/" ? pathname === to : pathname.startsWith(to)))?.[1] ?? "Places"
          }
        >
          {places[0]}
          {!inside && chip}
          {places.slice(1)}
        </Folding>
        {title && <h1 className="sr-only">{title}</h1>}
        <span className="flex-1 tight:hidden" />
        {!inside && children}
        <WhoWorks />
        <KeysPress />
      </div>
      {inside && children}
    </header>
  );
}

const placed = (now: boolean) => `place ${now ? "place-now" : ""}`;

interface JobBarProps {
  job: { drawing: string; title: string } | undefined;
  /** How it stands with the job. */
  status?: ReactNode;
  children?: ReactNode;
}

/** The job one is at: its number and title, its pages, and what can be done with it. */
export function JobBar({ job, status, children }: JobBarProps) {
  const id = Number(useParams()["jobId"]);
  const { pathname } = useLocation();
  const drawing = job?.drawing;
  const title = job?.title;
  useEffect(() => {
    if (drawing !== undefined && title !== undefined) workedOn({ id, drawing, title });
  }, [id, drawing, title]);
  const page = JOB_PAGES.find(([at]) => pathname === `/jobs/${id}${at}`)?.[1] ?? "";
  return (
    <div className="bar-row bar-job">
      <h1 className="w-72 min-w-24 truncate" title={title}>
        <span className="sr-only">{`${page} of `}</span>
        <span className="font-semibold">{drawing}</span> {title || "Untitled"}
      </h1>
      <Folding label="This job" now={page}>
        {JOB_PAGES.map(([at, told]) => (
          <NavLink key={at} to={`/jobs/${id}${at}`} end className={({ isActive }) => placed(isActive)}>
            {told}
          </NavLink>
        ))}
      </Folding>
      <span className="flex-1" />
      {status && (
        <span className="text-sm whitespace-nowrap low:sr-only" role="status">
          {status}
        </span>
      )}
      {children}
    </div>
  );
}

/** Places in a row; where there is no room for one, behind one press that says where one is. */
function Folding({ label, now, children }: { label: string; now: string; children: ReactNode }) {
  return (
    <>
      <nav aria-label={label} className="flex min-w-0 items-center gap-x-4 tight:hidden">
        {children}
      </nav>
      <Popover.Root>
        <Popover.Trigger className="act hidden tight:block" aria-label={`${label}: ${now}`}>
          {now} <span aria-hidden="true">▾</span>
        </Popover.Trigger>
        <Popover.Portal>
          <Popover.Content
            align="start"
            sideOffset={4}
            collisionPadding={4}
            className="bar z-20 p-2 shadow-md"
          >
            <nav aria-label={label} className="flex flex-col">
              {children}
            </nav>
          </Popover.Content>
        </Popover.Portal>
      </Popover.Root>
    </>
  );
}

function KeysPress() {
  const [open, setOpen] = useState(false);
  useEffect(() => {
    const press = (event: KeyboardEvent) => {
      const typing = event.target instanceof Element && event.target.closest("input, textarea, select");
      if (event.key !== "?" || typing || isSwitchedOff(event)) return;
      setOpen(true);
      event.preventDefault();
    };
    window.addEventListener("keydown", press);
    return () => window.removeEventListener("keydown", press);
  }, []);
  return (
    <>
      <button className="act low:hidden" onClick={() => setOpen(true)} aria-label="Keys" title="Keys  ?">
        ?
      </button>
      <Keys open={open} onOpenChange={setOpen} />
    </>
  );
}
