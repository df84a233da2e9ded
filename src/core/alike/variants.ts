import { addressParts } from '../url';

/**
 * What an address has in common with its variants: scheme, `www.`, case, a slash or an index file at the end, and the
 * order of parameters are left out of sight.
 */
export function variantKey(address: string): string {
  const { host, path, query } = addressParts(address);
  const bare = host.replace(/^www\./, '').replace(/:(80|443)$/, '');
  const page = path
    .toLowerCase()
    .replace(/\/(index|default)\.(html?|php|aspx?)$/, '/')
    .replace(/(.)\/+$/, '$1');
  return bare + page + (query.length > 1 ? `?${query.slice(1).toLowerCase().split('&').sort().join('&')}` : '');
}

/** The same without parameters, which make a variant only where the content is the same. */
const withoutQuery = (key: string) => key.replace(/\?.*$/, '');

export interface VariantInput {
  address: string;
  /** What tells contents apart; null when it is not known. */
  content: string | null;
  /** Whether it answers as a page of its own, neither redirected nor canonicalised away. */
  stands: boolean;
}

export interface Variants {
  /** How many other known addresses are the same page written differently. */
  variants: Int32Array;
  /** 1 when more than one of them stands as a page of its own, so that nothing settles which counts. */
  unsettled: Int32Array;
}

/** Finds variants of one page among known addresses, and whether redirects or canonicals settle them. */
export function findVariants(pages: readonly VariantInput[]): Variants {
  // Most addresses have no variant: a group is made when a second one comes.
  const first = new Map<string, number>();
  const groups = new Map<string, number[]>();
  const put = (key: string, page: number) => {
    const before = first.get(key);
    if (before === undefined) first.set(key, page);
    else if (groups.has(key)) groups.get(key)!.push(page);
    else groups.set(key, [before, page]);
  };
  const keys = pages.map(({ address }) => variantKey(address));
  keys.forEach(put);
  first.clear();
  pages.forEach(({ content }, page) => {
    if (content !== null) put(`${content} ${withoutQuery(keys[page])}`, page);
  });
  const others: (Set<number> | null)[] = pages.map(() => null);
  for (const group of groups.values())
    for (const page of group) {
      const known = (others[page] ??= new Set());
      for (const other of group) if (other !== page && known.size < MAX_VARIANTS) known.add(other);
    }
  const unsettled = (page: number) => pages[page].stands && [...others[page]!].some((other) => pages[other].stands);
  return {
    variants: Int32Array.from(others, (known) => known?.size ?? 0),
    unsettled: Int32Array.from(others, (known, page) => Number(known !== null && unsettled(page))),
  };
}

/** More variants of one page are not told apart from this many. */
const MAX_VARIANTS = 100;
