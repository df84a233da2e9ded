import type { Operator } from './selection';
import { caseless } from '../words';
import { patternMatcher } from './pattern';

/** Decimals to which numbers are compared, at least: those of the files that Edge Map writes. */
const LEAST_DECIMALS = 6;

/** Whether a number is equal to one that was written with so many decimals. */
function equals(value: string | number): (at: string | number) => boolean {
  if (typeof value === 'string' || Number.isInteger(value)) return (at) => at === value;
  const decimals = Math.max(LEAST_DECIMALS, String(value).split('.')[1]?.length ?? 0);
  const within = 0.5 * 10 ** -decimals * (1 + 1e-9);
  return (at) => Math.abs(Number(at) - value) <= within;
}

/** The test that a comparison makes of a known value. `has`, `starts`, `ends` and `matches` do not regard case. */
export function predicate(comparison: Operator, value: string | number): (at: string | number) => boolean {
  const wanted = caseless(String(value));
  switch (comparison) {
    case '=':
      return equals(value);
    case '!=': {
      const isEqual = equals(value);
      return (at) => !isEqual(at);
    }
    case '<':
      return (at) => at < value;
    case '<=':
      return (at) => at <= value;
    case '>':
      return (at) => at > value;
    case '>=':
      return (at) => at >= value;
    case 'has':
      return (at) => caseless(String(at)).includes(wanted);
    case 'starts':
      return (at) => caseless(String(at)).startsWith(wanted);
    case 'ends':
      return (at) => caseless(String(at)).endsWith(wanted);
    case 'matches': {
      const matcher = patternMatcher(String(value));
      return (at) => matcher.test(String(at));
    }
  }
}
