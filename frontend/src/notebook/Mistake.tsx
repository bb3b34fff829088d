import type { Meaning } from "../api/client";
import { Link } from "react-router";
import { edit } from "../state/document";
import { addressOf } from "../state/handbook";
import { Button } from "../ui/Button";

interface Props {
  id?: string;
  message: string;
  mend?: string | null;
  meant?: readonly Meaning[];
  /** What it only follows from: that is to be mended, not this. */
  cause?: string;
  /** A line that has to stand elsewhere, and where. */
  moved?: readonly unknown[] | null;
  line: number;
  /** Of which kind the statement is, for its page in the handbook. */
  kind?: string;
}

/** A mistake, where it stands, with its mend, or what may have been meant. */
export function Mistake({ id, message, mend, meant, cause, moved, line, kind }: Props) {
  if (cause)
    return (
      <div id={id} className="my-1 px-2 text-pencil">
        <span aria-hidden="true">· </span>
        {message}
      </div>
    );
  const [from, to] = (moved ?? []).map(Number);
  return (
    <div id={id} role="alert" className="slip my-1 border-l-4 border-l-accent px-2 py-1">
      <span aria-hidden="true" className="font-semibold text-accent">
        ✗{" "}
      </span>
      {message}
      {mend && (
        <Button className="ml-2" onClick={() => void edit({ op: "line", line, text: mend })}>
          Mend it: {mend}
        </Button>
      )}
      {from && to && (
        <Button className="ml-2" onClick={() => void edit({ op: "move", line: from, to })}>
          Move it
        </Button>
      )}
      {kind && (
        <Link className="ml-2 text-sm underline" to={addressOf("constructions", kind)}>
          {kind} in the handbook
        </Link>
      )}
      {meant && meant.length > 0 && (
        <div className="my-1 flex flex-wrap gap-1">
          {meant.map((way) => (
            <Button
              key={way.words}
              title={way.line}
              onClick={() => void edit({ op: "line", line, text: way.line })}
            >
              {way.words}
            </Button>
          ))}
        </div>
      )}
    </div>
  );
}
