import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { changed } from './changed';
import { answer, api, asItIs } from './client';
import { keys, untilThere } from './queries';

/** A ring's photos, the first taken first. */
export const usePhotos = (id: string) =>
  useQuery({
    queryKey: keys.photos(id),
    queryFn: () => answer(api.GET('/api/jobs/{job_id}/photos', { params: { path: { job_id: id } } })),
    ...untilThere,
  });

/** Keeping a photo, deleting one, and taking it back. */
export function usePhotoChanges(id: string) {
  const queries = useQueryClient();
  const onSuccess = () => changed(queries, keys.photos(id));
  const byId = (photo_id: string) => ({ params: { path: { photo_id } } });
  return {
    add: useMutation({
      mutationFn: ({ photo, task, key }: { photo: File; task: string; key: string }) =>
        answer(
          api.POST('/api/jobs/{job_id}/photos', {
            params: { path: { job_id: id }, query: { task }, header: { 'idempotency-key': key } },
            ...asItIs(photo, 'application/octet-stream'),
          }),
        ),
      onSuccess,
      ...untilThere,
    }),
    remove: useMutation({
      mutationFn: (photo: string) => answer(api.DELETE('/api/photos/{photo_id}', byId(photo))),
      onSuccess,
    }),
    restore: useMutation({
      mutationFn: (photo: string) => answer(api.POST('/api/photos/{photo_id}/restore', byId(photo))),
      onSuccess,
    }),
  };
}
