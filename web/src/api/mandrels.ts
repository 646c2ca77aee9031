import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { changed } from './changed';
import { answer, api } from './client';
import { keys, stays, type ReaderOf } from './queries';

/** The workshop's own mandrels. */
export const useMandrels = (reader: ReaderOf, enabled = true) =>
  useQuery({
    queryKey: keys.mandrelsFor(reader),
    queryFn: () => answer(api.GET('/api/mandrels', { params: { query: { ...reader } } })),
    enabled,
    ...stays,
  });

export function useMandrelChanges() {
  const queries = useQueryClient();
  const onSuccess = () => changed(queries, keys.mandrels);
  return {
    keep: useMutation({
      mutationFn: (body: {
        name: string;
        kind: 'tapered' | 'grooved' | 'stepped';
        marks: { mark: string; measured_mm: number }[];
      }) => answer(api.PUT('/api/mandrels', { body })),
      onSuccess,
    }),
    forget: useMutation({
      mutationFn: (mandrel_id: string) =>
        answer(api.DELETE('/api/mandrels/{mandrel_id}', { params: { path: { mandrel_id } } })),
      onSuccess,
    }),
  };
}
