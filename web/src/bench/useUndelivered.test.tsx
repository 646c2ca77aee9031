// @vitest-environment jsdom
import { cleanup, waitFor } from '@testing-library/react';
import { afterEach, beforeEach, expect, test, vi } from 'vitest';
import type { BenchEvent } from '../api/client';
import { drawn, serving } from '../testing/serve';
import { useUndelivered } from './useUndelivered';
import { keep, kept } from './waiting';

const tap = (n: number) => ({ kind: 'count', id: `tap ${n}`, move: 'weave', n: 1 }) as unknown as BenchEvent;
function Page({ path }: { path: string }) {
  useUndelivered(path);
  return null;
}

beforeEach(() => localStorage.clear());
afterEach(() => {
  cleanup();
  vi.restoreAllMocks();
});

test('what waits is told in its order, a hundred at a time, and then forgotten', async () => {
  const asked = serving({ 'POST /api/jobs/one/events': { number: 120, known: [] } });
  keep(
    'one',
    Array.from({ length: 120 }, (_, n) => tap(n)),
  );
  drawn(<Page path="/logbook" />);
  await waitFor(() => expect(kept('one')).toEqual([]));
  const sent = asked.flatMap(({ body }) => (body as { events: { id: string }[] }).events.map(({ id }) => id));
  expect(sent).toEqual(Array.from({ length: 120 }, (_, n) => `tap ${n}`));
  expect(asked.length).toBe(2);
});

test('an open bench tells its own, and what isn’t taken waits on', async () => {
  const asked = serving({});
  keep('one', [tap(1)]);
  keep('two', [tap(2)]);
  drawn(<Page path="/bench/one" />);
  await waitFor(() => expect(asked.map(({ path }) => path)).toEqual(['/api/jobs/two/events']));
  expect([kept('one').length, kept('two').length]).toEqual([1, 1]);
});
