import { useVocabulary } from "../state/server";
import { look, useLook } from "../state/looks";
import { lineIn } from "../state/asking";
import { Button } from "../ui/Button";

const outlines = (count: number) => `${count} statement${count === 1 ? "" : "s"}`;

/** What is being lined in by region, as what, and what to do with it. */
export function RegionBar() {
  const { regions } = useLook("regions");
  const data = useVocabulary();
  if (!regions) return null;
  const count = regions.spots.length;
  return (
    <div
      role="group"
      aria-label="Line in by region"
      className="absolute inset-x-6 top-1 flex flex-wrap items-center gap-2 bg-ink px-3 py-1 text-page"
    >
      <span role="status" className="min-w-0 flex-1">
        {regions.told ||
          (count === 0
            ? "Click inside every region that is material; or move the cross with the arrow keys, and Enter."
            : `${count} region${count > 1 ? "s" : ""} pointed at; written down, the boundary makes ${outlines(regions.found?.statements.length ?? 0)}`)}
      </span>
      <span role="radiogroup" aria-label="Lined in as" className="flex gap-3">
        {data?.kinds
          .filter((kind) => kind.lines_in)
          .sort((a) => (a.lines_in === "outline" ? -1 : 1))
          .map((kind) => (
            <label key={kind.name} className="flex items-center gap-1" title={kind.summary}>
              <input
                type="radio"
                name="lined-in-as"
                className="size-4"
                checked={regions.kind === kind.name}
                onChange={() => look({ regions: { kind: kind.name, spots: [], found: null, told: "" } })}
              />
              {kind.name}
            </label>
          ))}
      </span>
      <Button disabled={!regions.found} onClick={() => void lineIn()}>
        Write it down
      </Button>
      <Button onClick={() => look({ regions: null })}>Leave off</Button>
    </div>
  );
}
