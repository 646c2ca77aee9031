// @vitest-environment jsdom
import { afterEach, beforeEach, expect, test, vi } from 'vitest';
import { fetched } from './fetched';

const failingTimes = (times: number) => {
  const load = vi.fn<() => Promise<string>>().mockResolvedValue('here');
  for (let k = 0; k < times; k++) load.mockRejectedValueOnce(new TypeError('failed to fetch'));
  return load;
};

beforeEach(() => void vi.useFakeTimers());
afterEach(() => {
  vi.useRealTimers();
  vi.restoreAllMocks();
});

test('a part that doesn’t come is asked for again, ever more seldom', async () => {
  const load = failingTimes(2);
  const coming = fetched(load);
  await vi.advanceTimersByTimeAsync(2_900);
  expect(load).toHaveBeenCalledTimes(2);
  await vi.advanceTimersByTimeAsync(200);
  await expect(coming).resolves.toBe('here');
});

test('a screen that never comes is given up', async () => {
  const coming = fetched(failingTimes(9), 3);
  const given = expect(coming).rejects.toThrow('failed to fetch');
  await vi.advanceTimersByTimeAsync(10_000);
  await given;
});

test('without a network it is waited for, and asked for as soon as there is one', async () => {
  const onLine = vi.spyOn(navigator, 'onLine', 'get').mockReturnValue(false);
  const load = failingTimes(5);
  const coming = fetched(load, 1);
  await vi.advanceTimersByTimeAsync(30_000);
  expect(load).toHaveBeenCalledTimes(5);
  onLine.mockReturnValue(true);
  dispatchEvent(new Event('online'));
  await expect(coming).resolves.toBe('here');
});
