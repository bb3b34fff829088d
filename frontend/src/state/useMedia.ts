import { useSyncExternalStore } from "react";

/** Whether the window is as a media query says. */
export function useMedia(query: string): boolean {
  return useSyncExternalStore(
    (changed) => {
      const list = matchMedia(query);
      list.addEventListener("change", changed);
      return () => list.removeEventListener("change", changed);
    },
    () => matchMedia(query).matches,
  );
}

/** Where a window is so low that sheet and notebook take turns. */
export const LOW = "(height < 600px)";
