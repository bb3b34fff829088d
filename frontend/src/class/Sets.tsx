import { useQuery, useQueryClient } from "@tanstack/react-query";
import { inWords, keepSet, listSets, putSetAway } from "../api/client";
import { Button } from "../ui/Button";
import { FileButton } from "../ui/FileButton";

/** By which the sets of the register are remembered. */
export const SETS = ["sets"];

interface Props {
  /** The set that is open, 0 for none. */
  open: number;
  choose: (set: number) => void;
  told: (words: string) => void;
}

/** The sets of the register: opened, put away and back; one from disk is taken in. */
export function Sets({ open, choose, told }: Props) {
  const queries = useQueryClient();
  const { data, error } = useQuery({ queryKey: SETS, queryFn: () => listSets() });
  const come = () => queries.invalidateQueries({ queryKey: SETS });
  const after = (change: Promise<unknown>) =>
    void change.then(come).catch((problem: unknown) => told(inWords(problem)));
  return (
    <section aria-labelledby="sets" className="space-y-2">
      <h2 id="sets" className="text-lg font-semibold">
        Sets
      </h2>
      {error && <p role="alert">{error.message}</p>}
      {data?.sets.length === 0 && (
        <p>
          No set has been made yet. One is made below: papers with a key, marked from the answers that come
          back.
        </p>
      )}
      <ul>
        {data?.sets.map((set) => (
          <li
            key={set.id}
            className={`flex flex-wrap items-center gap-2 border-b border-ruling py-1 ${set.id === open ? "bg-wash" : ""}`}
          >
            <button
              className={`min-w-40 flex-1 text-left underline ${set.removed ? "line-through" : ""}`}
              aria-pressed={set.id === open}
              onClick={() => choose(set.id === open ? 0 : set.id)}
            >
              {set.title}
            </button>
            <span className="text-sm text-pencil">
              {set.students} students · {new Date(set.made_at).toLocaleDateString()}
            </span>
            <Button
              aria-label={`${set.removed ? "Put back" : "Put away"} ${set.title}`}
              onClick={() => after(putSetAway({ path: { set_id: set.id }, body: { removed: !set.removed } }))}
            >
              {set.removed ? "Put back" : "Put away"}
            </Button>
          </li>
        ))}
      </ul>
      <FileButton
        label="A set from disk"
        accept=".json"
        take={(file) =>
          after(
            file
              .text()
              .then((set) => keepSet({ body: { set } }))
              .then((kept) => choose(kept.id)),
          )
        }
      >
        A set from disk…
      </FileButton>
    </section>
  );
}
