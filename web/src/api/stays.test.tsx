// @vitest-environment jsdom
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { cleanup, renderHook, waitFor } from '@testing-library/react';
import { afterEach, expect, test, vi } from 'vitest';
import { useBoard, useHand, useJob, useJobs, usePlots } from './bench';
import { api } from './client';
import { useMandrels } from './mandrels';
import { useGallery, usePlan, useScales, type ReaderOf } from './queries';

const ASKED: Record<string, (reader: ReaderOf) => { data?: unknown }> = {
  'a ring': (reader) => usePlan({}, reader, false),
  gallery: (reader) => useGallery('US 7', reader),
  scales: useScales,
  mandrels: useMandrels,
  hand: useHand,
  plots: usePlots,
  logbook: (reader) => useJobs(reader, true),
  bench: (reader) => useJob('one', reader),
  board: (reader) => useBoard('q', reader),
};

afterEach(() => {
  cleanup();
  vi.restoreAllMocks();
});

test.each(Object.keys(ASKED))('%s: what stands there stays while it is asked for in other units', async (what) => {
  const ask = ASKED[what] as (reader: ReaderOf) => { data?: unknown };
  const said = { data: { known: what }, response: new Response(null) };
  const never = new Promise<never>(() => undefined);
  for (const method of ['GET', 'POST'] as const)
    vi.spyOn(api, method)
      .mockResolvedValueOnce(said as never)
      .mockReturnValue(never as never);
  const queries = new QueryClient();
  const { result, rerender } = renderHook(({ reader }) => ask(reader), {
    initialProps: { reader: { units: 'mm', sizes: 'us,uk' } as ReaderOf },
    wrapper: ({ children }) => <QueryClientProvider client={queries}>{children}</QueryClientProvider>,
  });
  await waitFor(() => expect(result.current.data).toEqual({ known: what }));
  rerender({ reader: { units: 'in', sizes: 'uk,us' } as ReaderOf });
  expect(result.current.data).toEqual({ known: what });
});
