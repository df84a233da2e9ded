/**
 * Patterns of addresses, as people write them in settings: `*` stands for any run of characters, `$` at the end for the
 * end of the address. A pattern that begins with `/` is compared from the beginning of the path, one with a scheme from
 * the beginning of the address; any other may begin anywhere. Matching takes time linear in the address.
 */
import { matchesPattern } from '../robots';
import { addressParts } from '../url';

export const MAX_PATTERN_LENGTH = 1000;

/** Makes the test for one pattern. */
export function patternTest(pattern: string): (address: string) => boolean {
  if (pattern.startsWith('/'))
    return (address) => {
      const { path, query } = addressParts(address);
      return matchesPattern(pattern, path + query);
    };
  const whole = /^(https?:|\*)/.test(pattern) ? pattern : `*${pattern}`;
  return (address) => matchesPattern(whole, address);
}
