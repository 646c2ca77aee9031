import { readFileSync } from 'node:fs';
import { expect, test } from 'vitest';
import { dropOutline, stoneColours } from './stones';

const schema = JSON.parse(readFileSync('../docs/ring.schema.json', 'utf8')) as {
  $defs: { Bead: { properties: { colour: { enum: string[] } } } };
};

test('every colour of the ring file has shades of its own', () => {
  const names = schema.$defs.Bead.properties.colour.enum;
  expect(new Set(names.map((name) => stoneColours(name).join())).size).toBe(names.length);
});

test('a drop touches both ends of its length and both sides of its width', () => {
  const numbers =
    dropOutline(1, 0, 15, 9)
      .match(/-?\d+(\.\d+)?/g)
      ?.map(Number) ?? [];
  const [tip, , x = 0, y = 0, r = 0] = numbers;
  expect(tip).toBe(8.5);
  expect(r).toBe(4.5);
  // The line from the tip is square to the circle's radius where it touches.
  const middle = 1 - 7.5 + 4.5;
  expect((x - middle) * (8.5 - x) + y * -y).toBeCloseTo(0, 9);
});
