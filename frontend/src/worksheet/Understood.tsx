import { type BriefOut, Problem } from "../api/client";
import { Heads } from "../ui/Heads";

/** A brief as it was understood, an event to a row, and what was not; before anything is done with it. */
export function Understood({ read, error }: { read: BriefOut | undefined; error: Error | null }) {
  const why = error ? [error instanceof Problem ? error.detail : String(error)] : [];
  const misread = read?.misread.map((row) => `Part ${row.row}: ${row.message}.`) ?? [];
  return (
    <>
      {read && read.events.length > 0 && (
        <table className="mt-1 text-left text-base" aria-label="The brief as it was understood">
          <Heads of={["Event", "Angle", "From–to", "Lift", "Motion"]} />
          <tbody>
            {read.events.map((event, at) => (
              <tr key={at} title={event.sentence}>
                {[event.event, event.angle, event.span, event.lift, event.motion].map((cell, column) => (
                  <td key={column} className="pr-3 align-top">
                    {cell}
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {[...misread, ...why].map((row) => (
        <p key={row} role="alert" className="pt-1 text-base text-accent">
          ✗ {row}
        </p>
      ))}
    </>
  );
}
