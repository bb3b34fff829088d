import { BarController, BarElement, CategoryScale, Chart, LinearScale } from "chart.js";
import { useEffect, useRef } from "react";

/** Height of the chart apart from its bars, of each bar, and of a chart whose bars stand up, px. */
const ROOM = 50;
const EACH = 24;
const UPRIGHT = 160;

Chart.register(BarController, BarElement, CategoryScale, LinearScale);

interface BarsProps {
  labels: string[];
  values: number[];
  unit: string;
  /** Whether the bars stand up, one after another, instead of lying under each other. */
  upright?: boolean;
}

/** Bars, for those who would rather look than read; the table beside them says the same. */
export function Bars({ labels, values, unit, upright = false }: BarsProps) {
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    if (!canvas.current) return;
    const ink = getComputedStyle(document.documentElement).getPropertyValue("--color-ink");
    const chart = new Chart(canvas.current, {
      type: "bar",
      data: { labels, datasets: [{ data: values, backgroundColor: "#70736b", barPercentage: 0.5 }] },
      options: {
        indexAxis: upright ? "x" : "y",
        animation: false,
        maintainAspectRatio: false,
        plugins: { legend: { display: false } },
        scales: {
          [upright ? "x" : "y"]: { ticks: { autoSkip: upright } },
          [upright ? "y" : "x"]: { title: { display: true, text: unit, color: ink } },
        },
      },
    });
    return () => chart.destroy();
  }, [labels, values, unit, upright]);
  return (
    <div
      className="not-on-paper relative"
      style={{ height: `${upright ? UPRIGHT : ROOM + EACH * labels.length}px` }}
      aria-hidden="true"
    >
      <canvas ref={canvas} />
    </div>
  );
}
