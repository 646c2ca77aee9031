import { beforeEach, vi } from 'vitest';

// What React complains of (two children of one key, an update after the end) is a fault, not a line in a log.
beforeEach(() => {
  vi.spyOn(console, 'error').mockImplementation((...words: unknown[]) => {
    throw new Error(words.map(String).join(' '));
  });
});

/** Of what a browser has and the tests’ one lacks: nothing changes its size, and the server tells nothing by itself. */
class Silent {
  observe = nothing;
  unobserve = nothing;
  disconnect = nothing;
  close = nothing;
}
function nothing() {
  return undefined;
}
Object.assign(globalThis, { ResizeObserver: Silent, EventSource: Silent });
