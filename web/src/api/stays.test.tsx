// @vitest-environment jsdom
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { cleanup, renderHook, waitFor } from '@testing-library/react';
import { afterEach, expect, test, vi } from 'vitest';
import { useBoard, useHand, useJob, useJobs, usePlots } from './bench';
import { api } from './client';
import { useMandrels } from './mandrels';
import { useGallery, usePlan, useScales, type ReaderOf } from './queries';

type Ask = (reader: ReaderOf) => { data?: unknown };
const usePlanned: Ask = (reader) => usePlan({}, reader, false);
const useStyled: Ask = (reader) => useGallery('US 7', reader);
const useLogbook: Ask = (reader) => useJobs(reader, true);
const useBench: Ask = (reader) => useJob('one', reader);
const useSeveral: Ask = (reader) => useBoard('q', reader);
const ASKED: [string, Ask][] = [
  ['a ring', usePlanned],
  ['gallery', useStyled],
  ['scales', useScales],
  ['mandrels', useMandrels],
  ['hand', useHand],
  ['plots', usePlots],
  ['logbook', useLogbook],
  ['bench', useBench],
  ['board', useSeveral],
];

afterEach(() => {
  cleanup();
  vi.restoreAllMocks();
});

test.each(ASKED)('%s: what stands there stays while it is asked for in other units', async (what, useAsked) => {
  const said = { data: { known: what }, response: new Response(null) };
  const never = new Promise<never>(() => undefined);
  for (const method of ['GET', 'POST'] as const)
    vi.spyOn(api, method).mockResolvedValueOnce(said).mockReturnValue(never);
  const queries = new QueryClient();
  const { result, rerender } = renderHook(({ reader }: { reader: ReaderOf }) => useAsked(reader), {
    initialProps: { reader: { units: 'mm', sizes: 'us,uk' } },
    wrapper: ({ children }) => <QueryClientProvider client={queries}>{children}</QueryClientProvider>,
  });
  await waitFor(() => expect(result.current.data).toEqual({ known: what }));
  rerender({ reader: { units: 'in', sizes: 'uk,us' } });
  expect(result.current.data).toEqual({ known: what });
});
