/** What a page that has nothing to show yet will be, and how to begin: a few steps across its width. */
export function Steps({ each }: { each: readonly (readonly [what: string, told: string])[] }) {
  return (
    <ol className="grid gap-3 py-2 text-base min-[700px]:grid-cols-3">
      {each.map(([what, told], i) => (
        <li key={what} className="border-t-2 border-ink pt-2">
          <p className="text-lg font-semibold">
            <span className="text-pencil">{i + 1} </span>
            {what}
          </p>
          <p>{told}</p>
        </li>
      ))}
    </ol>
  );
}
