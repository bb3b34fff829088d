import { look, useLooks } from "../state/looks";
import { Button } from "./Button";

/** Turns the next click on the sheet into a reference. */
export function PickButton({ wanted, take }: { wanted: string; take: (name: string) => void }) {
  const pick = useLooks((looks) => looks.pick);
  return (
    <Button
      type="button"

      aria-label={`Pick ${wanted} on the sheet`}
      title={`Pick ${wanted} on the sheet`}
      aria-pressed={pick?.wanted === wanted}
      onClick={() =>
        look({
          pick: {
            wanted,
            take: (name) => {
              look({ pick: null });
              take(name);
            },
          },
        })
      }
    >
      pick
    </Button>
  );
}
