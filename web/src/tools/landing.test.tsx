// @vitest-environment jsdom
import { render, screen } from '@testing-library/react';
import { useState } from 'react';
import { expect, test } from 'vitest';
import { land, written, type Said } from './landing';

const CALIPER: Said = { device: 'caliper', value: 17.12, unit: 'mm' };

function Field({ decimal = false, lines = false }: { decimal?: boolean; lines?: boolean }) {
  const [value, setValue] = useState(lines ? 'US 7' : '');
  const change = (event: { target: { value: string } }) => setValue(event.target.value);
  return lines ? (
    <textarea aria-label="field" value={value} onChange={change} />
  ) : (
    <input aria-label="field" value={value} onChange={change} inputMode={decimal ? 'decimal' : 'text'} />
  );
}

test('readings are written in the maker’s own unit', () => {
  expect(written(CALIPER, 'mm')).toEqual({ number: '17.12', unit: 'mm' });
  expect(written(CALIPER, 'in')).toEqual({ number: '0.674', unit: 'in' });
  expect(written({ device: 'scale', value: 0.8, unit: 'g' }, 'in')).toEqual({ number: '0.80', unit: 'g' });
});

test.each([
  ['a length', <Field key="a" decimal />, '17.12'],
  ['a size', <Field key="b" />, '17.12 mm'],
  ['lines of marks', <Field key="c" lines />, 'US 7 17.12'],
])('it lands in a field for %s', (_, field, landed) => {
  const { unmount } = render(field);
  const element = screen.getByLabelText<HTMLInputElement>('field');
  element.focus();
  expect(land(CALIPER, 'mm')).toBe(true);
  expect(element.value).toBe(landed);
  unmount();
});

test('without a field it lands nowhere', () => {
  expect(land(CALIPER, 'mm', document.body)).toBe(false);
  const secret = document.createElement('input');
  secret.type = 'password';
  expect(land(CALIPER, 'mm', secret)).toBe(false);
});
