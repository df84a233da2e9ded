import type { Identified } from './identity';

type Identify = (href: string, base?: string) => Identified | null;

const SIZE = 20_000;

/** Empty, or only query and fragment, after what parsers pass over: white space, control characters, the scheme of the base. */
// eslint-disable-next-line no-control-regex -- they are among what is passed over
const mayLackPath = /^[\x00-\x20]|^$|^[?#]|^[a-z]+:(?![/\\])/i;

/**
 * The same function, remembering what it gave: menus repeat the same hrefs on all pages of a folder. An href is resolved
 * against the folder of the base alone (RFC 3986 §5.2.3), but for those without a path.
 */
export function remembering(identify: Identify): Identify {
  let folders = new Map<string, Map<string, Identified | null>>();
  let size = 0;
  // One page after the other is read, so that its links have their base in common.
  let last = { base: '', known: new Map<string, Identified | null>() };
  return (href, base = '') => {
    if (base !== last.base) last = { base, known: knownIn(folderOf(base)) };
    const known = last.known.get(href);
    if (known !== undefined) return known;
    const found = identify(href, base || undefined);
    if (mayLackPath.test(href)) return found;
    last.known.set(href, found);
    size++;
    return found;
  };

  function knownIn(folder: string): Map<string, Identified | null> {
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
