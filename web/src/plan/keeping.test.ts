// @vitest-environment jsdom
import { beforeEach, expect, test } from 'vitest';
import { begin, edited, undone } from './draft';
import { beat, forget, keep, takeUp } from './keeping';

const TAB = 'pliant-coil.tab';
const asTab = (name: string) => sessionStorage.setItem(TAB, name);
const kept = (title: string) => begin({ draft: { title }, revision: 1 });

beforeEach(() => {
  localStorage.clear();
  sessionStorage.clear();
});

test('a tab finds its own draft again', () => {
  asTab('one');
  keep(undefined, kept('Mine'));
  expect(takeUp(undefined)).toEqual(kept('Mine'));
  forget(undefined);
  expect(takeUp(undefined)).toBeNull();
});

test('two open tabs never share a draft', () => {
  asTab('one');
  keep('ring', kept('First'));
  asTab('two');
  expect(takeUp('ring')).toBeNull();
});

test('what a tab left behind is taken up by the next, once', () => {
  asTab('one');
  keep('ring', kept('Left'));
  beat('ring', 0);
  asTab('two');
  expect(takeUp('ring')).toEqual(kept('Left'));
  asTab('three');
  expect(takeUp('ring')).toBeNull();
});

test('a tab that says that it is there keeps its draft', () => {
  asTab('one');
  keep('ring', kept('Alive'), 1_000);
  beat('ring', 50_000);
  asTab('two');
  expect(takeUp('ring', 55_000)).toBeNull();
  expect(takeUp('ring', 70_000)).toEqual(kept('Alive'));
});

test('another ring’s draft is none of its business, and a broken one is no draft', () => {
  asTab('one');
  keep('ring', kept('Mine'));
  expect(takeUp('other')).toBeNull();
  localStorage.setItem('pliant-coil.draft.new.one', '{ broken');
  expect(takeUp(undefined)).toBeNull();
});

test('what could be taken back still can be after a reload', () => {
  asTab('one');
  keep('ring', edited(edited(kept('Mine'), 'title', 'Typed'), 'notes', 'more'));
  const again = takeUp('ring');
  expect(again && undone(undone(again)).present.draft).toEqual({ title: 'Mine' });
});
