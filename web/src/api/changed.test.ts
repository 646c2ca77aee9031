import { QueryClient, QueryObserver } from '@tanstack/react-query';
import { expect, test, vi } from 'vitest';
import { changed, nowIs } from './changed';

const KEY = ['rings', 'clover'];

/** A list that somebody looks at; each question is answered when the test says so. */
function lookedAt() {
  const answers: ((list: string) => void)[] = [];
  const queries = new QueryClient();
  const rings = new QueryObserver(queries, {
    queryKey: KEY,
    queryFn: () => new Promise<string>((answer) => answers.push(answer)),
  });
  rings.subscribe(() => undefined);
  return { queries, answers, shown: () => rings.getCurrentResult().data };
}

const asked = (answers: readonly unknown[], times: number) =>
  vi.waitFor(() => {
    expect(answers).toHaveLength(times);
  });

test('the first answer, asked for before a change, is shown and asked for again, once for all changes', async () => {
  const { queries, answers, shown } = lookedAt();
  const changes = [changed(queries, ['rings']), changed(queries, ['rings'])];
  answers[0]?.('before');
  await asked(answers, 2);
  expect(shown()).toBe('before');
  answers[1]?.('after');
  await Promise.all(changes);
  expect(shown()).toBe('after');
  expect(answers).toHaveLength(2);
});

test('a later answer, asked for before a change, is asked for again too', async () => {
  const { queries, answers, shown } = lookedAt();
  answers[0]?.('long ago');
  await vi.waitFor(() => {
    expect(shown()).toBe('long ago');
  });
  const first = changed(queries, ['rings']);
  await asked(answers, 2);
  const second = changed(queries, ['rings']);
  answers[1]?.('before');
  await asked(answers, 3);
  answers[2]?.('after');
  await Promise.all([first, second]);
  expect(shown()).toBe('after');
});

test('an answer on its way that knows of the change is enough', async () => {
  const { queries, answers, shown } = lookedAt();
  const heard = changed(queries, ['rings'], () => shown() === 'after');
  answers[0]?.('after');
  await heard;
  expect(answers).toHaveLength(1);
});

test('an answer that is lost on its way is not waited for', async () => {
  vi.useFakeTimers();
  const { queries, answers, shown } = lookedAt();
  const heard = changed(queries, ['rings']);
  await vi.advanceTimersByTimeAsync(10_000);
  expect(answers).toHaveLength(2);
  answers[1]?.('after');
  await heard;
  expect(shown()).toBe('after');
  vi.useRealTimers();
});

test('a question that fails is asked again after the change', async () => {
  const queries = new QueryClient();
  const list = vi.fn().mockRejectedValueOnce(new Error('gone')).mockResolvedValue('after');
  const rings = new QueryObserver(queries, { queryKey: KEY, queryFn: list, retry: false });
  rings.subscribe(() => undefined);
  await changed(queries, ['rings']);
  expect(rings.getCurrentResult().data).toBe('after');
});

test('what a save told is not replaced by an answer that was on its way', async () => {
  const { queries, answers, shown } = lookedAt();
  nowIs(queries, KEY, 'saved');
  answers[0]?.('before');
  await vi.waitFor(() => {
    expect(queries.isFetching()).toBe(0);
  });
  expect(shown()).toBe('saved');
});
