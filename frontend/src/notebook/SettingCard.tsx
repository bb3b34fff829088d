import { useState } from "react";
import type { ClauseOut, Entry, FormOut, KindOut, StepOut, Work } from "../api/client";
import { edit } from "../state/document";
import { Link } from "react-router";
import { addressOf } from "../state/handbook";
import { look, useLook } from "../state/looks";
import { openUp } from "../state/asking";
import { Figures } from "../ui/Figures";
import { PickButton } from "../ui/PickButton";
import { Words } from "../ui/Words";
import { Methods } from "./Methods";
import { Button } from "../ui/Button";

interface Props {
  entry: Entry;
  work: Work;
  kind: KindOut | undefined;
}

/** What to set on which instrument, the working, the usual mistake, the candidates, and the clauses to edit. */
export function SettingCard({ entry, work, kind }: Props) {
  const { step, opened, worksheet } = useLook("step", "opened", "worksheet");
  const steps = work.steps.filter((s) => s.line === entry.line);
  const current =
    steps.find((s) => s.number === step) ??
    steps.find((s) => s.setting && !s.setting.is_angle) ??
    steps.find((s) => s.setting);
  const order = work.entries.filter((e) => !e.comment).map((e) => e.line);
  const at = order.indexOf(entry.line);
  const move = async (to: number | undefined) => {
    if (to === undefined) return;
    if (await edit({ op: "move", line: entry.line, to })) look({ open: to });
  };
  return (
    <article
      className="slip mb-2 ml-10 space-y-2 p-3"
      aria-label={`Setting card of ${entry.name || "this line"}`}
    >
      {entry.candidates.length > 0 && <Candidates entry={entry} />}
      {current?.setting && <SettingPicture step={current} />}
      {entry.working.length > 0 && (
        <ul className="font-lettering text-base" aria-label="Working">
          {entry.working.map((row) => (
            <li key={row}>
              <Figures text={row} />
            </li>
          ))}
        </ul>
      )}
      {entry.worksheet && (
        <Button
          aria-pressed={worksheet === entry.line}
          onClick={() => look({ worksheet: worksheet === entry.line ? null : entry.line })}
        >
          Worksheet
        </Button>
      )}
      {entry.has_methods && !entry.error && <Methods entry={entry} />}
      {steps.length > 0 && (
        <ol aria-label="Steps" className="border-t border-rim pt-1">
          {steps.map((s) => (
            <li key={s.number}>
              <button
                className={`w-full px-1 py-1 text-left hover:bg-wash ${s.number === step ? "bg-wash" : ""}`}
                aria-pressed={s.number === step}
                onClick={() => look({ step: s.number === step ? null : s.number })}
              >
                <span className="text-pencil">
                  {s.number} · {s.tool}
                </span>{" "}
                {s.setting && (
                  <strong key={s.setting.reading} className="changed">
                    <Figures text={s.setting.reading} />
                  </strong>
                )}{" "}
                {s.text}
                {s.check && (
                  <span className="block text-sm text-pencil">
                    check: <Figures text={s.check} />
                  </span>
                )}
              </button>
              {s.opens && (
                <Button
                  className="ml-1"
                  aria-expanded={opened?.step === s.number}
                  aria-label={`${opened?.step === s.number ? "Close" : "Open up"} step ${s.number} in compass and straight edge`}
                  onClick={() => void openUp(s.number)}
                >
                  {opened?.step === s.number ? "Close" : "Open up"}
                </Button>
              )}
              {opened?.step === s.number && (
                <ol
                  aria-label={`Step ${s.number} with compass and straight edge`}
                  className="ml-6 list-[lower-alpha] border-l-2 border-accent pl-6"
                >
                  {opened.found.steps.map((each) => (
                    <li key={each.number}>
                      <button
                        className={`w-full align-top text-left hover:bg-wash ${each.number === opened.upTo ? "bg-wash" : ""}`}
                        aria-pressed={each.number === opened.upTo}
                        onClick={() => look({ opened: { ...opened, upTo: each.number } })}
                      >
                        {each.setting && (
                          <>
                            <strong>
                              <Figures text={each.setting.reading} />
                            </strong>{" "}
                          </>
                        )}
                        {each.text}
                      </button>
                    </li>
                  ))}
                </ol>
              )}
            </li>
          ))}
        </ol>
      )}
      {entry.mistake && (
        <p className="border-l-4 border-edge pl-2 text-base">
          <span className="font-semibold">Usual mistake.</span> {entry.mistake}
        </p>
      )}
      {kind && (
        <p className="text-base">
          <Link className="underline" to={addressOf("constructions", kind.name)}>
            {kind.name} in the handbook
          </Link>
        </p>
      )}
      <Words said={[entry.sentence, ...entry.working, ...steps.map((s) => `${s.text} ${s.check}`)]} />
      <Clauses entry={entry} kind={kind} />
      <div className="flex gap-1" role="group" aria-label="This line">
        <Button disabled={at <= 0} onClick={() => void move(order[at - 1])}>
          Earlier
        </Button>
        <Button disabled={at === order.length - 1} onClick={() => void move(order[at + 1])}>
          Later
        </Button>
        <Button
          onClick={() => {
            look({ open: null, hover: null });
            void edit({ op: "delete", line: entry.line }).then((done) => {
              const next = done?.entries.find((each) => each.line >= entry.line && !each.comment);
              const row = document.querySelector<HTMLElement>(`li[data-line="${next?.line ?? -1}"] button`);
              (row ?? document.getElementById("new-line"))?.focus();
            });
          }}
        >
          Strike out
        </Button>
      </div>
    </article>
  );
}

