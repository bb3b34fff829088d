import { useQuery, useQueryClient } from "@tanstack/react-query";
import { BarController, BarElement, CategoryScale, Chart, LinearScale } from "chart.js";
import { useEffect, useRef } from "react";
import { Link } from "react-router";
import { api, type SittingOut } from "../api/client";
import { standing } from "../state/sitting";
import { Header } from "./Header";

/** Height of the chart apart from its bars, and of each bar, px. */
const ROOM = 50;
const EACH = 24;

Chart.register(BarController, BarElement, CategoryScale, LinearScale);

/** The logbook: sittings, and what they teach of one's own hand. */
export function LogbookPage() {
  const { data, error } = useQuery({ queryKey: ["logbook"], queryFn: api.logbook });
  const queries = useQueryClient();
  useEffect(() => {
    document.title = "Logbook · Entrick";
  }, []);
  const remove = async (sitting: SittingOut) => {
    await api.removeSitting(sitting.uid, !sitting.removed);
    await queries.invalidateQueries({ queryKey: ["logbook"] });
  };
  return (
    <div className="flex h-full flex-col">
      <Header>
        <h1>Logbook</h1>
        <span className="flex-1" />
        <a className="act" href="/api/logbook.csv" download>
          As CSV
        </a>
        <a className="act" href="/api/logbook" download="logbook.json">
          As JSON
        </a>
      </Header>
      <main className="min-h-0 flex-1 overflow-auto p-6 max-[700px]:p-1">
        <div className="mx-auto max-w-4xl space-y-6 bg-page px-8 py-6 max-[700px]:px-3">
          {error && <p role="alert">{error.message}</p>}
          {data?.sittings.length === 0 && (
            <p>
              Nothing has been drawn yet. <em>At the board</em>, on the bench of any job, goes through its
              steps and keeps what happens here.
            </p>
          )}
          {data && data.sittings.length > 0 && (
            <>
              <section>
                <h2 className="text-lg font-semibold">Sittings</h2>
                <div className="overflow-x-auto">
                  <table className="w-full min-w-[34rem] text-left">
                    <thead>
                      <tr className="border-y border-ink text-sm">
                        {["Begun", "Job", "Revision", "Steps", "Minutes", "Slips", ""].map((head, i) => (
                          <th key={i} scope="col" className="pr-3 font-semibold">
                            {head || <span className="sr-only">What can be done</span>}
                          </th>
                        ))}
                      </tr>
                    </thead>
                    <tbody>
                      {data.sittings.map((sitting) => (
                        <Row key={sitting.uid} sitting={sitting} remove={() => void remove(sitting)} />
                      ))}
                    </tbody>
                  </table>
                </div>
              </section>
              {data.pace.length > 0 && (
                <section>
                  <h2 className="text-lg font-semibold">How long a step takes</h2>
                  <Bars
                    labels={data.pace.map((pace) => pace.tool)}
                    values={data.pace.map((pace) => pace.seconds)}
                    unit="seconds, median"
                  />
                  <Tabled
                    heads={["Instrument", "Seconds, median", "Steps it rests on"]}
                    rows={data.pace.map((pace) => [pace.tool, pace.seconds.toFixed(0), String(pace.count)])}
                  />
                </section>
              )}
              {data.spreads.length > 0 && (
                <section>
                  <h2 className="text-lg font-semibold">Measured less computed</h2>
                  <Bars
                    labels={data.spreads.map((spread) => spread.tool)}
                    values={data.spreads.map((spread) => spread.bias)}
                    unit="bias, mm on paper"
                  />
                  <Tabled
                    heads={["Instrument", "Values", "Bias", "Spread", "What to do"]}
                    rows={data.spreads.map((spread) => [
                      spread.tool,
                      String(spread.count),
                      `${spread.bias.toFixed(2)} ± ${spread.bias_off.toFixed(2)}`,
                      `${spread.spread.toFixed(2)} (${spread.low.toFixed(2)} to ${spread.high.toFixed(2)})`,
                      spread.hint || "nothing: the bias may be none",
                    ])}
                  />
                  <p className="text-sm text-pencil">
                    mm on paper, or degrees; the intervals hold in 95 of 100 cases.
                  </p>
                </section>
              )}
              {data.slips.length > 0 && (
                <section>
                  <h2 className="text-lg font-semibold">Slips</h2>
                  <Tabled
                    heads={["Slip", "Times"]}
                    rows={data.slips.map((slip) => [slip.told, String(slip.count)])}
                  />
                </section>
              )}
            </>
          )}
        </div>
      </main>
    </div>
  );
}

function Row({ sitting, remove }: { sitting: SittingOut; remove: () => void }) {
  const events = standing(sitting.events);
  const done = events.filter((event) => event.kind === "done");
  const seconds = done.reduce((sum, event) => sum + (event.seconds ?? 0), 0);
  const slips = events.filter((event) => event.kind === "slip").length;
  return (
    <tr className={`border-b border-ruling ${sitting.removed ? "text-pencil line-through" : ""}`}>
      <td className="pr-3">{new Date(sitting.started_at).toLocaleString()}</td>
      <td className="pr-3">
        <Link className="underline" to={`/jobs/${sitting.job}`}>
          {sitting.title || `job ${sitting.job}`}
        </Link>
        {sitting.rehearsed && <span className="block text-sm text-pencil">rehearsed, not drawn</span>}
      </td>
      <td className="pr-3">{sitting.revision}</td>
      <td className="pr-3">{done.length}</td>
      <td className="pr-3">{Math.round(seconds / 60)}</td>
      <td className="pr-3">{slips}</td>
      <td className="text-right">
        <button className="act" onClick={remove}>
          {sitting.removed ? "Put back" : "Take out"}
          <span className="sr-only"> the sitting of {sitting.title}</span>
        </button>
      </td>
    </tr>
  );
}

function Tabled({ heads, rows }: { heads: readonly string[]; rows: readonly (readonly string[])[] }) {
  return (
    <div className="overflow-x-auto">
      <table className="w-full text-left text-[15px]">
        <thead>
          <tr className="border-b border-ink">
            {heads.map((head) => (
              <th key={head} scope="col" className="pr-3 font-semibold">
                {head}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map((row, i) => (
            <tr key={i} className="border-b border-ruling">
              {row.map((cell, j) => (
                <td key={j} className="pr-3">
                  {cell}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

/** Bars, for those who would rather look than read; the table under them says the same. */
function Bars({ labels, values, unit }: { labels: string[]; values: number[]; unit: string }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    if (!canvas.current) return;
    const ink = getComputedStyle(document.documentElement).getPropertyValue("--color-ink");
    const chart = new Chart(canvas.current, {
      type: "bar",
      data: { labels, datasets: [{ data: values, backgroundColor: "#70736b", barPercentage: 0.5 }] },
      options: {
        indexAxis: "y",
        animation: false,
        maintainAspectRatio: false,
        plugins: { legend: { display: false } },
        scales: {
          y: { ticks: { autoSkip: false } },
          x: { title: { display: true, text: unit, color: ink } },
        },
      },
    });
    return () => chart.destroy();
  }, [labels, values, unit]);
  return (
    <div
      className="not-on-paper relative"
      style={{ height: `${ROOM + EACH * labels.length}px` }}
      aria-hidden="true"
    >
      <canvas ref={canvas} />
    </div>
  );
}
