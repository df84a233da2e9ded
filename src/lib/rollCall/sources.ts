/** How sources are named in addresses, on screens and in selections. */
import { quote } from '$core/selection/language';

/** The sources that are compared, as a part of the address of a screen. */
export const sourcesText = (names: readonly string[]): string => names.map(encodeURIComponent).join(',');

/** The reverse of {@link sourcesText}; what cannot be read names nothing. */
export function readSources(text: string): string[] {
  try {
    return text === '' ? [] : text.split(',').map(decodeURIComponent);
  } catch {
    return [];
  }
}

/** The test of pages that a source knows: `seen in links`, `log("May")`. */
export function sourceTest(name: string): string {
  const colon = name.indexOf(':');
  return colon < 0 ? `seen in ${name}` : `${name.slice(0, colon)}(${quote(name.slice(colon + 1))})`;
}

/** The pages that exactly some of the chosen sources know. */
export const combinationTest = (chosen: readonly string[], knowing: readonly string[]): string =>
  chosen.map((name) => (knowing.includes(name) ? sourceTest(name) : `not ${sourceTest(name)}`)).join(' and ');

/** The orders of the combinations. */
export const orders = ['urls', 'hits', 'indexable'] as const;
export type Order = (typeof orders)[number];
