import { useRef, useState } from "react";
import type { Entry, EventOut, EventsOut } from "../api/client";
import { edit } from "../state/document";
import { useBrief } from "../state/server";
import { Button } from "../ui/Button";
import { Heads } from "../ui/Heads";
import { Understood } from "./Understood";

/** What the follower does, as a table to edit, as sentences, or from a file of stations. */
export function Events({ entry, events }: { entry: Entry; events: EventsOut }) {
  const [brief, setBrief] = useState("");
  const { read, error, statement } = useBrief(entry.line, brief);
  const file = useRef<HTMLInputElement>(null);
  const follow = async () => {
    if (await edit({ op: "line", line: entry.line, text: statement })) setBrief("");
  };
  return (
    <div className="slip shrink-0 px-3 py-2">
      <h3 className="font-semibold">What the follower does</h3>
      {events.rows.length > 0 && (
        <table className="text-left text-base" aria-label="Events to edit">
          <Heads of={["Event", "Angle", "Lift", "Motion", ""]} unseen={{ 4: "What can be done" }} />
          <tbody>
            {events.rows.map((said, at) => (
              <Row key={said.clause} line={entry.line} said={said} number={at + 1} may={events} />
            ))}
          </tbody>
        </table>
      )}
      <Button className="my-1" onClick={() => void edit({ op: "add event", line: entry.line })}>
        Add an event
      </Button>
      <label className="block text-base">
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
        <Button disabled={!statement} onClick={() => void follow()}>
          Follow this
        </Button>
        <Button onClick={() => file.current?.click()}>Stations from a file…</Button>
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
      <Understood read={read} error={error} />
    </div>
  );
}

interface RowProps {
  line: number;
  said: EventOut;
  number: number;
  may: EventsOut;
}

/** One event; what was typed is put into the plan, and judged there. */
function Row({ line, said, number, may }: RowProps) {
  const [last, setLast] = useState(said);
  const [row, setRow] = useState(said);
  if (said !== last) {
    setLast(said);
    setRow(said);
  }
  const write = (next: EventOut) => {
    setRow(next);
    if (next !== said) void edit({ op: "event", line, ...next });
  };
  /** Only a rise or a fall has a lift and a motion. */
  const moves = row.event !== may.still;
  return (
    <tr>
      <td className="pr-3">
        <select
          className="field"
          aria-label={`Event ${number}`}
          value={row.event}
          onChange={(e) => write({ ...row, event: e.target.value })}
        >
          {may.events.map((each) => (
            <option key={each}>{each}</option>
          ))}
        </select>
      </td>
      <Cell
        label={`Angle of event ${number}`}
        value={row.angle}
        type={(angle) => setRow({ ...row, angle })}
        done={() => write(row)}
      />
      <Cell
        label={`Lift of event ${number}`}
        value={moves ? row.lift : ""}
        disabled={!moves}
        type={(lift) => setRow({ ...row, lift })}
        done={() => write(row)}
      />
      <td className="pr-3">
        <select
          className="field"
          aria-label={`Motion of event ${number}`}
          value={moves ? row.motion : ""}
          disabled={!moves}
          onChange={(e) => write({ ...row, motion: e.target.value })}
        >
          <option value="">{moves ? `usual (${may.usual})` : "stands"}</option>
          {may.motions.map((each) => (
            <option key={each}>{each}</option>
          ))}
        </select>
      </td>
      <td>
        <Button
          aria-label={`Strike out event ${number}`}
          onClick={() => void edit({ op: "clause", line, clause: said.clause, text: "" })}
        >
          ×
        </Button>
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
