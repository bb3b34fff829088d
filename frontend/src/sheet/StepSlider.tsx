import { Slider, ToggleGroup } from "radix-ui";
import type { Work } from "../api/client";
import { type Construction, useBench } from "../state/bench";
import { Figures } from "../ui/Figures";

/** The order of work, drawn step by step. */
export function StepSlider({ work }: { work: Work }) {
  const { step, construction, set } = useBench();
  const count = work.steps.length;
  const current = step === null ? undefined : work.steps[step - 1];
  return (
    <section aria-label="Steps at the board" className="flex h-16 shrink-0 items-center gap-2 bg-page px-3">
      <button
        className="act shrink-0"
        onClick={() => set({ step: Math.max(0, (step ?? count) - 1) })}
        disabled={count === 0}
        title="Step back, key ["
      >
        [ back
      </button>
      <Slider.Root
        className="relative flex h-7 w-32 shrink-0 touch-none items-center select-none"
        min={0}
        max={Math.max(count, 1)}
        value={[step ?? count]}
        onValueChange={([value]) => set({ step: value === count ? null : (value ?? null) })}
        disabled={count === 0}
      >
        <Slider.Track className="relative h-[3px] grow bg-[#8b8f85]">
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
      <button
        className="act shrink-0"
        onClick={() => set({ step: (step ?? count) + 1 >= count ? null : (step ?? count) + 1 })}
        disabled={count === 0}
        title="Step on, key ]"
      >
        on ]
      </button>
      <p
        className="line-clamp-3 min-w-0 flex-1 text-[15px] leading-[1.2]"
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
                <Figures text={current.setting.reading} />
              </strong>
            )}{" "}
            {current.text}
          </>
        ) : (
          <span className="text-pencil">
            {count === 0 ? "Nothing to draw yet" : step === 0 ? "Bare sheet" : `All ${count} steps`}
          </span>
        )}
      </p>
      <ToggleGroup.Root
        type="single"
        value={construction}
        onValueChange={(value) => value && set({ construction: value as Construction })}
        aria-label="Construction"
        className="flex shrink-0"
      >
        <span className="self-center pr-2 text-pencil">Construction</span>
        {(["kept", "faded", "away"] as const).map((value) => (
          <ToggleGroup.Item key={value} value={value} className="act -ml-px">
            {value}
          </ToggleGroup.Item>
        ))}
      </ToggleGroup.Root>
    </section>
  );
}
