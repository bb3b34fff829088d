import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { compareMethods, type Entry, type Mark } from "../api/client";
import { MarkShape } from "../sheet/MarkShape";
import { edit, useSome } from "../state/document";
import { Figures } from "../ui/Figures";
import { Button } from "../ui/Button";

/** The methods of a construction side by side: small pictures at the actual proportions, what each takes and costs. */
export function Methods({ entry }: { entry: Entry }) {
  const { text } = useSome("text");
  const [shown, setShown] = useState(false);
  const { data } = useQuery({
    queryKey: ["methods", text, entry.line],
    queryFn: () => compareMethods({ body: { text, line: entry.line } }),
    enabled: shown,
  });
  return (
    <div>
      <Button aria-expanded={shown} onClick={() => setShown(!shown)}>
        {shown ? "Put the methods away" : "Compare methods"}
      </Button>
      {shown && data && data.methods.length === 0 && <p className="text-pencil">There is only one.</p>}
      {shown && data && data.methods.length > 0 && (
        <ul className="mt-2 space-y-2 text-base">
          {data.methods.map((method) => (
            <li key={method.said} className="flex flex-wrap gap-x-3 border-b border-ruling pb-2">
              <Button
                className="w-36 shrink-0"
                aria-pressed={method.chosen}
                onClick={() => void edit({ op: "line", line: entry.line, text: method.row })}
              >
                <Picture marks={method.marks as unknown as Mark[]} box={data.box} />
                {method.said}
              </Button>
              <dl className="grid min-w-40 flex-1 grid-cols-[auto_1fr] content-start gap-x-2">
                {(
                  [
                    ["settings", String(method.settings)],
                    ["with", method.instruments.join(", ")],
                    ["how close", method.told],
                  ] as const
                ).map(([word, told]) => (
                  <div key={word} className="contents">
                    <dt className="text-pencil">{word}</dt>
                    <dd>
                      <Figures text={told} />
                    </dd>
                  </div>
                ))}
              </dl>
            </li>
          ))}
        </ul>
      )}
    </div>
  );
}

function Picture({ marks, box }: { marks: Mark[]; box: readonly [number, number, number, number] }) {
  const [x, y, width, height] = box;
  const room = 0.04 * Math.max(width, height);
  const top = y + height;
  const stroke = Math.max(width, height) / 110;
  return (
    <svg
      viewBox={`${x - room} ${-room} ${width + 2 * room} ${height + 2 * room}`}
      className="sheet mb-1 block h-24 w-full bg-paper"
      fill="none"
      aria-hidden="true"
    >
      {marks.map((mark, i) => (
        <MarkShape
          key={i}
          mark={mark}
          height={top}
          className={mark.kind === "run" ? "mark-outline" : "mark-construction"}
          width={mark.kind === "dot" ? stroke : mark.kind === "run" ? 1.6 * stroke : 0.6 * stroke}
        />
      ))}
    </svg>
  );
}
