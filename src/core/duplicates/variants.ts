import { INDEXABLE } from '../facts';
import { groupEqual } from '../grouping';
import { codeOf } from '../snapshot';
import type { ColumnReader, TextColumn } from '../snapshot';
import { addressParts } from '../url';

const indexFile = /\/(index|default)\.(html?|php|aspx?)$/;

const plainHost = (host: string) => (host.startsWith('www.') ? host.slice(4) : host).replace(/:(80|443)$/, '');

function plainPath(path: string): string {
  let page = path.toLowerCase();
  if (page.includes('/index.') || page.includes('/default.')) page = page.replace(indexFile, '/');
  while (page.length > 1 && page.endsWith('/')) page = page.slice(0, -1);
  return page;
}

const plainQuery = (query: string) =>
  query.length < 2 ? '' : `?${query.slice(1).toLowerCase().split('&').sort().join('&')}`;

/**
 * What an address has in common with its variants: scheme, `www.`, case, a slash or an index file at the end, and the
 * order of parameters do not count.
 */
export function variantKey(address: string): string {
  const { host, path, query } = addressParts(address);
  return plainHost(host) + plainPath(path) + plainQuery(query);
}

export interface VariantBase {
  column: ColumnReader<'host' | 'path' | 'query' | 'html' | 'content_hash' | 'verdict'>;
}

export interface Variants {
  /** How many other known addresses are the same page written differently. */
  variants: Int32Array;
  /** 1 when more than one of them may be indexed, so that nothing decides between them. */
  variants_unsettled: Int32Array;
}

const pairHash = (a: Uint32Array, b: Uint32Array) => (page: number) =>
  Math.imul(a[page], 0x9e3779b1) ^ Math.imul(b[page], 0x85ebca6b);
const pairEqual = (a: Uint32Array, b: Uint32Array) => (x: number, y: number) => a[x] === a[y] && b[x] === b[y];

/** The groups of pages with equal pairs of codes, with the size of each and how many of its pages may be indexed. */
function pairGroups(a: Uint32Array, b: Uint32Array, chosen: Uint32Array, indexable: (page: number) => number) {
  const groups = groupEqual(chosen, pairHash(a, b), pairEqual(a, b));
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
 * Numbers what is left of the values of a column, by page: equal numbers are equal texts. Most values are left as they
 * are, and need no table of texts.
 */
function plainNumbers(column: TextColumn, plain: (text: string) => string): Uint32Array {
  const { codes, values } = column;
  const others = new Map<string, number>();
  const numbers = new Uint32Array(values.length).map((_, code) => {
    const text = values[code];
    const key = code === 0 ? text : plain(text);
    if (key === text) return code;
    const known = codeOf(column, key) ?? others.get(key);
    if (known !== undefined) return known;
    others.set(key, values.length + others.size);
    return others.get(key)!;
  });
  return codes.map((code) => numbers[code]);
}

/**
 * Finds variants of one page among known addresses: those of one {@link variantKey}, and those that differ in
 * parameters only and have the same content.
 */
export function variantColumns({ column }: VariantBase): Variants {
  const html = column('html');
  const hash = column('content_hash');
  const verdict = column('verdict');
  const all = new Uint32Array(html.length).map((_, page) => page);
  const grouped = (a: Uint32Array, b: Uint32Array) => groupEqual(all, pairHash(a, b), pairEqual(a, b)).of;
  const bare = grouped(plainNumbers(column('host'), plainHost), plainNumbers(column('path'), plainPath));
  const whole = grouped(bare, plainNumbers(column('query'), plainQuery));
  const indexable = (page: number) => Number(verdict[page] === INDEXABLE);
  const known = all.filter((page) => html[page] === 1 && hash.codes[page] > 0);
  const byKey = pairGroups(whole, whole, all, indexable);
  const byContent = pairGroups(bare, hash.codes, known, indexable);
  const byBoth = pairGroups(whole, hash.codes, known, indexable);
  const united = (of: 'size' | 'standing', page: number) => byKey[of](page) + byContent[of](page) - byBoth[of](page);
  return {
    variants: new Int32Array(all).map((page) => united('size', page) - 1),
    variants_unsettled: new Int32Array(all).map((page) =>
      Number(indexable(page) === 1 && united('standing', page) > 1),
    ),
  };
}
