import type { QueryClient, QueryKey } from '@tanstack/react-query';

/** An answer that takes longer isn’t waited for: the network may have lost it. */
const PATIENCE_MS = 4_000;

/**
 * What is kept under a key has changed: it is asked for anew. An answer on its way was perhaps given before the change
 * and doesn’t know it, so it is waited for, and asked again after it: once, however many changes there were meanwhile.
 * Not at all where the answer turns out to know.
 */
export async function changed(queries: QueryClient, queryKey: QueryKey, known = () => false) {
  const onTheirWay = queries.getQueryCache().findAll({ queryKey, fetchStatus: 'fetching' });
  const came = Promise.allSettled(onTheirWay.flatMap((query) => query.promise ?? [])).then(() => true);
  let timer;
  const lost = new Promise<false>((over) => {
    timer = setTimeout(() => over(false), PATIENCE_MS);
  });
  const all = await Promise.race([came, lost]);
  clearTimeout(timer);
  if (known()) return;
  if (!all) await queries.cancelQueries({ queryKey });
  await queries.invalidateQueries({ queryKey }, { cancelRefetch: false });
}

/** What is kept under a key is this now: an answer on its way is older. */
export function nowIs(queries: QueryClient, queryKey: QueryKey, told: unknown) {
  void queries.cancelQueries({ queryKey });
  queries.setQueryData(queryKey, told);
}
