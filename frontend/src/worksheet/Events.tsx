import { useQuery } from "@tanstack/react-query";
import { useRef, useState } from "react";
import { api, type Entry, Problem } from "../api/client";
import { useBench } from "../state/bench";

const EVENTS = ["rise", "fall", "dwell"] as const;

/** What the follower does, as a table to edit, as sentences, or from a file of stations. */
export function Events({ entry }: { entry: Entry }) {
  const { text, edit } = useBench();
  const { data: kinds } = useQuery({ queryKey: ["kinds"], queryFn: api.kinds, staleTime: Infinity });
  const [brief, setBrief] = useState("");
  const [told, setTold] = useState<readonly string[]>([]);
  const file = useRef<HTMLInputElement>(null);
  const motions =
    kinds?.kinds
      .find((kind) => kind.name === "cam")
      ?.forms.flatMap((form) => form.parts)
      .flatMap((part) => (typeof part !== "string" && part.name === "motion" ? part.choices : [])) ?? [];
  const rows = entry.clauses
    .map((clause, index) => ({ clause, index }))
    .filter(({ clause }) => (EVENTS as readonly string[]).includes(clause.key));
  const put = (index: number, said: string) =>
    edit({ op: "clause", line: entry.line, clause: index, text: said });
  const follow = async () => {
    try {
      const read = await api.brief(text, entry.line, brief);
      setTold(read.misread.map((row) => `Row ${row.row}: ${row.message}.`));
      if (read.statement && (await edit({ op: "line", line: entry.line, text: read.statement })))
        setBrief("");
    } catch (fault) {
      setTold([fault instanceof Problem ? fault.detail : String(fault)]);
    }
  };
  return (
    <div className="slip shrink-0 px-3 py-2">
      <h3 className="font-semibold">What the follower does</h3>
      {rows.length > 0 && (
        <table className="text-left text-[15px]" aria-label="Events to edit">
          <thead>
            <tr>
              {["Event", "Angle", "Lift", "Motion", ""].map((head) => (
                <th key={head} scope="col" className="pr-3 font-semibold">
                  {head}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {rows.map(({ clause, index }, at) => (
              <Row
                key={index}
                said={clause.text}
                number={at + 1}
                motions={[...new Set(motions)]}
                put={(said) => void put(index, said)}
              />
            ))}
          </tbody>
        </table>
      )}
      <button className="act my-1" onClick={() => void put(entry.clauses.length, "dwell 30°")}>
        Add an event
      </button>
      <label className="block text-[15px]">
        In place of these: sentences, such as “rise 20 mm in 90° with SHM; dwell 30°”, or stations as CSV,
        angle and lift to a row
        <textarea
          className="field block h-20 w-full"
          value={brief}
          spellCheck={false}
          onChange={(event) => setBrief(event.target.value)}
        />
      </label>
      <div className="flex gap-2 pt-1">
        <button className="act" disabled={!brief.trim()} onClick={() => void follow()}>
          Follow this
        </button>
        <button className="act" onClick={() => file.current?.click()}>
          Stations from a file…
        </button>
        <input
          ref={file}
          type="file"
          accept=".csv,.txt,text/csv,text/plain"
          className="hidden"
          aria-label="File of stations"
          onChange={(event) => {
            const chosen = event.target.files?.[0];
            if (chosen) void chosen.text().then(setBrief);
            event.target.value = "";
          }}
        />
      </div>
      {told.map((row) => (
        <p key={row} role="alert" className="text-[15px] text-accent">
          ✗ {row}
        </p>
      ))}
    </div>
  );
}

interface RowProps {
  said: string;
  number: number;
  motions: readonly string[];
  put: (said: string) => void;
}

/** What an event's clause says: what it is, its angle, its lift, its motion. */
function parted(said: string): readonly [string, string, string, string] {
  const read = /^(rise|fall|dwell) (.+?)(?: by (.+?))?(?: ([a-z]+))?$/.exec(said);
  return [read?.[1] ?? "dwell", read?.[2] ?? "", read?.[3] ?? "", read?.[4] ?? ""];
}

/** One event; what was typed is put into the plan as a clause, and judged there. */
function Row({ said, number, motions, put }: RowProps) {
  const [last, setLast] = useState(said);
  const [[event, angle, lift, motion], setRow] = useState(() => parted(said));
  if (said !== last) {
    setLast(said);
    setRow(parted(said));
  }
  const write = (event: string, angle: string, lift: string, motion: string) => {
    const next =
      event === "dwell"
        ? `dwell ${angle}`
        : lift.trim() === ""
          ? ""
          : `${event} ${angle} by ${lift}${motion ? ` ${motion}` : ""}`;
    if (next && next !== said) put(next);
  };
  return (
    <tr>
      <td className="pr-3">
        <select
          className="field"
          aria-label={`Event ${number}`}
          value={event}
          onChange={(e) => {
            setRow([e.target.value, angle, lift, motion]);
            write(e.target.value, angle, lift, motion);
          }}
        >
          {EVENTS.map((each) => (
            <option key={each}>{each}</option>
          ))}
        </select>
      </td>
      <Cell
        label={`Angle of event ${number}`}
        value={angle}
        type={(typed) => setRow([event, typed, lift, motion])}
        done={() => write(event, angle, lift, motion)}
      />
      <Cell
        label={`Lift of event ${number}`}
        value={event === "dwell" ? "" : lift}
        disabled={event === "dwell"}
        type={(typed) => setRow([event, angle, typed, motion])}
        done={() => write(event, angle, lift, motion)}
      />
      <td className="pr-3">
        <select
          className="field"
          aria-label={`Motion of event ${number}`}
          value={event === "dwell" ? "" : motion}
          disabled={event === "dwell"}
          onChange={(e) => {
            setRow([event, angle, lift, e.target.value]);
            write(event, angle, lift, e.target.value);
          }}
        >
          <option value="">{event === "dwell" ? "stands" : "usual (harmonic)"}</option>
          {motions.map((each) => (
            <option key={each}>{each}</option>
          ))}
        </select>
      </td>
      <td>
        <button className="act" aria-label={`Strike out event ${number}`} onClick={() => put("")}>
          ×
        </button>
      </td>
    </tr>
  );
}

interface CellProps {
  label: string;
  value: string;
  disabled?: boolean;
  type: (typed: string) => void;
  done: () => void;
}

function Cell({ label, value, disabled, type, done }: CellProps) {
  return (
    <td className="pr-3">
      <input
        className="field w-24"
        aria-label={label}
        value={value}
        disabled={disabled}
        onChange={(event) => type(event.target.value)}
        onBlur={done}
        onKeyDown={(event) => event.key === "Enter" && done()}
      />
    </td>
  );
}
