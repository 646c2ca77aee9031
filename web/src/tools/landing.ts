import { MM_PER_INCH, type Units } from '../words/figures';

/** What a tool says: a length in millimetres or a mass in grams. */
export interface Said {
  device: string;
  value: number;
  unit: 'mm' | 'g';
}

/** A reading in the maker's own unit: the number, and the unit that belongs to it. */
export function written({ value, unit }: Said, units: Units): { number: string; unit: string } {
  if (unit === 'g') return { number: value.toFixed(2), unit: 'g' };
  return units === 'in'
    ? { number: (value / MM_PER_INCH).toFixed(3), unit: 'in' }
    : { number: value.toFixed(2), unit: 'mm' };
}

const typeable = (element: Element | null): element is HTMLInputElement | HTMLTextAreaElement =>
  element instanceof HTMLTextAreaElement ||
  (element instanceof HTMLInputElement && ['text', 'search', 'number', 'tel'].includes(element.type));

/** Puts a reading into the field that has the focus, as if it were typed there; whether there was one. */
export function land(said: Said, units: Units, focused: Element | null = document.activeElement): boolean {
  if (!typeable(focused) || focused.readOnly || focused.disabled) return false;
  const { number, unit } = written(said, units);
  const whole = focused instanceof HTMLTextAreaElement;
  // A field for lengths knows its unit; one for sizes has to be told. Lines of marks take it at their end.
  const bare = whole || focused.inputMode === 'decimal';
  const text = bare ? number : `${number} ${unit}`;
  const before = focused.value;
  const next = whole ? `${before}${/\s$|^$/.test(before) ? '' : ' '}${text}` : text;
  const proto = whole ? HTMLTextAreaElement.prototype : HTMLInputElement.prototype;
  // The page's own listeners hear it as they hear typing.
  Object.getOwnPropertyDescriptor(proto, 'value')?.set?.call(focused, next);
  focused.dispatchEvent(new Event('input', { bubbles: true }));
  return true;
}
