import { useBench } from "../state/bench";

interface Props {
  id?: string;
  message: string;
  mend?: string | null;
  line: number;
}

/** A mistake, where it stands, with its mend. */
export function Mistake({ id, message, mend, line }: Props) {
  const edit = useBench((bench) => bench.edit);
  return (
    <div id={id} role="alert" className="slip my-1 border-l-4 border-l-accent px-2 py-1">
      <span aria-hidden="true" className="font-semibold text-accent">
        ✗{" "}
      </span>
      {message}
      {mend && (
        <button className="act ml-2" title={mend} onClick={() => void edit({ op: "line", line, text: mend })}>
          Mend it
        </button>
      )}
    </div>
  );
}
