import type { ReactNode } from "react";

interface FieldProps {
  label: ReactNode;
  /** More about it, for whoever rests on it. */
  title?: string;
  children: ReactNode;
}

/** Something to be filled in or chosen, below what it is called. */
export function Field({ label, title, children }: FieldProps) {
  return (
    <label className="block" title={title}>
      <span className="block text-sm text-pencil">{label}</span>
      {children}
    </label>
  );
}
