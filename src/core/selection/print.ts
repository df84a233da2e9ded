/** Selections that the program writes. */
import { factOf } from '../facts';
import type { ColumnName } from '../facts';
import type { FactValue } from '../snapshot';

/** A quotation of the language. */
export const quote = (value: string) => `"${value.replace(/["\\]/g, '\\$&')}"`;

/** Adds a test to a selection, both as text; the selection stays as it was written. */
export function narrowed(select: string, test: string): string {
  if (!select.trim()) return test;
  // Brackets too many do no harm.
  const bracketed = (text: string) => (/\bor\b/.test(text) ? `(${text})` : text);
  return `${bracketed(select.trim())} and ${bracketed(test)}`;
}

/** The test that holds the pages with one value of a fact. */
export function clauseOf(fact: ColumnName, value: FactValue): string {
  if (value === null) return `${fact} is unknown`;
  if (typeof value === 'boolean') return value ? fact : `not ${fact}`;
  if (typeof value === 'number')
    return Number.isInteger(value) ? `${fact} = ${value}` : `${fact} = ${value.toFixed(12)}`;
  if (typeof value === 'string') return `${fact} = ${quote(value)}`;
  // Exactly these: others are ruled out.
  return (factOf(fact).values ?? [])
    .map((one) => (value.includes(one) ? `${fact} has ${one}` : `not ${fact} has ${one}`))
    .join(' and ');
}
