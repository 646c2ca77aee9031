// @vitest-environment jsdom
import { renderHook } from '@testing-library/react';
import { expect, test, vi } from 'vitest';
import { useChanges } from './useChanges';

test('a stream that the server ended is listened to again, until nobody looks any more', () => {
  vi.useFakeTimers();
  const streams: { -readonly [K in keyof EventSource]?: EventSource[K] }[] = [];
  vi.spyOn(globalThis, 'EventSource').mockImplementation(function (this: EventSource) {
    this.close = () => undefined;
    streams.push(this);
    return this;
  });
  Object.assign(EventSource, { CLOSED: 2 });
  const heard: number[] = [];
  const away: boolean[] = [];
  const onChange = (number: number) => heard.push(number);
  const onAway = (gone: boolean) => away.push(gone);
  const { unmount } = renderHook(() => useChanges('/changes', onChange, onAway));
  const fails = (state: number) => {
    const stream = streams.at(-1) as EventSource;
    Object.assign(stream, { readyState: state });
    stream.onerror?.(new Event('error'));
  };
  const listenedTo = (times: number) => {
    vi.advanceTimersByTime(60_000);
    expect(streams).toHaveLength(times);
  };
  fails(0);
  listenedTo(1);
  fails(2);
  listenedTo(2);
  (streams.at(-1) as EventSource).onmessage?.(new MessageEvent('message', { data: '7' }));
  expect([heard, away]).toEqual([[7], [true, true, false]]);
  fails(2);
  unmount();
  listenedTo(2);
  vi.useRealTimers();
});
