import { keepPreviousData, queryOptions, useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { changed } from './changed';
import { answer, api, Refused, unreachable, type Draft, type RingFile } from './client';

/** Every key of what is kept of the server's answers. */
export const keys = {
  plan: (draft: Draft, reader: ReaderOf, hand: boolean) => ['plan', draft, reader, hand] as const,
  habits: (draft: Draft, reader: ReaderOf) => ['habits', draft, reader] as const,
  resizing: (draft: Draft, to: string, reader: ReaderOf) => ['resizing', draft, to, reader] as const,
  size: (text: string, reader: ReaderOf) => ['size', text, reader] as const,
  between: (finger: number, knuckle: number, reader: ReaderOf) => ['between', finger, knuckle, reader] as const,
  scales: (reader?: ReaderOf) => ['scales', reader] as const,
  gallery: (size: string, reader: ReaderOf) => ['gallery', size, reader] as const,
  styles: ['styles'] as const,
  choices: (asked: ChoicesAsked, reader: ReaderOf) => ['styles', 'choices', asked, reader] as const,
  devices: ['devices'] as const,
  mandrels: ['mandrels'] as const,
  mandrelsFor: (reader: ReaderOf) => ['mandrels', reader] as const,
  me: ['me'] as const,
  people: ['people'] as const,
  offer: (token: string) => ['offer', token] as const,
  programs: ['weave-programs'] as const,
  rings: ['rings'] as const,
  ringPage: (search: string, after: string | undefined, deleted: boolean) => ['rings', search, after, deleted] as const,
  ring: (id: string | undefined) => ['ring', id] as const,
  jobs: ['jobs'] as const,
  jobPage: (ended: boolean, state: string, search: string, after: string | undefined, reader: ReaderOf) =>
    ['jobs', ended, state, search, after, reader] as const,
  hand: (reader: ReaderOf) => ['jobs', 'hand', reader] as const,
  plots: (reader: ReaderOf) => ['jobs', 'plots', reader] as const,
  photos: (id: string) => ['photos', id] as const,
  repair: (id: string, reads: number, wanted: number, reader: ReaderOf) =>
    ['job', id, 'repair', reads, wanted, reader] as const,
  hammered: (id: string, thickness: number, value: number, reader: ReaderOf) =>
    ['job', id, 'hammered', thickness, value, reader] as const,
  batches: ['jobs', 'batches'] as const,
  boards: ['board'] as const,
  board: (id: string, reader: ReaderOf) => ['board', id, reader] as const,
  job: (id: string, reader: ReaderOf) => ['job', id, reader] as const,
  sizeReading: (id: string, task: string, value: number, reader: ReaderOf) =>
    ['job', id, 'size', task, value, reader] as const,
  row: (id: string, task: string, value: number, number: number, reader: ReaderOf) =>
    ['job', id, 'row', task, value, number, reader] as const,
  tail: (id: string, end: string, value: number, number: number, hand: boolean, reader: ReaderOf) =>
    ['job', id, 'tail', end, value, number, hand, reader] as const,
};

const AGAIN_MS = 1500;
/** Asked again until the server is there; a refusal is an answer. */
export const untilThere = {
  retry: (_: number, error: Error) => unreachable(error),
  retryDelay: AGAIN_MS,
  networkMode: 'always',
} as const;

/** What is written for a reader: what stands there stays while it is asked for in other units, or of another ring. */
export const stays = { ...untilThere, placeholderData: keepPreviousData } as const;

/** For whom the texts are written: units of length, and size systems with the first one first. */
export interface ReaderOf {
  units: 'mm' | 'in';
  sizes: string;
  /** By how much the marks of the mandrel at hand are off [mm], and more for each millimetre. */
  mandrel_off?: number;
  mandrel_slope?: number;
}

// The server checks every field, so a draft may be sent as it stands.
export const asFile = (draft: Draft) => draft as unknown as RingFile;

/** The plan of what is being typed. The last one stays until the next is there; an older request is given up. */
export const usePlan = (draft: Draft, reader: ReaderOf, hand: boolean) =>
  useQuery({
    queryKey: keys.plan(draft, reader, hand),
    queryFn: ({ signal }) =>
      answer(
        api.POST('/api/plan', {
          params: { query: { paths: true, habits: false, hand, ...reader } },
          body: asFile(draft),
          signal,
        }),
      ),
    staleTime: Infinity,
    gcTime: 60_000,
    ...stays,
  });

/** What every habit of starting would make of a ring: asked for when they are compared, for it takes a ring each. */
export const useHabits = (draft: Draft, reader: ReaderOf, enabled: boolean) =>
  useQuery({
    queryKey: keys.habits(draft, reader),
    queryFn: ({ signal }) =>
      answer(api.POST('/api/plan', { params: { query: { ...reader } }, body: asFile(draft), signal })),
    select: (plan) => plan.schools,
    staleTime: Infinity,
    gcTime: 60_000,
    enabled,
    ...stays,
  });

/** How the finished ring is made another size, as it is typed. */
export const useResizing = (draft: Draft, to: string, reader: ReaderOf, enabled: boolean) =>
  useQuery({
    queryKey: keys.resizing(draft, to, reader),
    queryFn: ({ signal }) =>
      answer(api.POST('/api/resize', { params: { query: { to, ...reader } }, body: asFile(draft), signal })),
    staleTime: Infinity,
    gcTime: 60_000,
    enabled,
    ...untilThere,
  });

export const useSize = (text: string, reader: ReaderOf) =>
  useQuery({
    queryKey: keys.size(text, reader),
    queryFn: ({ signal }) => answer(api.GET('/api/sizes', { params: { query: { text, ...reader } }, signal })),
    staleTime: Infinity,
    enabled: text.trim() !== '',
    ...untilThere,
  });

/** A size proposed between finger and knuckle [mm]. */
export const useBetween = (finger: number, knuckle: number, reader: ReaderOf) =>
  useQuery({
    queryKey: keys.between(finger, knuckle, reader),
    queryFn: ({ signal }) =>
      answer(
        api.GET('/api/sizes/between', {
          params: { query: { around_finger_mm: finger, around_knuckle_mm: knuckle, ...reader } },
          signal,
        }),
      ),
    staleTime: Infinity,
    enabled: finger > 0 && knuckle > 0,
    ...untilThere,
  });

/** Every system's marks, where they should stand; for a reader, where they stand on the mandrel at hand. */
export const useScales = (reader?: ReaderOf) =>
  useQuery({
    queryKey: keys.scales(reader),
    queryFn: () => answer(api.GET('/api/sizes/scales', { params: { query: { ...reader } } })),
    staleTime: Infinity,
    ...stays,
  });

/** Every style at a size; the last one stays while another size is typed. */
export const useGallery = (size: string, reader: ReaderOf) =>
  useQuery({
    queryKey: keys.gallery(size, reader),
    queryFn: ({ signal }) => answer(api.GET('/api/gallery', { params: { query: { size, ...reader } }, signal })),
    staleTime: Infinity,
    ...stays,
  });

export const useStyles = () =>
  useQuery({
    queryKey: keys.styles,
    queryFn: () => answer(api.GET('/api/styles')),
    staleTime: Infinity,
    ...untilThere,
  });

/** What of a ring decides which styles go together. */
export interface ChoicesAsked {
  band: unknown;
  head: unknown;
  taken?: unknown;
}

const styleOnly = (part: unknown) => ({ style: (part as { style?: unknown } | undefined)?.style });

/** Which bands and heads go with a ring as it is set; while one of its figures can't be read, as its styles usually are. */
export const choicesOf = (asked: ChoicesAsked, reader: ReaderOf) =>
  queryOptions({
    queryKey: keys.choices(asked, reader),
    queryFn: async ({ signal }) => {
      const ask = (of: ChoicesAsked) =>
        answer(api.POST('/api/styles/choices', { params: { query: { ...reader } }, body: of as never, signal }));
      try {
        return await ask(asked);
      } catch (error) {
        if (!(error instanceof Refused) || unreachable(error)) throw error;
        return ask({ band: styleOnly(asked.band), head: styleOnly(asked.head) });
      }
    },
    staleTime: Infinity,
    gcTime: 60_000,
  });

export const useChoices = (asked: ChoicesAsked, reader: ReaderOf) =>
  useQuery({ ...choicesOf(asked, reader), ...stays });

export const useWeavePrograms = () =>
  useQuery({
    queryKey: keys.programs,
    queryFn: () => answer(api.GET('/api/weave-programs')),
    staleTime: Infinity,
  });

/** Keep one of the workshop's own weave programs, or forget it. */
export function useProgramChanges() {
  const queries = useQueryClient();
  const onSuccess = () => changed(queries, keys.programs);
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

/** A page of saved rings: those after a ring, the last of the page before. */
export const useRings = (search: string, after: string | undefined, deleted: boolean, enabled: boolean) =>
  useQuery({
    queryKey: keys.ringPage(search, after, deleted),
    queryFn: ({ signal }) =>
      answer(
        api.GET('/api/rings', {
          params: { query: { q: search, limit: PAGE, deleted, ...(after ? { after } : {}) } },
          signal,
        }),
      ),
    placeholderData: keepPreviousData,
    enabled,
  });

export const useRing = (ringId: string | undefined) =>
  useQuery({
    queryKey: keys.ring(ringId),
    queryFn: () => answer(api.GET('/api/rings/{ring_id}', { params: { path: { ring_id: ringId ?? '' } } })),
    enabled: ringId !== undefined,
    // Opened again, it may have been saved from somewhere else meanwhile.
    staleTime: 0,
    ...untilThere,
  });

/** What changes saved rings; each refreshes the lists that show them. */
export function useRingChanges() {
  const queries = useQueryClient();
  const refresh = () => changed(queries, keys.rings);
  const byId = (ring_id: string) => ({ params: { path: { ring_id } } });
  return {
    create: useMutation({
      mutationFn: ({ draft, key }: { draft: Draft; key: string }) =>
        answer(api.POST('/api/rings', { body: asFile(draft), params: { header: { 'idempotency-key': key } } })),
      onSuccess: refresh,
      ...untilThere,
    }),
    save: useMutation({
      mutationFn: (change: { id: string; draft: Draft; revision: number; key: string }) =>
        answer(
          api.PUT('/api/rings/{ring_id}', {
            params: { path: { ring_id: change.id }, header: { 'idempotency-key': change.key } },
            body: { file: asFile(change.draft), base_revision: change.revision },
          }),
        ),
      onSuccess: refresh,
      ...untilThere,
    }),
    duplicate: useMutation({
      mutationFn: ({ id, key }: { id: string; key: string }) =>
        answer(
          api.POST('/api/rings/{ring_id}/duplicate', {
            params: { path: { ring_id: id }, header: { 'idempotency-key': key } },
          }),
        ),
      onSuccess: refresh,
    }),
    remove: useMutation({
      mutationFn: (ring: { id: string; revision: number }) =>
        answer(
          api.DELETE('/api/rings/{ring_id}', {
            params: { path: { ring_id: ring.id }, query: { base_revision: ring.revision } },
          }),
        ),
      onSuccess: refresh,
    }),
    restore: useMutation({
      mutationFn: (id: string) => answer(api.POST('/api/rings/{ring_id}/restore', byId(id))),
      onSuccess: refresh,
    }),
  };
}
