import { expect, test } from 'vitest';
import { readRingText } from './ringFile';

test.each(['{"format": "pliant-coil/ring", "finger": {"size": "US 7"}}', '{"band": {"style": "woven"}}'])(
  '%s is a ring',
  (text) => {
    expect(readRingText(text)).toEqual(JSON.parse(text));
  },
);

test.each(['[]', 'null', '7', '{"title": "a letter"}', '{"format": "other/thing", "band": {}}', '{ not json'])(
  '%s is none',
  (text) => {
    expect(() => readRingText(text)).toThrow();
  },
);
