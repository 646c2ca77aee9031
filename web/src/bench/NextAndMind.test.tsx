// @vitest-environment jsdom
import { cleanup, fireEvent, screen } from '@testing-library/react';
import { afterEach, expect, test, vi } from 'vitest';
import type { JobAtBench, Progress, Step } from '../api/client';
import { drawn, serving } from '../testing/serve';
import { NextAndMind } from './NextAndMind';

const step = (id: string, cautions: string[] = []) => ({ id, text: `Do ${id} 1/2.`, cautions }) as unknown as Step;
const steps = ['cut', 'form', 'lock', 'trim', 'feel'].map((id) => step(id, id === 'form' ? ['Eyes covered.'] : []));

afterEach(() => {
  cleanup();
  vi.restoreAllMocks();
});

function shown(place: number, over: { batch_id?: string | null; waits?: boolean } = {}) {
  serving({});
  const say = vi.fn(() => '');
  const onOpen = vi.fn();
  const at = { plan: { steps }, job: { batch_id: over.batch_id ?? null } } as unknown as JobAtBench;
  const progress = { place, notes: ['a kink'], waits: over.waits ?? false } as unknown as Progress;
  const here = steps[place];
  if (!here) throw new Error('no such step');
  drawn(
    <NextAndMind at={at} progress={progress} step={here} say={say} onOpen={onOpen} spoken={false} onSpoken={vi.fn()} />,
  );
  return { say, onOpen };
}

test('three steps come next, with their cautions, notes and what is seldom wanted', () => {
  const { onOpen } = shown(1);
  expect(screen.getByRole('region', { name: 'Next' }).textContent).toBe('NextDo lock ½.Do trim ½.Do feel ½.');
  expect(screen.getByText('Eyes covered.')).toBeTruthy();
  expect(screen.getByText('Noted: a kink')).toBeTruthy();
  expect(screen.queryByRole('button', { name: 'Ask for help' })).toBeNull();
  fireEvent.click(screen.getByRole('button', { name: 'Note' }));
  expect(onOpen).toHaveBeenCalledWith('note');
});

test('in a class help is asked for and has come; the last step says that it is the last', () => {
  const { say } = shown(4, { batch_id: 'class', waits: true });
  expect(screen.getByText('Nothing: this is the last step.')).toBeTruthy();
  fireEvent.click(screen.getByRole('button', { name: 'Help has come' }));
  expect(say).toHaveBeenCalledWith('helped', { task: 'feel' });
});

test('a bench says more, or the figures, and remembers it', () => {
  shown(0);
  const seen = ['Says what is done', 'Says the figures', 'Says more', 'Says what is done'];
  for (const [k, words] of seen.entries()) {
    const button = screen.getByRole('button', { name: words });
    if (k < seen.length - 1) fireEvent.click(button);
  }
});
