/** One call at a time, so that every edit starts from the text the one before it left. */
let last: Promise<unknown> = Promise.resolve();
let waiting = 0;

export function inTurn<T>(work: () => Promise<T>): Promise<T> {
  waiting += 1;
  const next = last.then(work, work).finally(() => (waiting -= 1));
  last = next.catch(() => undefined);
  return next;
}

/** Whether nobody waits for an answer to an edit. */
export const isQuiet = () => waiting === 0;

/** Do something after a while, and only once nobody waits for an answer to an edit; returns what calls it off. */
export function onceQuiet(work: () => void, milliseconds: number): () => void {
  const look = () => {
    if (isQuiet()) work();
    else later = setTimeout(look, milliseconds);
  };
  let later = setTimeout(look, milliseconds);
  return () => clearTimeout(later);
}

/** The edit that was made last: a newer one of the same field overtakes it. */
let underWay: { together: string; end: AbortController } | null = null;

export function overtake(together: string): AbortSignal {
  if (together !== "" && underWay?.together === together) underWay.end.abort();
  underWay = { together, end: new AbortController() };
  return underWay.end.signal;
}
