import { expect, test } from 'vitest';
import { ringsOf } from './several';

test('a line is a size and whose it is', () => {
  expect(ringsOf('US 7, horn\n\n  UK Q 1/2 ,tuba, the old one\n54,4 mm\nUS 8')).toEqual([
    { size: 'US 7', for_whom: 'horn' },
    { size: 'UK Q 1/2', for_whom: 'tuba, the old one' },
    { size: '54,4 mm', for_whom: '' },
    { size: 'US 8', for_whom: '' },
  ]);
  expect(ringsOf(' \n')).toEqual([]);
});