function SettingPicture({ step }: { step: StepOut }) {
  const setting = step.setting;
  if (!setting) return null;
  return (
    <figure>
      <p className="text-lg leading-tight">
        <span className="capitalize">{step.tool}</span>
        {setting.kept && " as it is,"}{" "}
        <strong key={setting.reading} className="changed" data-testid="reading">
          <Figures text={setting.reading} />
        </strong>
      </p>
      <p className="text-base text-pencil">
        <Figures text={setting.told} />
        {setting.rounding && `; ${setting.rounding}`}
      </p>
      <div className="overflow-hidden">
        <img
          src={setting.picture}
          alt={`${step.tool} set to ${setting.reading}, life-size`}
          className="max-w-none"
          style={{ height: `${setting.picture_high}mm` }}
        />
      </div>
    </figure>
  );
}

function Candidates({ entry }: { entry: Entry }) {
  return (
    <fieldset
      onMouseEnter={() => look({ ghosts: entry.line })}
      onMouseLeave={() => look({ ghosts: null })}
      onFocus={() => look({ ghosts: entry.line })}
      onBlur={() => look({ ghosts: null })}
    >
      <legend className="font-semibold">Several fit: choose by letter</legend>
      {entry.candidates.map((candidate) => (
        <Button
          key={candidate.letter}
          className="mr-1 mb-1"
          aria-pressed={candidate.chosen}
          onMouseEnter={() => look({ letter: candidate.letter })}
          onMouseLeave={() => look({ letter: null })}
          onFocus={() => look({ letter: candidate.letter })}
          onBlur={() => look({ letter: null })}
          onClick={() => void edit({ op: "choose", line: entry.line, letter: candidate.letter })}
        >
          <strong>{candidate.letter}</strong> {candidate.words.join(", ")}
          {candidate.size && <span className="text-sm"> {candidate.size}</span>}
          <span className="sr-only"> {candidate.about}</span>
        </Button>
      ))}
    </fieldset>
  );
}

/** The clauses as written, each in a field of its own; more are added from the forms the kind declares. */
function Clauses({ entry, kind }: { entry: Entry; kind: KindOut | undefined }) {
  if (!kind) return <WholeLine entry={entry} />;
  const said = (key: string) => entry.clauses.filter((clause) => clause.key === key).length;
  const more = kind.forms.filter((form) => said(form.key) < form.most && !(form.needed && kind.by_clicking));
  return (
    <div className="border-t border-rim pt-2">
      <ul className="space-y-1">
        {entry.clauses.map((clause, index) => (
          <li key={`${index}:${clause.text}`}>
            <ClauseField entry={entry} index={index} clause={clause} />
          </li>
        ))}
      </ul>
      {more.length > 0 && (
        <AddClause
          forms={more}
          add={(text) => void edit({ op: "clause", line: entry.line, clause: entry.clauses.length, text })}
        />
      )}
      <WholeLine entry={entry} />
    </div>
  );
}

