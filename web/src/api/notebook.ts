import { useMutation, useQueryClient } from '@tanstack/react-query';
import { changed } from './changed';
import { answer, api, asItIs } from './client';
import { keys, type ReaderOf } from './queries';

/** An old notebook: what it would bring, and bringing it. */
export function useNotebook(reader: ReaderOf) {
  const queries = useQueryClient();
  const params = { query: reader };
  return {
    show: useMutation({
      mutationFn: (table: File) => answer(api.POST('/api/notebook/preview', { params, ...asItIs(table, 'text/csv') })),
    }),
    take: useMutation({
      mutationFn: (table: File) => answer(api.POST('/api/notebook', { params, ...asItIs(table, 'text/csv') })),
      onSuccess: () => changed(queries, keys.jobs),
    }),
  };
}
