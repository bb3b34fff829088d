import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useEffect, useRef, useState } from "react";
import { api, type ChoiceOut, type Edit, type WorkOut } from "../api/client";
import { useBench } from "../state/bench";
import { Figures } from "../ui/Figures";
import { Mistake } from "./Mistake";

/** Title strip, units and sheet, with the arithmetic that places the view. */
export function SheetPage({ work }: { work: WorkOut }) {
  const edit = useBench((bench) => bench.edit);
  const put = (key: Extract<Edit, { op: "head" }>["key"]) => (text: string) =>
    void edit({ op: "head", key, text });
  return (
    <section aria-label="The sheet and its title strip">
      <Field label="Title" value={work.title} put={put("plan")} />
      <Field label="Drawing number" value={work.drawing} put={put("drawing")} />
      <p className="flex items-baseline gap-2">
        <label htmlFor="units" className="w-32 shrink-0 font-semibold">
          Units
        </label>
        <select
          id="units"
          className="field"
          value={work.unit}
          onChange={(event) => put("units")(event.target.value)}
        >
          <option value="mm">mm</option>
          <option value="in">in</option>
        </select>
        <span className="text-pencil">what bare numbers mean; the numbers stay as written</span>
      </p>
      <Field label="Sheet" value={work.sheet.said} put={put("sheet")} hint={work.sheet.name} />
      {work.sheet.errors.map((error) => (
        <Mistake key={error.message} message={error.message} line={error.line} />
      ))}
      <Choices work={work} put={put("sheet")} />
      <h2 className="pt-7 text-lg font-semibold">Where the view stands</h2>
      {work.sheet.working.map((row) => (
        <p key={row} className="font-lettering">
          <Figures text={row} />
        </p>
      ))}
    </section>
  );
}

/** Paper, border, scale and lettering to choose from; the sheet line says what was chosen. */
function Choices({ work, put }: { work: WorkOut; put: (text: string) => void }) {
  const { data } = useQuery({
    queryKey: ["sheet", work.text],
    queryFn: () => api.sheetChoices(work.text),
    placeholderData: keepPreviousData,
  });
  // What was chosen last, even if the desk has not answered yet: the next choice starts from it.
  const latest = useRef(work.sheet.said);
  useEffect(() => {
    latest.current = work.sheet.said;
  }, [work.sheet.said]);
  if (!data) return null;
  const clauses = clausesOf(work.sheet.said);
  const say = (begins: RegExp, clause: string) => {
    const rest = clausesOf(latest.current).filter((said) => !begins.test(said));
    const paper = begins === PAPER ? clause : rest.find((said) => PAPER.test(said));
    const others = rest.filter((said) => !PAPER.test(said));
    latest.current = [paper, ...others, ...(begins === PAPER ? [] : [clause])].filter(Boolean).join(", ");
    put(latest.current);
  };
  const taken = (choices: readonly ChoiceOut[]) => choices.find((c) => clauses.includes(c.said))?.said ?? "";
  const scale = data.scales.find((choice) => choice.chosen);
  const lettering = clauses.find((said) => LETTERING.test(said)) ?? "dimensions aligned";
  return (
    <>
      <Choice
        label="Paper"
        value={taken(data.papers)}
        choices={data.papers}
        take={(said) => say(PAPER, said)}
      />
      <Choice
        label="Border"
        value={taken(data.borders)}
        choices={data.borders}
        take={(said) => say(/^border\b/, said)}
      />
      <Choice
        label="Scale"
        value={scale?.said ?? ""}
        choices={data.scales.map((c) => ({
          ...c,
          name: `${c.name}${c.fits ? "" : ", too large"}${c.name === data.recommended ? ", the largest that fits" : ""}`,
        }))}
        take={(said) => say(/^scale\b/, said)}
      />
      {scale && (
        <p className="pl-34 text-pencil">
          <Figures text={`at ${scale.name} ${scale.reason}`} />
        </p>
      )}
      <Choice
        label="Lettering"
        value={lettering}
        choices={[
          { name: "along the dimension line", said: "dimensions aligned" },
          { name: "always level", said: "dimensions unidirectional" },
        ]}
        take={(said) => say(LETTERING, said)}
      />
    </>
  );
}

const clausesOf = (said: string) => (said ? said.split(/,\s*/) : []);
const PAPER = /^(A\d\b|[\d./ ]+(in )?by\b)/;
const LETTERING = /^dimensions\b/;

interface ChoiceProps {
  label: string;
  value: string;
  choices: readonly { name: string; said: string }[];
  take: (said: string) => void;
}

function Choice({ label, value, choices, take }: ChoiceProps) {
  const id = `sheet-${label.toLowerCase()}`;
  return (
    <p className="flex items-baseline gap-2">
      <label htmlFor={id} className="w-32 shrink-0 font-semibold">
        {label}
      </label>
      <select
        id={id}
        className="field min-w-0 flex-1"
        value={value}
        onChange={(event) => take(event.target.value)}
      >
        {value === "" && <option value="">as said above</option>}
        {choices.map((choice) => (
          <option key={choice.said} value={choice.said}>
            {choice.name}
          </option>
        ))}
      </select>
    </p>
  );
}

function Field({
  label,
  value,
  put,
  hint,
}: {
  label: string;
  value: string;
  put: (text: string) => void;
  hint?: string;
}) {
  const [typed, setTyped] = useState<string | null>(null);
  const done = () => {
    if (typed !== null && typed.trim() !== value) put(typed);
    setTyped(null);
  };
  const id = label.toLowerCase().replace(" ", "-");
  return (
    <p className="flex items-baseline gap-2">
      <label htmlFor={id} className="w-32 shrink-0 font-semibold">
        {label}
      </label>
      <input
        id={id}
        className="field min-w-0 flex-1"
        value={typed ?? value}
        placeholder={hint}
        spellCheck={false}
        autoComplete="off"
        onChange={(event) => setTyped(event.target.value)}
        onBlur={done}
        onKeyDown={(event) => event.key === "Enter" && done()}
      />
    </p>
  );
}
