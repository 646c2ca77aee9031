// @vitest-environment jsdom
import { beforeEach, describe, expect, it } from 'vitest';
import { kept, laid, MOST } from './beside';

beforeEach(() => sessionStorage.clear());

describe('rings side by side', () => {
  it('are laid out, kept for the tab, and taken away by the same tap', () => {
    const one = laid([], { name: 'Nest', draft: { band: { style: 'turned' } } });
    expect(kept()).toEqual(one);
    expect(laid(one, { name: 'Nest', draft: {} })).toEqual([]);
    expect(kept()).toEqual([]);
  });
  it('are four at most', () => {
    let all = kept();
    for (const name of ['a', 'b', 'c', 'd', 'e']) all = laid(all, { name, draft: {} });
    expect(all).toHaveLength(MOST);
  });
  it('are put away together', () => {
    laid([], { name: 'a', draft: {} });
    expect(laid(kept(), null)).toEqual([]);
  });
  it('are none where what is kept can’t be read', () => {
    sessionStorage.setItem('pliant-coil.beside', '{');
    expect(kept()).toEqual([]);
  });
});
