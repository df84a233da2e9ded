/** How addresses of one site become those of another, such as those of a staging host, and what else pairs pages. */
import { addressParts } from '../url';

/** Gives an address the form in which both crawls are compared, such as that of another host. */
export type AddressMap = (address: string) => string;
export const sameAddress: AddressMap = (address) => address;

/** What pairs pages beside their addresses, for a site that was built anew. */
export const pairings = ['canonical', 'redirect'] as const;
export type PairedBy = (typeof pairings)[number];

/** One rule: addresses of a host, and below a folder of it, count as those of another. */
export interface MapRule {
  /** A host, with a port or not, and a folder such as `/news/` or none. */
  from: string;
  to: string;
}

/** Hosts have no case, folders have. */
const named = (text: string) => text.replace(/^[^/]+/, (host) => host.toLowerCase());
const place = /^[^\s/=?#]+(\/[^\s=?#]*)?$/;

/**
 * Reads rules such as `staging.example.org=www.example.org` or `www.example.org/news/=www.example.org/press/`, between
 * spaces, commas or lines.
 * @returns the rules; as `fault` the first part that is none
 */
export function readMapRules(text: string): { rules: MapRule[]; fault: string | null } {
  const parts = text.split(/[\s,]+/).filter(Boolean);
  const rules = parts.map((part) => {
    const [from, to, ...more] = part.split('=');
    return more.length === 0 && place.test(from) && place.test(to ?? '') ? { from: named(from), to: named(to) } : null;
  });
  const wrong = rules.indexOf(null);
  return { rules: rules.filter((rule) => rule !== null), fault: wrong < 0 ? null : parts[wrong] };
}

/**
 * Whether an address without its scheme is a place or something below it: `/news` is not the beginning of
 * `/newsletter`.
 */
const isBelow = (rest: string, place: string) =>
  rest.startsWith(place) && (place.endsWith('/') || /^([/?]|$)/.test(rest.slice(place.length)));

/** Puts one place of an address for another; the scheme stays. The rule with the longest `from` decides. */
export function addressMap(rules: readonly MapRule[]): AddressMap {
  if (rules.length === 0) return sameAddress;
  const ordered = [...rules].sort((a, b) => b.from.length - a.from.length);
  return (address) => {
    const { host } = addressParts(address);
    const at = address.indexOf('://') + 3;
    const rest = address.slice(at);
    for (const { from, to } of ordered) {
      if (from.includes('/') ? isBelow(rest, from) : host === from)
        return address.slice(0, at) + to + rest.slice(from.length);
    }
    return address;
  };
}
