import { useLayoutEffect, useRef } from "react";
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
      <p className="text-pencil">The rule: {tests}.</p>
      {verdict.picture && <img src={verdict.picture} alt="" className="max-h-40" />}
      <ul className="py-1 text-pencil">
        {verdict.working.map((row) => (
          <li key={row}>
            <Figures text={row} />
          </li>
        ))}
      </ul>
      <Button ref={on} main className="text-lg" onClick={next}>
        On
      </Button>
    </div>
  );
}
