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
  const known = new Map<string, Identified | null>();
  return (href, base = '') => {
    if (mayLackPath.test(href)) return identify(href, base || undefined);
    const query = base.indexOf('?');
    const folder = base.slice(0, base.lastIndexOf('/', query < 0 ? base.length : query) + 1);
    const key = `${folder} ${href}`;
    let found = known.get(key);
    if (found === undefined) {
      if (known.size >= SIZE) known.clear();
      known.set(key, (found = identify(href, base || undefined)));
    }
    return found;
  };
}
