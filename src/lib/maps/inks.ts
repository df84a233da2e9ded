/** Colours of the categories of a map. */
import type { ColumnName } from '$core/facts';
import type { Category } from '$core/maps';

const QUIET = 'var(--v-unvisited)';
/** Hues that are told apart in both themes, as the rest of the program has them. */
const kinds = [
  ...['indexable', 'noindex', 'canonicalised', 'failing', 'redirect', 'blocked', 'not_html', 'broken'],
  'unanswered',
].map((verdict) => `var(--v-${verdict})`);

export function inkOf({ value }: Category, at: number, of: number, isScale: boolean, by: ColumnName | null) {
  if (value.is === 'unmarked' || value.is === 'other' || (value.is === 'value' && value.value === null)) return QUIET;
  if (value.is === 'marked') return 'var(--lost)';
  if (by === 'verdict' && value.is === 'value') return `var(--v-${String(value.value)})`;
  if (isScale)
    return `color-mix(in oklab, var(--color-primary) ${Math.round(20 + (80 * at) / Math.max(1, of - 1))}%, var(--color-base-100))`;
  return kinds[at % kinds.length];
}

let context: CanvasRenderingContext2D | null = null;
/** How wide a text of 12 pixels is. */
export function widthOf(text: string, weight = 400): number {
  context ??= document.createElement('canvas').getContext('2d')!;
  context.font = `${weight} 12px "Source Sans 3 Variable"`;
  return context.measureText(text).width;
}

/** A text as far as it fits into a width: cut at its end, or at its beginning where the end tells more. */
export function fitted(text: string, width: number, { keepsEnd = false, weight = 400 } = {}): string {
  const fits = (tried: string) => widthOf(tried, weight) <= width;
  if (fits(text)) return text;
  let [low, high] = [0, text.length];
  while (low < high) {
    const middle = (low + high + 1) >> 1;
    if (fits(keepsEnd ? `…${text.slice(-middle)}` : `${text.slice(0, middle)}…`)) low = middle;
    else high = middle - 1;
  }
  if (low < 2) return '';
  return keepsEnd ? `…${text.slice(-low)}` : `${text.slice(0, low)}…`;
}
