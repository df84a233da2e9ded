/**
 * Patterns of addresses, as people write them in settings: `*` stands for any run of characters, `$` at the end for the
 * end of the address. A pattern that begins with `/` is compared from the beginning of the path, one with a scheme from
 * the beginning of the address; any other may begin anywhere. Patterns are brought to the form of addresses first, so
 * that they may be written as a browser shows an address. Matching takes time linear in the address.
 */
import { normalizePattern, pathTest } from '../robots';
import { addressParts } from '../url';

export const MAX_PATTERN_LENGTH = 1000;

/** The pattern with its host, when it names a whole one, as addresses have it: in lower case, in ASCII (RFC 3492). */
function withAsciiHost(pattern: string): string {
  const [, scheme, host, rest] = /^(https?:\/\/)([^/*?$]+)(\/.*)?$/is.exec(pattern) ?? [];
  const url = host && URL.canParse(scheme + host) ? new URL(scheme + host) : null;
  return url ? `${url.protocol}//${url.host}${rest ?? ''}` : pattern;
}

/** Makes the test for one pattern. */
export function patternTest(written: string): (address: string) => boolean {
  const pattern = normalizePattern(withAsciiHost(written));
  const test = pathTest(/^(https?:|[/*])/.test(pattern) ? pattern : `*${pattern}`);
  if (pattern.startsWith('/'))
    return (address) => {
      const { path, query } = addressParts(address);
      return test(path + query);
    };
  return test;
}
