/** The identity of a URL: when two addresses written differently are the same page (docs/MEANINGS.md, "Identity"). */

export interface Identified {
  /** The address in normal form, without fragment and user info. */
  address: string;
  /** The fragment as written, without `#`; '' when there is none. */
  fragment: string;
}

/** The longest address that is kept; longer ones are treated as malformed. */
export const MAX_ADDRESS_LENGTH = 8192;

const unreserved = /[A-Za-z0-9\-._~]/;

/**
 * Upper-cases percent-escapes and decodes those of unreserved characters (RFC 3986 §6.2.2.1 and §6.2.2.2).
 * A `%` that starts no escape is left as it is.
 */
export function normalizeEscapes(text: string): string {
  if (!text.includes('%')) return text;
  return text.replace(/(%[0-9a-fA-F]?)?%([0-9a-fA-F]{2})/g, (_, stray: string | undefined, hex: string) => {
    const char = String.fromCharCode(parseInt(hex, 16));
    // Behind a stray `%`, a digit that is decoded would become part of an escape that was never written.
    const mayDecode = unreserved.test(char) && !(stray && /[0-9a-fA-F]/.test(char));
    return (stray ?? '') + (mayDecode ? char : `%${hex.toUpperCase()}`);
  });
}

const plainAddress = /^https?:\/\/(?:(?!xn--)[a-z][a-z0-9-]*\.)+[a-z]{2,63}\/[!$&(-;=?-Z[\]_a-z~]*$/;

/**
 * Whether an address is its own identity at a glance: a name as host, no port, no fragment, no escapes, no segments of
 * dots. Most are; they need not be parsed.
 */
export const isPlainAddress = (text: string): boolean =>
  plainAddress.test(text) && !text.includes('/.') && text.length <= MAX_ADDRESS_LENGTH;

/**
 * Parses an address with the WHATWG URL parser and brings it to its identity.
 * @returns null when it cannot be parsed, is not http or https, or is longer than {@link MAX_ADDRESS_LENGTH}.
 */
export function identify(href: string, base?: string): Identified | null {
  if (isPlainAddress(href)) return { address: href, fragment: '' };
  let url: URL;
  try {
    url = new URL(href, base);
  } catch {
    return null;
  }
  if (url.protocol !== 'http:' && url.protocol !== 'https:') return null;
  const fragment = url.hash.slice(1);
  if (url.hash || url.href.endsWith('#')) url.hash = '';
  if (url.username) url.username = '';
  if (url.password) url.password = '';
  const address = normalizeEscapes(url.href);
  return address.length > MAX_ADDRESS_LENGTH ? null : { address, fragment };
}

export interface AddressParts {
  host: string;
  /** Path as it stands in the address, beginning with `/`. */
  path: string;
  /** Query with its `?`, or ''. */
  query: string;
  /** First path segment without slashes; '' for the root. */
  section: string;
}

/** Takes an address in normal form apart without parsing it again. */
export function addressParts(address: string): AddressParts {
  const hostStart = address.indexOf('://') + 3;
  let pathStart = address.indexOf('/', hostStart);
  if (pathStart < 0) pathStart = address.length;
  const queryStart = address.indexOf('?', pathStart);
  const pathEnd = queryStart < 0 ? address.length : queryStart;
  const path = address.slice(pathStart, pathEnd) || '/';
  const slash = path.indexOf('/', 1);
  return {
    host: address.slice(hostStart, pathStart),
    path,
    query: queryStart < 0 ? '' : address.slice(queryStart),
    section: path.slice(1, slash < 0 ? path.length : slash),
  };
}

/** Scheme, host and port: what a robots.txt holds for. */
export function originOf(address: string): string {
  const slash = address.indexOf('/', address.indexOf('://') + 3);
  return slash < 0 ? address : address.slice(0, slash);
}
