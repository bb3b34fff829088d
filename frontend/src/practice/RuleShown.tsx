import { type PointerEvent, useLayoutEffect, useRef, useState } from "react";
import type { Mark, RuleOut } from "../api/client";
import { MarkShape } from "../sheet/MarkShape";
import { Button } from "../ui/Button";

/** A piece of a rule, with the pointer at one of its graduations. */
export function RuleShown({ rule, at, point }: { rule: RuleOut; at?: number; point?: (to: number) => void }) {
  const { picture, begins, apart, count } = rule;
  const x = begins + apart * (at ?? 0);
  const press = (event: PointerEvent<SVGSVGElement>) => {
    const box = event.currentTarget.getBoundingClientRect();
    const along = ((event.clientX - box.left) / box.width) * picture.width;
    point?.(Math.min(count - 1, Math.max(0, Math.round((along - begins) / apart))));
  };
  return (
    <svg
      viewBox={`0 0 ${picture.width} ${picture.height}`}
      className={`sheet block w-full max-w-[44rem] bg-paper ${point ? "cursor-crosshair" : ""}`}
      fill="none"
      role="img"
      aria-label={point ? "A rule, and a pointer that is set on it" : "A rule with a pointer on it"}
      onPointerDown={press}
    >
      {(picture.marks as unknown as Mark[]).map((mark, i) => (
        <MarkShape
          key={i}
          mark={mark}
          height={picture.height}
          className={`mark-${mark.role}`}
          width={mark.role === "outline" ? 0.35 : 0.2}
        />
      ))}
      {at !== undefined && (
        <path className="now" strokeWidth={0.4} d={`M${x} 2V${picture.height - 13.4}m-1.2 -3l1.2 3l1.2 -3`} />
      )}
    </svg>
  );
}

interface SetProps {
  rule: RuleOut;
  closed: boolean;
  answer: (said: string) => void;
}

/** A size is set: the pointer is moved along the rule, a graduation at a time. */
export function SetPointer({ rule, closed, answer }: SetProps) {
  const [at, setAt] = useState(0);
  const slide = useRef<HTMLInputElement>(null);
  useLayoutEffect(() => slide.current?.focus(), []);
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        answer(`#${at}`);
      }}
    >
      <RuleShown rule={rule} at={at} point={closed ? undefined : setAt} />
      <p className="flex items-center gap-3 pt-2 text-lg">
        <input
          ref={slide}
          type="range"
          className="min-w-0 flex-1 accent-[#a23d16]"
          aria-label="The pointer"
          aria-valuetext={`at mark ${at + 1} of ${rule.count}`}
          min={0}
          max={rule.count - 1}
          value={at}
          disabled={closed}
          onChange={(event) => setAt(Number(event.target.value))}
          onKeyDown={(event) => {
            if (event.key !== "Enter" || closed) return;
            event.preventDefault();
            answer(`#${at}`);
          }}
        />
        <Button main disabled={closed}>
          It is set
        </Button>
      </p>
    </form>
  );
}
