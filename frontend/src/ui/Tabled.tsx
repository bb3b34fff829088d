import { Heads } from "./Heads";

interface TabledProps {
  heads: readonly string[];
  rows: readonly (readonly string[])[];
  /** What the table is called by assistive technology, where no heading stands before it. */
  label?: string;
  /** Which columns hold figures, and stand to the right. */
  figures?: readonly number[];
}

/** A table of words and figures. */
export function Tabled({ heads, rows, label, figures = [] }: TabledProps) {
  return (
    <div className="overflow-x-auto">
      <table className="w-full text-left text-base" aria-label={label}>
        <Heads of={heads} figures={figures} />
        <tbody>
          {rows.map((row, i) => (
            <tr key={i} className="border-b border-ruling">
              {row.map((cell, j) => (
                <td key={j} className={`py-0.5 pr-3 ${figures.includes(j) ? "text-right" : ""}`}>
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
