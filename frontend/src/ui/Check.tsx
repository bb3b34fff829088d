import type { ReactNode } from "react";

interface CheckProps {
  /** What stands beside the box. */
  label: ReactNode;
  /** What it is called where nothing stands beside it. */
  name?: string;
  on: boolean;
  put: (on: boolean) => void;
  className?: string;
}

/** Something that is so or not. */
export function Check({ label, name, on, put, className = "flex min-h-7 items-center gap-2" }: CheckProps) {
  return (
    <label className={className}>
      <input
        type="checkbox"
        className="size-4 shrink-0 accent-[var(--color-ink)]"
        aria-label={name}
        checked={on}
        onChange={(event) => put(event.target.checked)}
      />
      {label && <span>{label}</span>}
    </label>
  );
}
