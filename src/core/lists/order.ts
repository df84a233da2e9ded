/** Puts the rows of lists in order by one of their columns. */
import type { List } from './list';

/** Below this many rows a comparison is quicker than passes over all of them. */
const FEW = 3000;

/** Puts rows in order by a column, unknown last whatever the direction; equal ones keep their order. */
export function orderRows(list: List, column: string, descending: boolean): Uint32Array {
  const { rows } = list;
  const { key } = list.cells(column);
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

const UNKNOWN = 0xffffffff;

function sortedByInteger(rows: Uint32Array, key: (row: number) => number, descending: boolean): Uint32Array {
  const keys = new Uint32Array(rows.length);
  for (let i = 0; i < rows.length; i++) {
    const own = key(rows[i]);
    keys[i] = own < 0 ? UNKNOWN : descending ? UNKNOWN - 1 - own : own;
  }
  return radixSorted(rows, [keys]);
}

/** Doubles that are not negative are ordered as their bits are (IEEE 754), the high half before the low one. */
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
  return radixSorted(rows, [low, high]);
}

const RADIX = 1 << 16;

/**
 * Sorts by keys of 32 bits each, 16 at a time, the least significant first; what is equal keeps its order.
 * @param keys least significant first
 */
function radixSorted(rows: Uint32Array, keys: readonly Uint32Array[]): Uint32Array {
  let from = Uint32Array.from({ length: rows.length }, (_, i) => i);
  let to = new Uint32Array(rows.length);
  const next = new Uint32Array(RADIX + 1);
  for (const digits of keys)
    for (const shift of [0, 16]) {
      next.fill(0);
      for (let i = 0; i < digits.length; i++) next[((digits[i] >>> shift) & 0xffff) + 1]++;
      // Where all digits are equal there is nothing to do, as in the high half of small numbers.
      if (next[((digits[0] >>> shift) & 0xffff) + 1] === digits.length) continue;
      for (let digit = 0; digit < RADIX; digit++) next[digit + 1] += next[digit];
      for (let i = 0; i < from.length; i++) to[next[(digits[from[i]] >>> shift) & 0xffff]++] = from[i];
      [from, to] = [to, from];
    }
  for (let i = 0; i < from.length; i++) to[i] = rows[from[i]];
  return to;
}
