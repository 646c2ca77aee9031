import { describe, expect, test } from 'vitest';
import { begin, edited, exchanged, FIRST_RING, redone, replaced, saved, undone, valueAt, withValue } from './draft';
import type { RingPath } from './ringPaths';

const at = (draft: Record<string, unknown>, path: RingPath) => valueAt(draft, path);

test('a value is set at its path and everything else stays', () => {
  const beaded = { ...FIRST_RING, head: { style: 'bead-lock', bead: { diameter_mm: 7, hole_mm: 1.1 } } };
  const next = withValue(beaded, 'head.bead.diameter_mm', 9);
  expect(at(next, 'head.bead.diameter_mm')).toBe(9);
  expect(at(next, 'head.bead.hole_mm')).toBe(1.1);
  expect(at(beaded, 'head.bead.diameter_mm')).toBe(7);
  expect(at(withValue({}, 'finger.size', 'UK M'), 'finger')).toEqual({ size: 'UK M' });
});

test('a value that is taken out leaves no trace', () => {
  expect(withValue({ band: { style: 'woven', program: 'AB1' } }, 'band.program', undefined)).toEqual({
    band: { style: 'woven' },
  });
});

describe('history', () => {
  const start = begin({ draft: FIRST_RING, revision: 3 });

  test('typing on in one field is one edit, and it can be taken back and made again', () => {
    const typed = ['U', 'UK', 'UK P'].reduce((h, text) => edited(h, 'finger.size', text), start);
    expect(typed.past).toHaveLength(1);
    const back = undone(typed);
    expect(at(back.present.draft, 'finger.size')).toBe('US 6 1/2');
    expect(at(redone(back).present.draft, 'finger.size')).toBe('UK P');
  });

  test('another field is another edit, and a new edit ends what could be made again', () => {
    const two = edited(edited(start, 'finger.size', 'UK P'), 'band.turns', 2);
    expect(two.past).toHaveLength(2);
    const other = edited(undone(two), 'band.turns', 3);
    expect(redone(other)).toBe(other);
  });

  test('an edit that changes nothing is none', () => {
    expect(edited(start, 'finger.size', 'US 6 1/2')).toBe(start);
  });

  test('a style that is chosen again finds what was set in it', () => {
    const thrice = edited(start, 'band.turns', 3);
    const crossed = exchanged(thrice, [{ part: 'band', kind: 'crossed', from: 'turned', usual: { style: 'crossed' } }]);
    expect(at(crossed.present.draft, 'band')).toEqual({ style: 'crossed' });
    const again = exchanged(crossed, [{ part: 'band', kind: 'turned', from: 'crossed', usual: { style: 'turned' } }]);
    expect(at(again.present.draft, 'band.turns')).toBe(3);
  });

  test('a part that is switched off is taken out and comes back as it was', () => {
    const on = exchanged(start, [{ part: 'band.worked', kind: 'on', from: 'off', usual: {} }]);
    const set = edited(on, 'band.worked.lay_mm', 9);
    const off = exchanged(set, [{ part: 'band.worked', kind: 'off', from: 'on', usual: undefined }]);
    expect(at(off.present.draft, 'band.worked')).toBeUndefined();
    expect(
      at(
        exchanged(off, [{ part: 'band.worked', kind: 'on', from: 'off', usual: {} }]).present.draft,
        'band.worked.lay_mm',
      ),
    ).toBe(9);
  });

  test('another ring on the desk can be taken back', () => {
    const other = replaced(edited(start, 'title', 'Mine'), { draft: { title: 'Imported' }, revision: 0 });
    expect(at(undone(other).present.draft, 'title')).toBe('Mine');
  });

  test('after a save the new revision stands, with what was typed meanwhile', () => {
    const sent = edited(start, 'title', 'Sent').present.draft;
    const meanwhile = edited(edited(start, 'title', 'Sent'), 'notes', 'more');
    const kept = saved(meanwhile, sent, { ...sent, title: 'Sent' }, 4);
    expect(kept.present.revision).toBe(4);
    expect(at(kept.present.draft, 'notes')).toBe('more');
    const same = saved(edited(start, 'title', 'Sent'), sent, { title: 'As stored' }, 4);
    expect(same.present.draft).toEqual({ title: 'As stored' });
    expect(undone(same).present.revision).toBe(4);
  });

  test('it forgets only after two hundred steps', () => {
    let h = start;
    for (let k = 0; k < 300; k += 1) h = edited(h, k % 2 ? 'notes' : 'title', `${k}`);
    expect(h.past).toHaveLength(200);
  });
});
