const GLYPHS: Record<string, string> = {
  '1/2': '½', '1/4': '¼', '3/4': '¾', '1/8': '⅛', '3/8': '⅜', '5/8': '⅝', '7/8': '⅞', '1/3': '⅓', '2/3': '⅔',
}; // prettier-ignore

export type Units = 'mm' | 'in';
export const MM_PER_INCH = 25.4;

/** `8 1/4` as it is written by hand: 8¼. Fractions without a glyph of their own keep their slash. */
export const withFractions = (text: string) =>
  text.replace(/(?:(\d|\b[A-Z]) )?\b([1-7]\/[2-8])\b/g, (whole, before: string | undefined, fraction: string) => {
    const glyph = GLYPHS[fraction];
    return glyph ? `${before ?? ''}${glyph}` : whole;
  });

/** Millimetres with no more digits than a tape or a caliper shows. */
export const mm = (value: number, digits = 1) => {
  const text = value.toFixed(digits);
  return text.includes('.') ? text.replace(/\.?0+$/, '') : text;
};

/** A signed number with a real minus. */
export const signed = (value: number, digits: number) => `${value < 0 ? '−' : '+'}${Math.abs(value).toFixed(digits)}`;

/** `0.02` as makers say it: 1 in 50. */
export const oneIn = (risk: number) => `1 in ${Math.round(1 / risk)}`;

const commonDivisor = (a: number, b: number): number => (b ? commonDivisor(b, a % b) : a);

/** To the nearest 1/parts, in lowest terms: `8 1/4`, `3/8`, `7`. */
export function fraction(value: number, parts: number): string {
  const steps = Math.round(value * parts);
  const [whole, rest] = [Math.floor(steps / parts), steps % parts];
  if (!rest) return String(whole);
  const shared = commonDivisor(rest, parts);
  const part = `${rest / shared}/${parts / shared}`;
  return whole ? `${whole} ${part}` : part;
}

/**
 * The number of a length in drawings, without its unit. The server writes every text; drawings take the same rule
 * (core/words/figures: a ruler's tenths of a millimetre below 20, sixteenths of an inch, finer for small ones).
 */
export function measure(value: number, units: Units): string {
  if (units === 'mm') return mm(value, Math.abs(value) < 19.95 ? 1 : 0);
  const inches = value / MM_PER_INCH;
  if (inches >= 1) return withFractions(fraction(inches, 16));
  if (inches >= 0.12) return withFractions(fraction(inches, 32));
  return inches.toFixed(3);
}

/** A length in drawings, with its unit. */
export const length = (value: number, units: Units) => `${measure(value, units)} ${units}`;

/** `230 mm (9 1/8 in)` as what comes first and what stands in brackets. */
export function firstAndOther(text: string): [string, string] {
  const at = text.indexOf(' (');
  return at < 0 ? [withFractions(text), ''] : [withFractions(text.slice(0, at)), withFractions(text.slice(at + 2, -1))];
}

/** A length as it is typed in the maker's own unit, fractions too: `7,5`, `3/8`, `1 1/2` [mm]; NaN for none. */
export function lengthIn(text: string, units: Units): number {
  // A whole number stands apart from its fraction: 11/2 is five and a half.
  const pattern = /^(?:(\d+(?:\.\d+)?)(?:\s+(?=\d+\/)|$))?(?:(\d+)\/([1-9]\d*))?$/;
  const [read, whole, top, under] = pattern.exec(text.trim().replace(',', '.')) ?? [];
  if (!read) return NaN;
  const number = Number(whole ?? 0) + (top && under ? Number(top) / Number(under) : 0);
  return units === 'in' ? number * MM_PER_INCH : number;
}
