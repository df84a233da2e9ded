/** Puts the rows of lists in order by one of their columns. */
import { radixOrder } from '../grouping';
import type { List } from './list';

const UNKNOWN = 0xffffffff;

/**
 * Puts rows in order by a column, unknown last whatever the direction; equal ones keep their order. Numbers that are
 * not negative are ordered as their bits are (IEEE 754): by the low half, and then by the high one.
 */
export function orderRows({ rows, cells }: List, column: string, descending: boolean): Uint32Array {
  const { key } = cells(column);
  const high = new Uint32Array(rows.length);
  const low = new Uint32Array(rows.length);
  const double = new Float64Array(1);
  const halves = new Uint32Array(double.buffer);
  for (let i = 0; i < rows.length; i++) {
    double[0] = key(rows[i]);
    const isUnknown = double[0] < 0;
    // Adding zero makes the negative zero positive.
    double[0] += 0;
    high[i] = isUnknown ? UNKNOWN : descending ? 0x7fffffff - halves[1] : halves[1];
    low[i] = isUnknown ? UNKNOWN : descending ? UNKNOWN - halves[0] : halves[0];
  }
  const byLow = radixOrder(low);
  const byHigh = radixOrder(byLow.map((at) => high[at]));
  return byHigh.map((at) => rows[byLow[at]]);
}
