/** Tests that ask what an earlier crawl told of a page. */
import { changeColumn, oldPageOf } from '../compare';
import type { Comparison } from '../compare';
import { changeFacts, comparedFacts, isChangeFact } from '../facts';
import type { ChangeFactName } from '../facts';
import { bitsWhere, hasBit } from './bits';
import type { Bits } from './bits';
import type { Asked } from './catalogue';
import type { Selection } from './selection';
import { predicate } from './predicate';
import type { View } from '../view';

/** What is said where a test needs an earlier crawl and there is none. */
export const NO_EARLIER = 'There is no earlier crawl to compare this one with.';

function factBits(comparison: Comparison<View>, size: number, fact: ChangeFactName, part: Selection): Bits {
  const column = changeColumn(comparison, fact);
  const { type, values }: Asked = changeFacts[fact];
  const at = 'texts' in column ? (row: number) => column.texts[row] : (row: number) => column.numbers[row];
  const isKnown = (value: string | number | null): value is string | number =>
    value !== null && !Number.isNaN(value as number);
  const where = (test: (value: string | number) => boolean) =>
    bitsWhere(size, (row) => {
      const value = at(row);
      return isKnown(value) && test(values && type === 'choice' ? values[value as number] : value);
    });
  if (part.op === 'unknown') return bitsWhere(size, (row) => !isKnown(at(row)));
  if (part.op === 'in') {
    const wanted = new Set(part.values);
    return where((value) => wanted.has(value));
  }
  if (part.op !== 'compare') throw new Error(`“${part.op}” is no test of a change.`);
  if (type === 'set') {
    const bit = 1 << values!.indexOf(String(part.value));
    return where((value) => ((value as number) & bit) !== 0);
  }
  return where(predicate(part.comparison, part.value));
}

/**
 * The rows of a comparison that pass a test which asks an earlier crawl; null for any other test.
 * @param size how many of its rows, from the first
 * @param then gives the pages of the earlier crawl that a selection holds
 */
export function changeBits(
  comparison: Comparison<View>,
  size: number,
  part: Selection,
  then: (of: Selection) => Bits,
): Bits | null {
  if (part.op === 'was') {
    const pages = then(part.of);
    return bitsWhere(size, (row) => {
      const page = oldPageOf(comparison, row);
      return page >= 0 && hasBit(pages, page);
    });
  }
  if (part.op === 'differs') {
    const bit = 1 << comparedFacts.indexOf(part.differing);
    return bitsWhere(size, (row) => (comparison.changed[row] & bit) !== 0);
  }
  return 'fact' in part && isChangeFact(part.fact) ? factBits(comparison, size, part.fact, part) : null;
}
