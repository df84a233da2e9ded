/** How pages are told apart on a map: by a fact, or by whether they are in a selection. */
import { factOf, keepsText } from '../facts';
import type { ColumnName } from '../facts';
import { clauseOf, hasBit } from '../selection';
import type { Bits } from '../selection';
import { factAt, isText } from '../snapshot';
import type { Column, FactValue } from '../snapshot';
import type { View } from '../view';

/** The values that pages of one colour have: one, a range (the upper end left out, null for none), or what is left. */
export type CategoryValue =
  | { is: 'value'; value: FactValue }
  | { is: 'range'; from: number; to: number | null }
  | { is: 'other' }
  | { is: 'marked' | 'unmarked' };

export interface Category {
  value: CategoryValue;
  /** The selection of its pages; '' where the language has none. */
  select: string;
  pages: number;
}

export interface Colouring {
  /** What the colours tell: a fact, or null for whether pages are marked. */
  by: ColumnName | null;
  /** Whether the categories are steps of a scale. */
  isScale: boolean;
  categories: Category[];
  /** By page its category. */
  of: Uint8Array;
}

/** Texts that have a colour of their own; the others share one. */
const MOST_TEXTS = 8;
const MOST_STEPS = 7;

/** The lower ends of the steps of a scale over ascending numbers, so that each has about as many of them. */
export function scaleSteps(ascending: ArrayLike<number>, most = MOST_STEPS): number[] {
  const steps: number[] = [];
  let at = 0;
  while (at < ascending.length && steps.length < most) {
    const step = ascending[at];
    steps.push(step);
    // The next one begins where its part of what is left has been used up, and never within equal numbers.
    let next = at + Math.ceil((ascending.length - at) / (most - steps.length + 1));
    while (next < ascending.length && ascending[next] === ascending[next - 1]) next++;
    at = next;
  }
  return steps;
}

function distinct(column: Column, pages: Uint32Array): Map<number, number> {
  const codes = isText(column) ? column.codes : column;
  const counts = new Map<number, number>();
  for (const page of pages) counts.set(codes[page], (counts.get(codes[page]) ?? 0) + 1);
  return counts;
}

/** The categories of a scale, what is unknown first. */
function scaled(by: ColumnName, column: Int32Array | Float64Array, pages: Uint32Array): Colouring {
  const known = Float64Array.from(pages, (page) => column[page])
    .filter((value) => value >= 0)
    .sort();
  const steps = scaleSteps(known);
  const hasUnknown = known.length < pages.length;
  const before = hasUnknown ? 1 : 0;
  const of = new Uint8Array(column.length);
  const counts = new Uint32Array(before + steps.length);
  for (const page of pages) {
    let step = steps.length;
    while (step > 0 && steps[step - 1] > column[page]) step--;
    of[page] = column[page] < 0 ? 0 : before + step - 1;
    counts[of[page]]++;
  }
  const written = (value: number) => (Number.isInteger(value) ? String(value) : value.toFixed(12));
  const ranges = steps.map((from, i): Category => {
    const to = steps[i + 1] ?? null;
    const select = `${by} >= ${written(from)}${to === null ? '' : ` and ${by} < ${written(to)}`}`;
    return { value: { is: 'range', from, to }, select, pages: counts[before + i] };
  });
  const unknown: Category = { value: { is: 'value', value: null }, select: `${by} is unknown`, pages: counts[0] };
  return { by, isScale: true, categories: hasUnknown ? [unknown, ...ranges] : ranges, of };
}

/** Colours some pages by a fact. */
export function colourBy(view: View, by: ColumnName, pages: Uint32Array): Colouring {
  const column = view.column(by);
  const { type, unit } = factOf(by);
  // Numbers without a unit, such as statuses and communities, are names.
  if (!isText(column) && (type === 'number' || type === 'ratio') && unit) return scaled(by, column, pages);
  const codes = isText(column) ? column.codes : column;
  const counts = [...distinct(column, pages)];
  const isShort = !keepsText(type);
  counts.sort(isShort ? ([a], [b]) => a - b : ([a, x], [b, y]) => y - x || a - b);
  const own = counts.length > MOST_TEXTS + 1 ? counts.slice(0, MOST_TEXTS) : counts;
  const numbers = new Map(own.map(([code], category) => [code, category]));
  const of = new Uint8Array(codes.length);
  const first = new Array<number>(own.length);
  for (const page of pages) {
    of[page] = numbers.get(codes[page]) ?? own.length;
    first[of[page]] ??= page;
  }
  const categories = own.map(([, count], i): Category => {
    const value = factAt(view, by, first[i]);
    return { value: { is: 'value', value }, select: clauseOf(by, value), pages: count };
  });
  const left = counts.slice(own.length).reduce((sum, [, count]) => sum + count, 0);
  if (left > 0)
    categories.push({
      value: { is: 'other' },
      select: categories.map(({ select }) => `not (${select})`).join(' and '),
      pages: left,
    });
  return { by, isScale: false, categories, of };
}

/** Colours some pages by whether they are marked. @param select what marks them */
export function colourMarked(marked: Bits, select: string, pages: Uint32Array): Colouring {
  const of = new Uint8Array(marked.size);
  let count = 0;
  for (const page of pages) if (hasBit(marked, page)) count += of[page] = 1;
  return {
    by: null,
    isScale: false,
    categories: [
      { value: { is: 'unmarked' }, select: `not (${select})`, pages: pages.length - count },
      { value: { is: 'marked' }, select, pages: count },
    ],
    of,
  };
}
