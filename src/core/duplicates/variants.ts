import { verdicts } from '../facts';
import { groupEqual } from '../grouping';
import type { Base, Columns } from '../snapshot';
import { addressParts } from '../url';

const indexFile = /\/(index|default)\.(html?|php|aspx?)$/;

/**
 * What an address has in common with its variants: scheme, `www.`, case, a slash or an index file at the end, and the
 * order of parameters do not count.
 */
export function variantKey(address: string): string {
  const { host, path, query } = addressParts(address);
  const bare = (host.startsWith('www.') ? host.slice(4) : host).replace(/:(80|443)$/, '');
  let page = path.toLowerCase();
  if (page.includes('/index.') || page.includes('/default.')) page = page.replace(indexFile, '/');
  while (page.length > 1 && page.endsWith('/')) page = page.slice(0, -1);
  if (query.length < 2) return bare + page;
  return `${bare}${page}?${query.slice(1).toLowerCase().split('&').sort().join('&')}`;
}

export interface VariantBase extends Pick<Base, 'count'> {
  columns: Columns<'url' | 'html' | 'content_hash' | 'verdict'>;
}

export interface Variants {
  /** How many other known addresses are the same page written differently. */
  variants: Int32Array;
  /** 1 when more than one of them may be indexed, so that nothing decides between them. */
  variants_unsettled: Int32Array;
}

const INDEXABLE = verdicts.indexOf('indexable');

/** The groups of pages with equal pairs of codes, with the size of each and how many of its pages may be indexed. */
function pairGroups(a: Uint32Array, b: Uint32Array, chosen: Uint32Array, indexable: (page: number) => number) {
  const groups = groupEqual(
    chosen,
    (page) => Math.imul(a[page], 0x9e3779b1) ^ Math.imul(b[page], 0x85ebca6b),
    (x, y) => a[x] === a[y] && b[x] === b[y],
  );
  const size = new Uint32Array(groups.count);
  const standing = new Uint32Array(groups.count);
  const groupOf = new Int32Array(a.length).fill(-1);
  chosen.forEach((page, i) => {
    const group = groups.of[i];
    groupOf[page] = group;
    size[group]++;
    standing[group] += indexable(page);
  });
  const of = (page: number) => groupOf[page];
  return {
    size: (page: number) => (of(page) < 0 ? 0 : size[of(page)]),
    standing: (page: number) => (of(page) < 0 ? 0 : standing[of(page)]),
  };
}

/**
 * Finds variants of one page among known addresses: those of one {@link variantKey}, and those that differ in parameters
 * only and have the same content.
 */
export function variantColumns({ count, columns }: VariantBase): Variants {
  const { url, html, content_hash: hash, verdict } = columns;
  const keys = new Map<string, number>();
  const codeOf = (key: string) => {
    let code = keys.get(key);
    if (code === undefined) keys.set(key, (code = keys.size));
    return code;
  };
  const whole = new Uint32Array(count);
  const bare = new Uint32Array(count);
  for (let page = 0; page < count; page++) {
    const key = variantKey(url.values[url.codes[page]]);
    const query = key.indexOf('?');
    whole[page] = codeOf(key);
    bare[page] = query < 0 ? whole[page] : codeOf(key.slice(0, query));
  }
  keys.clear();
  const indexable = (page: number) => Number(verdict[page] === INDEXABLE);
  const all = Uint32Array.from({ length: count }, (_, page) => page);
  const known = all.filter((page) => html[page] === 1 && hash.codes[page] > 0);
  const none = new Uint32Array(count);
  const byKey = pairGroups(whole, none, all, indexable);
  const byContent = pairGroups(bare, hash.codes, known, indexable);
  const byBoth = pairGroups(whole, hash.codes, known, indexable);
  const united = (of: 'size' | 'standing', page: number) => byKey[of](page) + byContent[of](page) - byBoth[of](page);
  return {
    variants: Int32Array.from(all, (page) => united('size', page) - 1),
    variants_unsettled: Int32Array.from(all, (page) => Number(indexable(page) === 1 && united('standing', page) > 1)),
  };
}
