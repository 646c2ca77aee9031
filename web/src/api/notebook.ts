import { useMutation, useQueryClient } from '@tanstack/react-query';
import { answer, api } from './client';
import { keys, type ReaderOf } from './queries';

const asTable = (table: File) => ({
  body: table as unknown as string,
  bodySerializer: (body: string) => body,
  headers: { 'content-type': 'text/csv' },
});

/** An old notebook: what it would bring, and bringing it. */
export function useNotebook(reader: ReaderOf) {
  const queries = useQueryClient();
  const params = { query: reader };
  return {
    show: useMutation({
      mutationFn: (table: File) => answer(api.POST('/api/notebook/preview', { params, ...asTable(table) })),
    }),
    take: useMutation({
      mutationFn: (table: File) => answer(api.POST('/api/notebook', { params, ...asTable(table) })),
      onSuccess: () => queries.invalidateQueries({ queryKey: keys.jobs }),
    }),
  };
}
