import { useEffect, useState } from "react";
import { Slider, ToggleGroup } from "radix-ui";
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { type Schedule, schedules, type Work } from "../api/client";
import { reschedule, useDocument } from "../state/document";
import { look, type Construction, useLook } from "../state/looks";
import { Figures } from "../ui/Figures";
import { Button } from "../ui/Button";

/** The order of work, drawn step by step. */
export function StepSlider({ work }: { work: Work }) {
  const { step, construction } = useLook("step", "construction");
  const count = work.steps.length;
  const current = step === null ? undefined : work.steps[step - 1];
  return (
    <section
      aria-label="Steps at the board"
      className="flex min-h-16 shrink-0 items-center gap-2 bg-page px-3 max-[1240px]:flex-wrap low:min-h-10 low:flex-nowrap low:overflow-x-auto"
    >
      <Button
        className="shrink-0"
        onClick={() => look({ step: Math.max(0, (step ?? count) - 1) })}
        disabled={count === 0}
        title="Step back, key ["
      >
        [ back
      </Button>
      <Slider.Root
        className="relative flex h-7 w-32 shrink-0 touch-none items-center select-none"
        min={0}
        max={Math.max(count, 1)}
        value={[step ?? count]}
        onValueChange={([value]) => look({ step: value === count ? null : (value ?? null) })}
        disabled={count === 0}
      >
        <Slider.Track className="relative h-[3px] grow bg-edge">
          <Slider.Range className="absolute h-full bg-ink" />
        </Slider.Track>
        <Slider.Thumb
          aria-label="Step"
          className="block h-7 w-3 border border-ink bg-paper"
          aria-valuetext={
            current ? `step ${current.number} of ${count}: ${current.text}` : `all ${count} steps`
          }
        />
      </Slider.Root>
      <Button
        className="shrink-0"
        onClick={() => look({ step: (step ?? count) + 1 >= count ? null : (step ?? count) + 1 })}
        disabled={count === 0}
        title="Step on, key ]"
      >
        on ]
      </Button>
      <p
        className="line-clamp-4 min-w-40 flex-1 max-[700px]:order-last max-[700px]:min-w-full text-sm leading-[1.12]"
        aria-live="polite"
        data-testid="step-text"
      >
        {current ? (
          <>
            <span className="text-pencil">
              {current.number} of {count} · {current.tool}
            </span>{" "}
            {current.setting && (
              <strong className="text-accent">
                {current.setting.kept && "as it is, "}
                <Figures text={current.setting.reading} />
              </strong>
            )}{" "}
            {current.text}
            {current.why && <span className="text-pencil"> ({current.why})</span>}
          </>
        ) : (
          <span className="text-pencil">
            {count === 0 ? "Nothing to draw yet" : step === 0 ? "Bare sheet" : `All ${count} steps`}
          </span>
        )}
      </p>
      <Orders work={work} />
      <ToggleGroup.Root
        type="single"
        value={construction}
        onValueChange={(value) => value && look({ construction: value as Construction })}
        aria-label="Construction"
        className="flex shrink-0"
      >
        {(["kept", "faded", "away"] as const).map((value) => (
          <ToggleGroup.Item key={value} value={value} className="act -ml-px">
            {value}
          </ToggleGroup.Item>
        ))}
      </ToggleGroup.Root>
    </section>
  );
}

/** The order in which the steps are done, with what each order takes. */
function Orders({ work }: { work: Work }) {
  const text = useSettled(work.text);
  const kit = useDocument((document) => document.kitText);
  const { data } = useQuery({
    queryKey: ["schedules", text, kit],
    queryFn: ({ signal }) => schedules({ body: { text, kit }, signal }),
    placeholderData: keepPreviousData,
    staleTime: Infinity,
    gcTime: 60_000,
  });
  const now = data?.schedules.find((each) => each.schedule === work.schedule);
  return (
    <label className="flex shrink-0 flex-col text-sm leading-tight text-pencil">
      <select
        className="field w-34"
        aria-label="Order of the steps"
        value={work.schedule}
        onChange={(event) => void reschedule(event.target.value as Schedule)}
      >
        {(data?.schedules ?? [{ schedule: work.schedule, called: "as written" }]).map((each) => (
          <option key={each.schedule} value={each.schedule}>
            {each.called}
          </option>
        ))}
      </select>
      {now && (
        <span data-testid="takes" title={data?.told}>
          {now.settings} settings, ≈{Math.round(now.minutes)} min
        </span>
      )}
    </label>
  );
}

/** How long nothing has to change before every order of work is counted again, ms: never in the way of typing. */
const SETTLED = 800;

function useSettled(text: string): string {
  const [settled, setSettled] = useState(text);
  useEffect(() => {
    const timer = setTimeout(() => setSettled(text), SETTLED);
    return () => clearTimeout(timer);
  }, [text]);
  return settled;
}
