const GLYPHS: Record<string, string> = {
  '1/2': '½', '1/4': '¼', '3/4': '¾', '1/8': '⅛', '3/8': '⅜', '5/8': '⅝', '7/8': '⅞', '1/3': '⅓', '2/3': '⅔',
}; // prettier-ignore

/** `8 1/4` as it is written by hand: 8¼. Fractions without a glyph of their own keep their slash. */
export const withFractions = (text: string) =>
  text.replace(/(\d|[A-Z])? ?\b([1-7]\/[2-8])\b/g, (whole, before: string | undefined, fraction: string) => {
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
