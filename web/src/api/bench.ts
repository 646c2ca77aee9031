import { replaceEqualDeep, useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { thisDevice } from '../bench/device';
import { changed } from './changed';
import { answer, api, type BenchEvent, type Draft, type JobAtBench, type TailEnd } from './client';
import { asFile, keys, PAGE, stays, untilThere, type ReaderOf } from './queries';

/** Without the network the last answer that was kept is given; it may be older than what is seen, and then it says nothing. */
export function newest(was: unknown, is: unknown) {
  const number = (at: unknown) => (at as Partial<JobAtBench> | undefined)?.progress?.number ?? 0;
  return number(is) < number(was) ? was : replaceEqualDeep(was, is);
}

/** A ring at the bench: its plan, where it stands, its tails. */
export const useJob = (id: string, reader: ReaderOf) =>
  useQuery({
    queryKey: keys.job(id, reader),
    queryFn: ({ signal }) =>
      answer(api.GET('/api/jobs/{job_id}', { params: { path: { job_id: id }, query: reader }, signal })),
    structuralSharing: newest,
    ...stays,
  });

export type Ending = 'finished' | 'spoiled' | 'set_aside';

/** Rings at the bench, or those that have ended, all of them or some. */
export const useJobs = (reader: ReaderOf, ended: boolean, search = '', after?: string, state?: Ending) =>
  useQuery({
    queryKey: keys.jobPage(ended, state ?? '', search, after, reader),
    queryFn: ({ signal }) =>
      answer(
        api.GET('/api/jobs', {
          params: {
            query: {
              ended,
              q: search,
              limit: PAGE,
              ...reader,
              ...(after ? { after } : {}),
              ...(state ? { state } : {}),
            },
          },
          signal,
        }),
      ),
    ...stays,
  });

/** What the finished rings show of the maker's hand. */
export const useHand = (reader: ReaderOf) =>
  useQuery({
    queryKey: keys.hand(reader),
    queryFn: () => answer(api.GET('/api/jobs/hand', { params: { query: reader } })),
    ...stays,
  });

/** A ring that says nothing of the hand, or says it again; and beginning to learn it anew. */
export function useHandChanges() {
  const queries = useQueryClient();
  const onSuccess = () => changed(queries, keys.jobs);
  return {
    afresh: useMutation({ mutationFn: () => answer(api.POST('/api/jobs/hand/afresh')), onSuccess }),
    leaveOut: useMutation({
      mutationFn: ({ id, why }: { id: string; why: string }) => tellEvents(id, [happened('left_out', { why })]),
      onSuccess,
    }),
  };
}

/** What a size that the mandrel reads means; asked once it is a size. */
export const useSizeReading = (id: string, task: string, value: number, reader: ReaderOf) =>
  useQuery({
    queryKey: keys.sizeReading(id, task, value, reader),
    queryFn: ({ signal }) =>
      answer(
        api.GET('/api/jobs/{job_id}/reading', {
          params: { path: { job_id: id }, query: { task, value_mm: value, ...reader } },
          signal,
        }),
      ),
    enabled: value > 0,
    ...untilThere,
  });

/** What the length of a row of repeats says, with so many events known. */
export const useRow = (id: string, task: string, value: number, number: number, reader: ReaderOf) =>
  useQuery({
    queryKey: keys.row(id, task, value, number, reader),
    queryFn: ({ signal }) =>
      answer(
        api.GET('/api/jobs/{job_id}/row', {
          params: { path: { job_id: id }, query: { task, value_mm: value, ...reader } },
          signal,
        }),
      ),
    enabled: value > 0,
    ...untilThere,
  });

/** Whether a measured tail reaches. */
export const useTail = (
  id: string,
  tail: TailEnd | undefined,
  value: number,
  number: number,
  hand: boolean,
  reader: ReaderOf,
) =>
  useQuery({
    queryKey: keys.tail(id, `${tail?.piece ?? ''} ${tail?.end ?? ''}`, value, number, hand, reader),
    queryFn: ({ signal }) =>
      answer(
        api.GET('/api/jobs/{job_id}/tail', {
          params: {
            path: { job_id: id },
            query: {
              piece: tail?.piece ?? '',
              end: tail?.end === 'first' ? 'first' : 'last',
              value_mm: value,
              hand,
              ...reader,
            },
          },
          signal,
        }),
      ),
    enabled: tail !== undefined && value > 0,
    ...untilThere,
  });

/** How a finished ring that reads so becomes the size that is wanted. */
export const useRepair = (id: string, reads: number, wanted: number, reader: ReaderOf) =>
  useQuery({
    queryKey: keys.repair(id, reads, wanted, reader),
    queryFn: ({ signal }) =>
      answer(
        api.GET('/api/jobs/{job_id}/repair', {
          params: { path: { job_id: id }, query: { reads_mm: reads, wanted_mm: wanted, ...reader } },
          signal,
        }),
      ),
    enabled: reads > 0 && wanted > 0,
    ...untilThere,
  });

/** What a ring says that is hammered flat. */
export const useHammered = (id: string, thickness: number, value: number, reader: ReaderOf) =>
  useQuery({
    queryKey: keys.hammered(id, thickness, value, reader),
    queryFn: ({ signal }) =>
      answer(
        api.GET('/api/jobs/{job_id}/hammered', {
          params: { path: { job_id: id }, query: { thickness_mm: thickness, value_mm: value, ...reader } },
          signal,
        }),
      ),
    enabled: thickness > 0 && value > 0,
    ...untilThere,
  });

/** What the newest records show when they are drawn. */
export const usePlots = (reader: ReaderOf) =>
  useQuery({
    queryKey: keys.plots(reader),
    queryFn: () => answer(api.GET('/api/jobs/plots', { params: { query: reader } })),
    ...stays,
  });

/** Take a ring to the bench. */
export function useBegin() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: ({ draft, key }: { draft: Draft; key: string }) =>
      answer(api.POST('/api/jobs', { body: asFile(draft), params: { header: { 'idempotency-key': key } } })),
    onSuccess: () => changed(queries, keys.jobs),
    ...untilThere,
  });
}