interface FieldProps {
  entry: Entry;
  index: number;
  clause: ClauseOut;
}

function ClauseField({ entry, index, clause }: FieldProps) {
  const [typed, setTyped] = useState(clause.text);
  const wrong = entry.error?.clause === index;
  const at = { line: entry.line, clause: index };
  const put = (text: string) => void edit({ op: "clause", ...at, text });
  return (
    <div className="flex items-baseline gap-1">
      <input
        className="field min-w-0 flex-1"
        aria-label={clause.form || `clause ${index + 1}`}
        title={clause.form}
        aria-invalid={wrong}
        value={typed}
        spellCheck={false}
        autoComplete="off"
        onChange={(event) => setTyped(event.target.value)}
        onBlur={() => typed !== clause.text && put(typed)}
        onKeyDown={(event) => event.key === "Enter" && typed !== clause.text && put(typed)}
      />
      {clause.picks?.map(({ place, expectation }) => (
        <PickButton
          key={place}
          wanted={expectation}
          take={(name) => void edit({ op: "place", ...at, place, text: name })}
        />
      ))}
      <Button aria-label={`Take out ${clause.text}`} onClick={() => put("")}>
        ×
      </Button>
    </div>
  );
}

function AddClause({ forms, add }: { forms: FormOut[]; add: (text: string) => void }) {
  const [chosen, setChosen] = useState("");
  const [values, setValues] = useState<Record<string, string>>({});
  const form = forms.find((f) => f.pattern === chosen);
  const text =
    form?.parts.map((part) => (typeof part === "string" ? part : (values[part.name] ?? ""))).join(" ") ?? "";
  const full = form?.parts.every((part) => typeof part === "string" || values[part.name]?.trim());
  return (
    <form
      className="mt-1 flex flex-wrap items-baseline gap-1"
      onSubmit={(event) => {
        event.preventDefault();
        if (!full) return;
        add(text);
        setChosen("");
        setValues({});
      }}
    >
      <select
        className="field max-w-full min-w-0"
        aria-label="Add a clause"
        value={chosen}
        onChange={(event) => setChosen(event.target.value)}
      >
        <option value="">add a clause…</option>
        {forms.map((f) => (
          <option key={f.pattern} value={f.pattern}>
            {f.example}
          </option>
        ))}
      </select>
      {form?.parts.map((part, i) =>
        typeof part === "string" ? (
          <span key={i}>{part}</span>
        ) : part.choices.length > 0 ? (
          <select
            key={i}
            className="field"
            aria-label={part.expectation}
            value={values[part.name] ?? ""}
            onChange={(event) => setValues({ ...values, [part.name]: event.target.value })}
          >
            <option value="">…</option>
            {part.choices.map((choice) => (
              <option key={choice}>{choice}</option>
            ))}
          </select>
        ) : (
          <span key={i} className="flex gap-1">
            <input
              className="field w-24"
              aria-label={part.expectation}
              placeholder={part.expectation}
              value={values[part.name] ?? ""}
              onChange={(event) => setValues({ ...values, [part.name]: event.target.value })}
            />
            {part.is_reference && (
              <PickButton
                wanted={part.expectation}
                take={(name) => setValues((all) => ({ ...all, [part.name]: name }))}
              />
            )}
          </span>
        ),
      )}
      {form && <Button disabled={!full}>Say it</Button>}
    </form>
  );
}

function WholeLine({ entry }: { entry: Entry }) {
  const [typed, setTyped] = useState<string | null>(null);
  const put = () => {
    if (typed !== null && typed !== entry.text) void edit({ op: "line", line: entry.line, text: typed });
    setTyped(null);
  };
  return (
    <input
      className="field mt-2 w-full text-base"
      aria-label="The whole statement"
      spellCheck={false}
      autoComplete="off"
      value={typed ?? entry.text}
      onChange={(event) => setTyped(event.target.value)}
      onBlur={put}
      onKeyDown={(event) => event.key === "Enter" && put()}
    />
  );
}
