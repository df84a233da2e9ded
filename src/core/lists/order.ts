/** Puts the rows of lists in order by one of their columns. */
import { radixOrder } from '../grouping';
import type { List } from './list';

/** Below this many rows a comparison is quicker than passes over all of them. */
const FEW = 3000;

/** Of this many times as many rows the first are found by themselves more quickly than by ordering all. */
const SPARSE = 20;

/**
 * Puts rows in order by a column, unknown last whatever the direction; equal ones keep their order.
 * @param most how many rows are needed, those that come first; there may be more
 */
export function orderRows(list: List, column: string, descending: boolean, most = list.rows.length): Uint32Array {
  const { rows } = list;
  const { key } = list.cells(column);
  const first = SPARSE * most < rows.length ? firstRows(rows, key, descending, most) : null;
  if (first) return first;
  if (rows.length < FEW) return compared(rows, Float64Array.from(rows, key), descending);
  const isRatio = list.columns.find(({ name }) => name === column)?.type === 'ratio';
  return isRatio ? sortedByRatio(rows, key, descending) : sortedByInteger(rows, key, descending);
}

function compared(rows: Uint32Array, keys: Float64Array, descending: boolean): Uint32Array {
  const sign = descending ? -1 : 1;
  const order = Uint32Array.from(rows.keys()).sort((a, b) => {
    const [x, y] = [keys[a], keys[b]];
    if (x === y || (x < 0 && y < 0)) return a - b;
    if (x < 0 || y < 0) return x < 0 ? 1 : -1;
    return sign * (x - y);
  });
  return order.map((at) => rows[at]);
}

/** Rows by which it is guessed what the last of the first ones is like, and how many of them more than needed are let pass. */
const SAMPLED = 8192;
const MARGIN = 16;

/**
 * The rows that come first, found in one pass over all: those that are before a row of a sample, or first among its equals.
 * @returns null when the sample misled, and too few or far too many pass
 */
function firstRows(rows: Uint32Array, key: (row: number) => number, descending: boolean, most: number) {
  const placeOf = (row: number) => {
    const own = key(row);
    return own < 0 ? Number.MAX_VALUE : descending ? -own : own;
  };
  const step = Math.floor(rows.length / SAMPLED) || 1;
  const sample = new Float64Array(Math.ceil(rows.length / step)).map((_, i) => placeOf(rows[i * step])).sort();
  const bound = sample[Math.min(sample.length - 1, Math.ceil((4 * most) / step) + MARGIN)];
  const first: number[] = [];
  let equal = 0;
  for (let i = 0; i < rows.length; i++) {
    const place = placeOf(rows[i]);
    if (place < bound || (place === bound && equal++ < most)) first.push(rows[i]);
  }
  if (first.length < most || first.length > rows.length / 4) return null;
  return Uint32Array.from(first.sort((a, b) => placeOf(a) - placeOf(b)).slice(0, most));
}

const UNKNOWN = 0xffffffff;

function sortedByInteger(rows: Uint32Array, key: (row: number) => number, descending: boolean): Uint32Array {
  const keys = new Uint32Array(rows.length);
  for (let i = 0; i < rows.length; i++) {
    const own = key(rows[i]);
    keys[i] = own < 0 ? UNKNOWN : descending ? UNKNOWN - 1 - own : own;
  }
  return rowsAt(radixOrder(keys), rows);
}

/**
 * Doubles that are not negative are ordered as their bits are (IEEE 754): by the high half, and where that is equal by the
 * low one.
 */
function sortedByRatio(rows: Uint32Array, key: (row: number) => number, descending: boolean): Uint32Array {
  const high = new Uint32Array(rows.length);
  const low = new Uint32Array(rows.length);
  const double = new Float64Array(1);
  const halves = new Uint32Array(double.buffer);
  for (let i = 0; i < rows.length; i++) {
    double[0] = key(rows[i]);
    const unknown = double[0] < 0;
    // Adding zero makes the negative zero positive.
    double[0] += 0;
    high[i] = unknown ? UNKNOWN : descending ? 0x7fffffff - halves[1] : halves[1];
    low[i] = unknown ? UNKNOWN : descending ? UNKNOWN - halves[0] : halves[0];
  }
  const order = radixOrder(high);
  for (let from = 0, to; from < order.length; from = to) {
    let sorted = true;
    for (to = from + 1; to < order.length && high[order[to]] === high[order[from]]; to++)
      if (low[order[to]] < low[order[to - 1]]) sorted = false;
    if (sorted) continue;
    if (to - from <= SHORT) insertionSort(order, from, to, low);
    else sortRun(order.subarray(from, to), low);
  }
  return rowsAt(order, rows);
}

/** Turns places into the rows that stand there, in place. A loop: it takes a third of the time of a call for each. */
function rowsAt(places: Uint32Array, rows: Uint32Array): Uint32Array {
  for (let i = 0; i < places.length; i++) places[i] = rows[places[i]];
  return places;
}

/** Runs up to this length are put in order by insertion: most are, and a call for each of many takes longer. */
const SHORT = 128;

function insertionSort(order: Uint32Array, from: number, to: number, low: Uint32Array): void {
  for (let i = from + 1; i < to; i++) {
    const place = order[i];
    const key = low[place];
    let at = i;
    for (; at > from && low[order[at - 1]] > key; at--) order[at] = order[at - 1];
    order[at] = place;
  }
}

/** Puts places whose high halves are equal in the order of the low ones. */
function sortRun(run: Uint32Array, low: Uint32Array): void {
  if (run.length < FEW) run.sort((a, b) => low[a] - low[b] || a - b);
  else {
    const places = run.slice();
    radixOrder(places.map((at) => low[at])).forEach((at, i) => (run[i] = places[at]));
  }
}
