import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { type ChoiceOut, type ChoicesOut, type Edit, sheetChoices, type Work } from "../api/client";
import { edit } from "../state/document";
import { Figures } from "../ui/Figures";
import { Mistake } from "./Mistake";

/** Title strip, units and sheet, with the arithmetic that places the view. */
export function SheetPage({ work }: { work: Work }) {
  const { data: choices } = useQuery({
    queryKey: ["sheet", work.text],
    queryFn: () => sheetChoices({ body: { text: work.text } }),
    placeholderData: keepPreviousData,
  });
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
          {(choices?.units ?? [work.unit]).map((unit) => (
            <option key={unit}>{unit}</option>
          ))}
        </select>
        <span className="text-pencil">what bare numbers mean; the numbers stay as written</span>
      </p>
      <Field label="Sheet" value={work.sheet.said} put={put("sheet")} hint={work.sheet.name} />
      {work.sheet.errors.map((error) => (
        <Mistake key={error.message} {...error} />
      ))}
      {choices && <Choices choices={choices} />}
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
function Choices({ choices: data }: { choices: ChoicesOut }) {
  const take = (said: string) => void edit({ op: "sheet", text: said });
  const scale = data.scales.find((choice) => choice.chosen);
  const scales = data.scales.map((choice) => ({
    ...choice,
    name: `${choice.name}${choice.fits ? "" : ", too large"}${choice.name === data.recommended ? ", the largest that fits" : ""}`,
  }));
  return (
    <>
      <Choice label="Paper" choices={data.papers} take={take} />
      <Choice label="Border" choices={data.borders} take={take} />
      <Choice label="Scale" choices={scales} take={take} />
      {scale && (
        <p className="pl-34 text-pencil">
          <Figures text={`at ${scale.name} ${scale.reason}`} />
        </p>
      )}
      <Choice label="Lettering" choices={data.letterings} take={take} />
    </>
  );
}

interface ChoiceProps {
  label: string;
  choices: readonly ChoiceOut[];
  take: (said: string) => void;
}

function Choice({ label, choices, take }: ChoiceProps) {
  const value = choices.find((choice) => choice.chosen)?.said ?? "";
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
        {value === "" && <option value="">as the sheet line above says</option>}
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
