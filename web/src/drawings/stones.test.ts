import { readFileSync } from 'node:fs';
import { expect, test } from 'vitest';
import { stoneColours } from './stones';

const schema = JSON.parse(readFileSync('../docs/ring.schema.json', 'utf8')) as {
  $defs: { Bead: { properties: { colour: { enum: string[] } } } };
};

test('every colour of the ring file has shades of its own', () => {
  const names = schema.$defs.Bead.properties.colour.enum;
  expect(new Set(names.map((name) => stoneColours(name).join())).size).toBe(names.length);
});
