import { factOf, isText, sources } from '../snapshot';
import type { Column, FactName, Snapshot } from '../snapshot';
import type { Comparison, Selection } from './parse';

/** One entry a page: 1 when it is selected. */
export type Mask = Uint8Array;

/** The test that a comparison makes of a known value. `has`, `starts` and `ends` do not regard case. */
function predicate<T extends string | number>(comparison: Comparison, value: T): (at: T) => boolean {
  const wanted = String(value).toLowerCase();
  switch (comparison) {
    case '=':
      return (at) => at === value;
    case '!=':
      return (at) => at !== value;
    case '<':
      return (at) => at < value;
    case '<=':
      return (at) => at <= value;
    case '>':
      return (at) => at > value;
    case '>=':
      return (at) => at >= value;
    case 'has':
      return (at) => String(at).toLowerCase().includes(wanted);
    case 'starts':
      return (at) => String(at).toLowerCase().startsWith(wanted);
    case 'ends':
      return (at) => String(at).toLowerCase().endsWith(wanted);
  }
}

/** Tests a column; unknown values fail. Texts are tested once for each distinct value, not once for each page. */
function where(fact: FactName, column: Column, test: (value: string | number) => boolean): Mask {
  if (isText(column)) {
    const passes = Uint8Array.from(column.values, (value, code) => (code > 0 && test(value) ? 1 : 0));
    return Uint8Array.from(column.codes, (code) => passes[code]);
  }
  const { values } = factOf(fact);
  return Uint8Array.from(column, (value) => (value >= 0 && test(values ? values[value] : value) ? 1 : 0));
}

/** Marks the pages of a snapshot that a selection holds. Unknown compares false; `is unknown` finds it. */
export function evaluate(snapshot: Snapshot, selection: Selection): Mask {
  switch (selection.op) {
    case 'all':
      return new Uint8Array(snapshot.count).fill(1);
    case 'and': {
      const right = evaluate(snapshot, selection.right);
      return evaluate(snapshot, selection.left).map((bit, page) => bit & right[page]);
    }
    case 'or': {
      const right = evaluate(snapshot, selection.right);
      return evaluate(snapshot, selection.left).map((bit, page) => bit | right[page]);
    }
    case 'not':
      return evaluate(snapshot, selection.of).map((bit) => 1 - bit);
    case 'seen': {
      const bit = sources.indexOf(selection.source as (typeof sources)[number]);
      return Uint8Array.from(snapshot.columns.seen_in as Int32Array, (seen) => (seen >> bit) & 1);
    }
    case 'flag':
      return Uint8Array.from(snapshot.columns[selection.fact] as Int32Array, (value) => (value === 1 ? 1 : 0));
    case 'unknown': {
      const column = snapshot.columns[selection.fact];
      return isText(column)
        ? Uint8Array.from(column.codes, (code) => (code === 0 ? 1 : 0))
        : Uint8Array.from(column, (value) => (value < 0 ? 1 : 0));
    }
    case 'in': {
      const values = new Set(selection.values);
      return where(selection.fact, snapshot.columns[selection.fact], (value) => values.has(value));
    }
    case 'compare':
      return where(
        selection.fact,
        snapshot.columns[selection.fact],
        predicate(selection.comparison, selection.value) as (value: string | number) => boolean,
      );
  }
}

/** The numbers of the pages that a mask holds, ascending. */
export function pagesOf(mask: Mask): Uint32Array {
  const pages = new Uint32Array(mask.reduce((sum, bit) => sum + bit, 0));
  let at = 0;
  mask.forEach((bit, page) => {
    if (bit) pages[at++] = page;
  });
  return pages;
}
