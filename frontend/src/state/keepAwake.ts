/** While one draws: the screen stays awake, and what the sitting needs is kept for when the desk is away. */
import NoSleep from "nosleep.js";
import { useEffect } from "react";

/** Keep the screen awake from the first touch or key on; browsers let a page ask for that only then. */
export function useWakefulScreen() {
  useEffect(() => {
    const screen = new NoSleep();
    const wake = () => void screen.enable().catch(() => undefined);
    const once = { once: true };
    document.addEventListener("click", wake, once);
    document.addEventListener("keydown", wake, once);
    return () => {
      document.removeEventListener("click", wake);
      document.removeEventListener("keydown", wake);
      if (screen.isEnabled) screen.disable();
    };
  }, []);
}

/** Have the service worker keep the page, its scripts and these pictures; `false` where the browser gives it none. */
export async function keepForLater(pictures: readonly string[]): Promise<boolean> {
  if (!("serviceWorker" in navigator)) return false;
  try {
    await navigator.serviceWorker.register("/board-worker.js");
    const { active } = await navigator.serviceWorker.ready;
    const loaded = performance
      .getEntriesByType("resource")
      .map((entry) => new URL(entry.name))
      .filter((url) => url.origin === location.origin && url.pathname.startsWith("/assets/"))
      .map((url) => url.pathname);
    return await new Promise((told) => {
      navigator.serviceWorker.addEventListener("message", (event) => told(event.data === "kept"), {
        once: true,
      });
      active?.postMessage([...new Set([...loaded, "/mark.svg", ...pictures])]);
    });
  } catch {
    // A self-signed certificate, or a browser that gives none here: the open page keeps everything itself.
    return false;
  }
}
