/** The cookies that a crawl keeps, within the limits that RFC 6265 §6.1 asks of user agents. */
import { CookieJar, MemoryCookieStore } from 'tough-cookie';

const MAX_COOKIE_BYTES = 4096;
const MAX_OF_DOMAIN = 50;
const MAX_ALL = 3000;
/** Usual servers refuse heads that are larger than this. */
const MAX_HEADER_BYTES = 8192;

export interface Cookies {
  /** Keeps a Set-Cookie field of an answer; what is no cookie, or too long, is passed over. */
  keep: (setCookie: string, address: string) => void;
  /** The Cookie field for an address; '' for none. */
  headerFor: (address: string) => string;
  /** All cookies, to go on with in another run; null when none came since they were last asked for. */
  changed: () => unknown;
}

/** Opens the cookies of an earlier run, or none. */
export function cookieJar(earlier?: unknown): Cookies {
  const store = new MemoryCookieStore();
  const jar = earlier ? CookieJar.deserializeSync(earlier as string, store) : new CookieJar(store);
  /** Keys of cookies by domain, the oldest first; how many there are in all. */
  const keys = new Map<string, Set<string>>();
  let count = 0;
  let hasChanged = false;

  /** Forgets the oldest cookie of a domain. */
  const forgetOldest = (domain: string) => {
    const ofDomain = keys.get(domain)!;
    const [key] = ofDomain;
    const [path, name] = JSON.parse(key) as [string, string];
    void store.removeCookie(domain, path, name);
    ofDomain.delete(key);
    if (ofDomain.size === 0) keys.delete(domain);
    count--;
  };
  const note = ({ domain, path, key: name }: { domain: string | null; path: string | null; key: string }) => {
    const of = domain ?? '';
    const key = JSON.stringify([path, name]);
    const ofDomain = keys.get(of) ?? new Set();
    keys.set(of, ofDomain);
    if (!ofDomain.delete(key)) count++;
    ofDomain.add(key);
    if (ofDomain.size > MAX_OF_DOMAIN) forgetOldest(of);
    if (count > MAX_ALL) forgetOldest(keys.keys().next().value!);
  };
  for (const cookie of jar.serializeSync()?.cookies ?? [])
    note({ domain: cookie.domain as string | null, path: cookie.path as string | null, key: String(cookie.key) });

  return {
    keep: (setCookie, address) => {
      if (Buffer.byteLength(setCookie) > MAX_COOKIE_BYTES) return;
      const cookie = jar.setCookieSync(setCookie, address, { ignoreError: true });
      if (!cookie) return;
      note(cookie);
      hasChanged = true;
    },
    headerFor: (address) => {
      const parts: string[] = [];
      let size = 0;
      for (const cookie of jar.getCookiesSync(address)) {
        const part = cookie.cookieString();
        if ((size += part.length + 2) > MAX_HEADER_BYTES) break;
        parts.push(part);
      }
      return parts.join('; ');
    },
    changed: () => {
      if (!hasChanged) return null;
      hasChanged = false;
      return jar.serializeSync();
    },
  };
}
