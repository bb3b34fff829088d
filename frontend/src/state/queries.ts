/** What the desk answered, kept as long as it may still be so. */
import { QueryClient } from "@tanstack/react-query";
import { NOBODY } from "../api/client";

export const queries = new QueryClient({
  defaultOptions: { queries: { retry: 1, refetchOnWindowFocus: false } },
});

// The desk says that nobody works here: it is asked anew who does.
window.addEventListener(NOBODY, () => void queries.invalidateQueries({ queryKey: ["here"] }));
