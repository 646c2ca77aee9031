import { expect, test } from 'vitest';
import { lastOf } from './archive';
import type { ImportTold } from './client';

const line = (read: number, done: boolean): ImportTold => ({
  files: 3,
  read,
  rings: read,
  records: 0,
  photos: 0,
  known: 0,
  refused: [],
  done,
});

test('each line of an archive that comes in is told, wherever the network cuts it', async () => {
  const text = [line(1, false), line(3, false), line(3, true)].map((each) => `${JSON.stringify(each)}\n`).join('');
  const bytes = new TextEncoder().encode(text);
  const body = new ReadableStream<Uint8Array>({
    start(controller) {
      for (let at = 0; at < bytes.length; at += 7) controller.enqueue(bytes.slice(at, at + 7));
      controller.close();
    },
  });
  const told: number[] = [];
  const last = await lastOf(body, ({ read }) => told.push(read));
  expect(told).toEqual([1, 3, 3]);
  expect(last?.done).toBe(true);
});
