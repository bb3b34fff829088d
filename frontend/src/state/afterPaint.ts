/** What may follow the sheet: it is seen first, and the rest comes when it has been painted. */
import { startTransition, useEffect, useState } from "react";

/** A value, once what was drawn with it has been painted; at the first time at once. */
export function useAfterPaint<T>(value: T): T {
  const [seen, setSeen] = useState(value);
  useEffect(() => {
    let later: ReturnType<typeof setTimeout> | undefined;
    const frame = requestAnimationFrame(() => {
      later = setTimeout(() => startTransition(() => setSeen(value)));
    });
    return () => {
      cancelAnimationFrame(frame);
      clearTimeout(later);
    };
  }, [value]);
  return seen;
}
