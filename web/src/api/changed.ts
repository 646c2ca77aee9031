import type { QueryClient, QueryKey } from '@tanstack/react-query';

/**
 * What is kept under a key has changed: it is asked for anew. An answer on its way was perhaps given before the change
 * and doesn’t know it, so it is waited for, and asked again after it: once, however many changes there were meanwhile.
 * Not at all where the answer turns out to know.
 */
export async function changed(queries: QueryClient, queryKey: QueryKey, known = () => false) {
  const onTheirWay = queries.getQueryCache().findAll({ queryKey, fetchStatus: 'fetching' });
  await Promise.allSettled(onTheirWay.flatMap((query) => query.promise ?? []));
  if (!known()) await queries.invalidateQueries({ queryKey }, { cancelRefetch: false });
}

/** What is kept under a key is this now: an answer on its way is older. */
export function nowIs(queries: QueryClient, queryKey: QueryKey, told: unknown) {
  void queries.cancelQueries({ queryKey });
  queries.setQueryData(queryKey, told);
}
