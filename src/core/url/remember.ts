import { ownCopy } from '../strings';
import type { Identified } from './identity';

type Identify = (href: string, base?: string) => Identified | null;

const SIZE = 20_000;
/** Longer hrefs, such as images written as addresses, are resolved each time. */
const LONGEST = 2000;

/** Empty, or only a query, after what parsers pass over: white space, control characters, the scheme of the base. */
// eslint-disable-next-line no-control-regex -- they are among what is passed over
const mayLackPath = /^[\x00-\x20]|^$|^[?#]|^[a-z]+:(?![/\\])/i;

/** What parsers leave as it is in a fragment (WHATWG URL, "fragment percent-encode set"). */
const plainFragment = /^[!#-;=?-_a-z{|}~]*$/;

type Known = Map<string, Identified | null>;

/**
 * The same function, remembering what it gave: menus repeat the same hrefs on all pages of a folder, and tables of
 * contents lead to many places of one page. An href is resolved against the folder of the base alone (RFC 3986 §5.2.3),
 * but for those without a path, which are remembered as long as the base is the same; what stands before a fragment, as
 * if it were all.
 */
export function remembering(identify: Identify): Identify {
  let folders = new Map<string, Known>();
  let size = 0;
  // One page after the other is read, so that its links have their base in common.
  let last = { base: '', known: new Map() as Known, own: new Map() as Known };
  return (href, base = '') => {
    if (base !== last.base) last = { base, known: knownIn(folderOf(base)), own: new Map() };
    const mark = href.indexOf('#');
    if (mark < 0) return resolve(href);
    const fragment = href.slice(mark + 1);
    // White space before the mark would stand at the end of what is resolved, where parsers drop it.
    if ((mark > 0 && href.charCodeAt(mark - 1) <= 0x20) || !plainFragment.test(fragment)) return resolve(href);
    const page = resolve(href.slice(0, mark));
    return page && { address: page.address, fragment };
  };

  function resolve(href: string): Identified | null {
    const { base, known, own } = last;
    if (href.length > LONGEST) return identify(href, base || undefined);
    let found = known.get(href);
    if (found === undefined) found = own.get(href);
    if (found !== undefined) return found;
    const copy = ownCopy(href);
    found = identify(copy, base || undefined);
    if (mayLackPath.test(copy)) own.set(copy, found);
    else {
      known.set(copy, found);
      size++;
    }
    return found;
  }

  function knownIn(folder: string): Known {
    if (size > SIZE) {
      folders = new Map();
      size = 0;
    }
    let known = folders.get(folder);
    if (!known) folders.set(folder, (known = new Map()));
    return known;
  }
}

function folderOf(base: string): string {
  const query = base.indexOf('?');
  return base.slice(0, base.lastIndexOf('/', query < 0 ? base.length : query) + 1);
}
