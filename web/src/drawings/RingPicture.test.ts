// @vitest-environment jsdom
import { describe, expect, it } from 'vitest';
import { svgOf } from './RingPicture';

const picture = {
  box: [-10, -8, 20, 16],
  lines: [
    { d: 'M0.00 1.00L2.00 3.00', width_mm: 0.8, metal: 'copper', bead: null },
    { d: '', width_mm: 0, metal: '', bead: [1, 2, 3, 4] },
  ],
};

describe('a ring’s picture', () => {
  it('is one well-formed image with its own frame', () => {
    const found = new DOMParser().parseFromString(svgOf(picture), 'image/svg+xml');
    expect(found.querySelector('parsererror')).toBeNull();
    expect(found.documentElement.getAttribute('viewBox')).toBe('-10 -8 20 16');
  });
  it('paints lines and beads in their order', () => {
    const found = new DOMParser().parseFromString(svgOf(picture), 'image/svg+xml');
    const painted = [...found.documentElement.children].slice(1).map((e) => e.tagName);
    expect(painted).toEqual(['path', 'path', 'path', 'ellipse']);
    expect(found.querySelector('path')?.getAttribute('stroke-width')).toBe('0.80');
  });
  it('keeps copper apart from silver', () => {
    const silver = { ...picture, lines: [{ d: 'M0 0L1 1', width_mm: 1, metal: 'sterling', bead: null }] };
    expect(svgOf(silver)).not.toContain('#b8683c');
    expect(svgOf(picture)).toContain('#b8683c');
  });
});
