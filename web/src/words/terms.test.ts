import { describe, expect, it } from 'vitest';
import { meanings } from './terms';

describe('words on the strips', () => {
  it('are explained once, and only those that stand there', () => {
    const told = meanings(['spare', 'hold', 'lock ×2', 'round', 'lock ×2', 'hold', 'spare']);
    expect(told).toHaveLength(3);
    expect(told.join(' ')).toContain('shoulder');
  });
  it('are none where every word speaks for itself', () => {
    expect(meanings(['round', 'woven'])).toEqual([]);
  });
  it('know ways past a bead by their first word', () => {
    expect(meanings(['past the bead'])).toEqual(meanings(['under']));
  });
});
