import { keepPreviousData, useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { answer, api, type Draft, type RingFile } from './client';

/** For whom the texts are written: units of length, and size systems with the first one first. */
export interface ReaderOf {
  units: 'mm' | 'in';
  sizes: string;
}

// The server checks every field, so a draft may be sent as it stands.
const asFile = (draft: Draft) => draft as unknown as RingFile;

/** The plan of what is being typed. The last one stays until the next is there; an older request is given up. */
export const usePlan = (draft: Draft, reader: ReaderOf) =>
  useQuery({
    queryKey: ['plan', draft, reader],
    queryFn: ({ signal }) =>
      answer(api.POST('/api/plan', { params: { query: { paths: true, ...reader } }, body: asFile(draft), signal })),
    placeholderData: keepPreviousData,
    staleTime: Infinity,
    gcTime: 60_000,
  });

export const useSize = (text: string) =>
  useQuery({
    queryKey: ['size', text],
    queryFn: ({ signal }) => answer(api.GET('/api/sizes', { params: { query: { text } }, signal })),
    staleTime: Infinity,
  });

export const useScales = () =>
  useQuery({ queryKey: ['scales'], queryFn: () => answer(api.GET('/api/sizes/scales')), staleTime: Infinity });

export const useStyles = () =>
  useQuery({ queryKey: ['styles'], queryFn: () => answer(api.GET('/api/styles')), staleTime: Infinity });

export const useWorkshop = () =>
  useQuery({ queryKey: ['workshop'], queryFn: () => answer(api.GET('/api/workshop')), staleTime: Infinity });

export const useWeavePrograms = () =>
  useQuery({
    queryKey: ['weave-programs'],
    queryFn: () => answer(api.GET('/api/weave-programs')),
    staleTime: Infinity,
  });

/** Keep one of the workshop's own weave programs, or forget it. */
export function useProgramChanges() {
  const queries = useQueryClient();
  const onSuccess = () => queries.invalidateQueries({ queryKey: ['weave-programs'] });
  type Program = { program: string; base_wires: number };
  return {
    keep: useMutation({ mutationFn: (body: Program) => answer(api.POST('/api/weave-programs', { body })), onSuccess }),
    forget: useMutation({
      mutationFn: (body: Program) => answer(api.POST('/api/weave-programs/forget', { body })),
      onSuccess,
    }),
  };
}

export const PAGE = 12;

export const useRings = (search: string, page: number, enabled: boolean) =>
  useQuery({
    queryKey: ['rings', search, page],
    queryFn: ({ signal }) =>
      answer(api.GET('/api/rings', { params: { query: { q: search, limit: PAGE, offset: page * PAGE } }, signal })),
    placeholderData: keepPreviousData,
    enabled,
  });

export const useRing = (ringId: string | undefined) =>
  useQuery({
    queryKey: ['ring', ringId],
    queryFn: () => answer(api.GET('/api/rings/{ring_id}', { params: { path: { ring_id: ringId ?? '' } } })),
    enabled: ringId !== undefined,
    staleTime: Infinity,
  });

/** What changes saved rings; each refreshes the lists that show them. */
export function useRingChanges() {
  const queries = useQueryClient();
  const refresh = () => queries.invalidateQueries({ queryKey: ['rings'] });
  const byId = (ring_id: string) => ({ params: { path: { ring_id } } });
  return {
    create: useMutation({
      mutationFn: (draft: Draft) => answer(api.POST('/api/rings', { body: asFile(draft) })),
      onSuccess: refresh,
    }),
    save: useMutation({
      mutationFn: (change: { id: string; draft: Draft; revision: number }) =>
        answer(
          api.PUT('/api/rings/{ring_id}', {
            ...byId(change.id),
            body: { file: asFile(change.draft), base_revision: change.revision },
          }),
        ),
      onSuccess: refresh,
    }),
    duplicate: useMutation({
      mutationFn: (id: string) => answer(api.POST('/api/rings/{ring_id}/duplicate', byId(id))),
      onSuccess: refresh,
    }),
    remove: useMutation({
      mutationFn: (id: string) => answer(api.DELETE('/api/rings/{ring_id}', byId(id))),
      onSuccess: refresh,
    }),
    restore: useMutation({
      mutationFn: (id: string) => answer(api.POST('/api/rings/{ring_id}/restore', byId(id))),
      onSuccess: refresh,
    }),
  };
}
