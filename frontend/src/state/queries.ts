/** What the desk answered, kept as long as it may still be so. */
import { MutationCache, QueryCache, QueryClient } from "@tanstack/react-query";
import { Problem } from "../api/client";

/** The desk says that nobody works here: it is asked anew who does. */
const onError = (problem: unknown) => {
  if (problem instanceof Problem && problem.status === 401)
    void queries.invalidateQueries({ queryKey: ["here"] });
};

export const queries: QueryClient = new QueryClient({
  queryCache: new QueryCache({ onError }),
  mutationCache: new MutationCache({ onError }),
  defaultOptions: { queries: { retry: 1, refetchOnWindowFocus: false } },
});
