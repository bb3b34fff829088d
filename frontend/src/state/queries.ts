/** What the desk answered, kept as long as it may still be so. */
import { QueryClient } from "@tanstack/react-query";

export const queries = new QueryClient({
  defaultOptions: { queries: { retry: 1, refetchOnWindowFocus: false } },
});
