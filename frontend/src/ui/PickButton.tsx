import { useBench } from "../state/bench";

/** Turns the next click on the sheet into a reference. */
export function PickButton({ wanted, take }: { wanted: string; take: (name: string) => void }) {
  const pick = useBench((bench) => bench.pick);
  const set = useBench((bench) => bench.set);
  return (
    <button
      type="button"
      className="act"
      aria-label={`Pick ${wanted} on the sheet`}
      title={`Pick ${wanted} on the sheet`}
      aria-pressed={pick?.wanted === wanted}
      onClick={() =>
        set({
          pick: {
            wanted,
            take: (name) => {
              set({ pick: null });
              take(name);
            },
          },
        })
      }
    >
      pick
    </button>
  );
}
