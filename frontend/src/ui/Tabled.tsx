interface TabledProps {
  heads: readonly string[];
  rows: readonly (readonly string[])[];
}

/** A table of words and figures. */
export function Tabled({ heads, rows }: TabledProps) {
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
