import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useEffect, useLayoutEffect, useRef, useState } from "react";
import { type Entry, type Mark, Problem, type Work, worksheet } from "../api/client";
import { downloadWorksheet } from "../api/files";
import { MarkShape } from "../sheet/MarkShape";
import { Tabled } from "../ui/Tabled";
import { useSome } from "../state/document";
import { look } from "../state/looks";
import { Events } from "./Events";
import { Button } from "../ui/Button";

/** A worksheet: the drawing of a cam or a gear that turns, and its tables, where the sheet lies otherwise. */
export function Worksheet({ entry, work }: { entry: Entry; work: Work }) {
  const { text } = useSome("text");
  const [turn, setTurn] = useState(0);
  const [running, setRunning] = useState(false);
  const [told, setTold] = useState("");
  const heading = useRef<HTMLHeadingElement>(null);
  const { data, error } = useQuery({
    queryKey: ["worksheet", text, entry.line, turn],
    queryFn: () => worksheet({ body: { text, line: entry.line, turn } }),
    enabled: entry.worksheet,
    placeholderData: keepPreviousData,
    gcTime: 10_000,
  });
  useLayoutEffect(() => heading.current?.focus(), []);
  const drawn = data?.display;
  useEffect(() => {
    // The next moment is asked for when this one is drawn: a slow desk turns more slowly, it does not fall behind.
    if (!running || !drawn) return;
    const later = setTimeout(() => setTurn((at) => (at + 3) % 360), 40);
    return () => clearTimeout(later);
  }, [running, drawn]);
  const take = async (format: "pdf" | "csv", table?: number) => {
    try {
      setTold(
        `${await downloadWorksheet(format, { text, line: entry.line, turn, table })} is in your downloads.`,
      );
    } catch (fault) {
      setTold(fault instanceof Error ? fault.message : String(fault));
    }
  };
  return (
    <section
      aria-label={`Worksheet of ${entry.name}`}
      className="flex min-h-0 flex-1 flex-col overflow-auto bg-table p-3"
    >
      <div className="slip flex shrink-0 flex-wrap items-center gap-2 px-3 py-2">
        <h2 ref={heading} tabIndex={-1} className="flex-1 font-semibold">
          {data?.title ?? "Worksheet"}: {entry.name}
        </h2>
        <Button onClick={() => void take("pdf")}>Print</Button>
        <Button onClick={() => look({ worksheet: null })}>Back to the sheet</Button>
      </div>
      {(entry.error ?? error) && (
        <p role="alert" className="slip shrink-0 px-3 py-2 text-accent">
          ✗ {entry.error?.message ?? (error instanceof Problem ? error.detail : String(error))}
        </p>
      )}
      {told && (
        <p role="status" className="slip px-3 py-1">
          {told}
        </p>
      )}
      {data && (
        <>
          <svg
            viewBox={`0 0 ${data.display.width} ${data.display.height}`}
            className="sheet block w-full shrink-0 bg-paper"
            fill="none"
            role="img"
            aria-label={`${data.title}, ${data.told}`}
          >
            {(data.display.marks as unknown as Mark[]).map((mark, i) => (
              <MarkShape
                key={i}
                mark={mark}
                height={data.display.height}
                className={`mark-${mark.role}`}
                width={mark.kind === "dot" ? 0.9 : work.strokes[mark.role]?.width}
              />
            ))}
          </svg>
          {data.turns && (
            <div className="slip flex shrink-0 flex-wrap items-center gap-3 px-3 py-2">
              <Button className="w-20" aria-pressed={running} onClick={() => setRunning(!running)}>
                {running ? "Stop" : "Run"}
              </Button>
              <label className="flex min-w-0 flex-1 items-center gap-2">
                <span className="whitespace-nowrap">{data.turns}</span>
                <input
                  type="range"
                  min={0}
                  max={360}
                  step={1}
                  value={turn}
                  aria-valuetext={data.told}
                  className="min-w-0 flex-1 accent-[#a23d16]"
                  onChange={(event) => {
                    setRunning(false);
                    setTurn(Number(event.target.value));
                  }}
                />
              </label>
              <output className="w-full text-base">{data.told}</output>
            </div>
          )}
          <p className="slip shrink-0 px-3 py-1 text-base">
            <span className="font-semibold">Caution.</span> {data.caution}
          </p>
          {entry.events && <Events entry={entry} events={entry.events} />}
          {data.tables.map((table, index) => (
            <div key={table.title} className="slip shrink-0 overflow-x-auto px-3 py-2">
              <div className="flex items-center gap-2">
                <h3 className="flex-1 font-semibold">{table.title}</h3>
                <Button aria-label={`Print ${table.title}`} onClick={() => void take("pdf", index)}>
                  Print
                </Button>
                <Button aria-label={`${table.title} as CSV`} onClick={() => void take("csv", index)}>
                  CSV
                </Button>
              </div>
              {table.note && <p className="text-base text-pencil">{table.note}</p>}
              <Tabled heads={table.columns} rows={table.rows} label={table.title} />
            </div>
          ))}
        </>
      )}
    </section>
  );
}
