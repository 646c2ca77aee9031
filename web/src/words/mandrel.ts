/** A mandrel whose marks are off: by so much at an inside diameter of 17 mm, and more for each millimetre. */
export interface Line {
  name: string;
  off_mm: number;
  slope: number;
}
const MIDDLE_MM = 17;

/** What a mandrel measures where its mark names this inside diameter [mm]; without one the mark itself. */
export const trueAt = (mandrel: Line | null, marked: number) =>
  mandrel ? marked + mandrel.off_mm + mandrel.slope * (marked - MIDDLE_MM) : marked;
