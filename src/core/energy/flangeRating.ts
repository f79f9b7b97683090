/** What flanges of a class bear near ambient, and nothing of hotter ones: there their class is to be looked up. */
export const AMBIENT_C = 38;

/**
 * ASME B16.5 (2013), the least of its common steels, group 2.3, at 38 °C, in bar; from memory: check the flange's own
 * material. Carbon steel of the same class bears more.
 */
const CLASS_bar: Readonly<Record<number, number>> = {
  150: 15.9,
  300: 41.4,
  400: 55.2,
  600: 82.7,
  900: 124.1,
  1500: 206.8,
  2500: 344.7,
};
/** Pressure numbers end here; above they are classes. EN 1333, from memory. */
const HIGHEST_PN = 100;
/** Pressure numbers that are written PN though they are as high as a class. */
const IS_PN = /^PN ?/i;

/**
 * Pressure in Pa that a flange of this class bears near ambient; null where the class is none that is known. A pressure number
 * is what it bears there in bar (EN 1333, from memory). A number without letters is one up to 100, and a class above it.
 */
export function flangeRating_Pa(flangeClass: string | undefined): number | null {
  const text = flangeClass?.trim() ?? "";
  const found = /^(?:PN ?|class ?|cl\.? ?|#)?(\d{1,4}(?:\.\d)?) ?(?:#|lbs?)?$/i.exec(text);
  if (found === null) return null;
  const number = Number(found[1]);
  const isNumber = IS_PN.test(text) || (/^\d/.test(text) && number <= HIGHEST_PN && !/[#l]/i.test(text));
  if (isNumber) return number * 1e5;
  const bar = CLASS_bar[number];
  return bar === undefined ? null : bar * 1e5;
}
