import { lengthIn, type Units } from '../words/figures';

/** Marks as they are typed, a line each: `US 7 17.25` or `UK N½ = 17,3`: the mark, and what is measured there [mm]. */
export function marksOf(text: string, units: Units) {
  return text
    .split('\n')
    .map((line) => line.trim())
    .filter(Boolean)
    .map((line) => {
      // A mark has a number or a letter of its own: “US 7” alone is a mark without a measure.
      const [, mark = line, measured = ''] =
        /^(.*(?:\d|\b[A-Za-z]\b).*?)\s*[=:\s]\s*([\d.,/]+)\s*(?:mm|in)?$/.exec(line) ?? [];
      return { mark: mark.trim(), measured_mm: lengthIn(measured, units) };
    });
}
