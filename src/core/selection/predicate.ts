import type { Operator } from './parse';
import { patternMatcher } from './pattern';

/** The test that a comparison makes of a known value. `has`, `starts`, `ends` and `matches` do not regard case. */
export function predicate(comparison: Operator, value: string | number): (at: string | number) => boolean {
  // Much quicker than texts in lower case, which would have to be made first.
  const literal = String(value).replace(/[\\^$.*+?()[\]{}|/-]/g, '\\$&');
  const test = (pattern: string) => {
    const expression = new RegExp(pattern, 'i');
    return (at: string | number) => expression.test(String(at));
  };
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
      return test(literal);
    case 'starts':
      return test(`^${literal}`);
    case 'ends':
      return test(`${literal}$`);
    case 'matches': {
      const matcher = patternMatcher(String(value));
      return (at) => matcher.test(String(at));
    }
  }
}