/** Take several rings of one plan to the bench. */
export function useBeginSeveral() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: (several: {
      draft: Draft;
      kind: 'by_ring' | 'by_stage' | 'class';
      rings: { size: string; for_whom: string }[];
      key: string;
    }) =>
      answer(
        api.POST('/api/batches', {
          body: { file: asFile(several.draft), kind: several.kind, rings: several.rings },
          params: { header: { 'idempotency-key': several.key } },
        }),
      ),
    onSuccess: () => changed(queries, keys.jobs),
    ...untilThere,
  });
}

export const useBatches = () =>
  useQuery({ queryKey: keys.batches, queryFn: () => answer(api.GET('/api/batches')), ...untilThere });

/** Every ring of a batch as it stood when it was asked for last. */
export const useBoard = (id: string, reader: ReaderOf) =>
  useQuery({
    queryKey: keys.board(id, reader),
    queryFn: ({ signal }) =>
      answer(api.GET('/api/batches/{batch_id}', { params: { path: { batch_id: id }, query: { ...reader } }, signal })),
    ...stays,
  });

type OfKind<K extends BenchEvent['kind']> = Extract<BenchEvent, { kind: K }>;
/** What is told of an event beside its name, device and time. */
export type Payload<K extends BenchEvent['kind']> = Omit<OfKind<K>, 'id' | 'device' | 'at' | 'seen' | 'kind'>;

/** Something that happens here and now; `seen` is the last number that this device knows. */
export const happened = <K extends BenchEvent['kind']>(kind: K, payload: Payload<K>, seen = 0) =>
  ({
    ...payload,
    kind,
    id: crypto.randomUUID(),
    device: thisDevice(),
    at: new Date().toISOString(),
    seen,
  }) as unknown as BenchEvent;

/** Tell the server what happened; sent again, it is written once. */
export const tellEvents = (id: string, events: BenchEvent[]) =>
  answer(api.POST('/api/jobs/{job_id}/events', { params: { path: { job_id: id } }, body: { events } }));
