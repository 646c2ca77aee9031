import { beforeEach, vi } from 'vitest';

// What React complains of (two children of one key, an update after the end) is a fault, not a line in a log.
beforeEach(() => {
  vi.spyOn(console, 'error').mockImplementation((...words: unknown[]) => {
    throw new Error(words.map(String).join(' '));
  });
});
