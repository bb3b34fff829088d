/** How far a page was scrolled when it was left: Back gives it as it was. */
import { useLayoutEffect, useRef } from "react";
import { useLocation } from "react-router";

const places = new Map<string, number>();

/** Returns what to hang on the part of a page that scrolls; `ready` says that what it holds is there. */
export function useKeptScroll<E extends HTMLElement>(ready: boolean) {
  const { key } = useLocation();
  const part = useRef<E>(null);
  useLayoutEffect(() => {
    const element = part.current;
    if (!element || !ready) return;
    element.scrollTop = places.get(key) ?? element.scrollTop;
    const keep = () => places.set(key, element.scrollTop);
    element.addEventListener("scroll", keep, { passive: true });
    return () => element.removeEventListener("scroll", keep);
  }, [key, ready]);
  return part;
}
