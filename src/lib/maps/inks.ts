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
