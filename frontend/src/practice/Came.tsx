import { useLayoutEffect, useRef, useState } from "react";
import type { VerdictInPractice } from "../api/client";
import { Button } from "../ui/Button";
import { Figures } from "../ui/Figures";

/** What came of an answer. */
export function Came({
  verdict,
  tests,
  next,
}: {
  verdict: VerdictInPractice;
  tests: string;
  next: () => void;
}) {
  const on = useRef<HTMLButtonElement>(null);
  useLayoutEffect(() => on.current?.focus(), []);
  // What was wrong is gone through a row at a time.
  const [rows, setRows] = useState(verdict.share === 1 ? verdict.working.length : 1);
  return (
    <div className="border-l-4 border-ink pl-3" role="status" data-testid="came">
      <p className="text-lg font-semibold">
        {verdict.share === 1 ? "✓ " : verdict.share > 0 ? "½ " : "✗ "}
        {verdict.told}
      </p>
      {verdict.share < 1 && (
        <p className="text-lg">
          It is <Figures text={verdict.right} />.
        </p>
      )}
      {verdict.played.length > 0 && (
        <p className="text-pencil">
          On the sheet: dashed as it comes out with that answer, in ink as it is meant.
        </p>
      )}
      {verdict.played_told && <p>{verdict.played_told}</p>}
      <p className="text-pencil">The rule: {tests}.</p>
      {verdict.picture && <img src={verdict.picture} alt="" className="max-h-40" />}
      <ol className="py-1 text-pencil">
        {verdict.working.slice(0, rows).map((row) => (
          <li key={row}>
            <Figures text={row} />
          </li>
        ))}
      </ol>
      <Button ref={on} main className="text-lg" onClick={next}>
        On
      </Button>{" "}
      {rows < verdict.working.length && (
        <Button className="text-lg" onClick={() => setRows(rows + 1)}>
          The next row of the working
        </Button>
      )}
    </div>
  );
}
