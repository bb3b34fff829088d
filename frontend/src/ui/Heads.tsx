interface HeadsProps {
  of: readonly string[];
  /** Which columns hold figures, and stand to the right. */
  figures?: readonly number[];
  /** What a column without a head is called by assistive technology. */
  unseen?: Readonly<Record<number, string>>;
  /** Whether the table has a border, from which its cells keep away. */
  boxed?: boolean;
}

/** The heads of the columns of a table. */
export function Heads({ of, figures = [], unseen = {}, boxed = false }: HeadsProps) {
  return (
    <thead>
      <tr className="border-b border-ink align-bottom">
        {of.map((head, column) => (
          <th
            key={column}
            scope="col"
            className={`font-semibold ${boxed ? "px-2" : "pr-3"} ${figures.includes(column) ? "text-right" : "text-left"}`}
          >
            {head || <span className="sr-only">{unseen[column]}</span>}
          </th>
        ))}
      </tr>
    </thead>
  );
}
