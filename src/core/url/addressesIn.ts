/** Addresses in a text of any kind: a mail, a column of a table, a list of paths. */
import { identify } from './identity';

const absolute = /https?:\/\/[^\s"'<>,;|]+/gi;
/** What ends a sentence, or brackets an address, is no part of it. */
const ending = /[.!?)\]}*_]+$/;

/**
 * Picks the addresses out of a text, once each and in their order. A line that is a path, such as `/visit/`, names a
 * page of the site.
 * @param base an address of that site
 */
export function addressesIn(text: string, base: string): string[] {
  const found = new Set<string>();
  const add = (href: string) => {
    const address = identify(href, base)?.address;
    if (address) found.add(address);
  };
  for (const line of text.split(/\r\n|\r|\n/)) {
    const written = line.match(absolute);
    if (written) for (const one of written) add(one.replace(ending, ''));
    else {
      const [first] = line
        .trim()
        .replace(/^["']/, '')
        .split(/[\s"',;\t]/);
      if (first.startsWith('/')) add(first);
    }
  }
  return [...found];
}
