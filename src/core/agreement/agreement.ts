/** Which sources know which addresses: every combination that occurs, and two sources side by side by folder. */
import { INDEXABLE, sources, verdicts } from '../facts';
import type { Verdict } from '../facts';
import { firstColumn, sourceName, unknownAddresses } from '../imports';
import { keptOf, memoOf } from '../snapshot';
import { addressParts } from '../url';
import type { View } from '../view';

/** More cannot be told apart in one picture, nor by the bits of a number. */
export const MAX_SOURCES = 30;

/** Who knows what: the pages of a crawl, and after them the addresses that only imports know. */
export interface SourceBook {
  /** `links`, `sitemap`, then imports by name. */
  names: string[];
  /** How many of the addresses are pages of the crawl. */
  pages: number;
  /** The addresses that the crawl does not know, ascending. */
  unknown: string[];
  /** For each address a bit for each source that knows it. */
  known: Uint32Array;
  /** For each address its hits in all logs; 0 for none. */
  hits: Float64Array;
}

const LINKS = 1 << sources.indexOf('links');
const SITEMAP = 1 << sources.indexOf('sitemap');

/**
 * Draws up who knows what.
 * @throws RangeError when there are more than {@link MAX_SOURCES} sources
 */
export function sourceBook({ count, column, imports }: View): SourceBook {
  const names = ['links', 'sitemap', ...imports.map(sourceName)];
  if (names.length > MAX_SOURCES) throw new RangeError(`More than ${MAX_SOURCES} sources cannot be compared.`);
  const { answered, errors } = unknownAddresses(imports);
  const unknown = [...answered, ...errors].sort();
  const numbers = new Map(unknown.map((address, i) => [address, count + i]));
  const known = new Uint32Array(count + unknown.length);
  const hits = new Float64Array(count + unknown.length);
  const seen = column('seen_in');
  for (let page = 0; page < count; page++) known[page] = (seen[page] & LINKS ? 1 : 0) | (seen[page] & SITEMAP ? 2 : 0);
  imports.forEach(({ kind, addresses, pages, columns: own }, at) => {
    const bit = 1 << (2 + at);
    for (let i = 0; i < addresses.length; i++) {
      const address = pages[i] >= 0 ? pages[i] : numbers.get(addresses[i])!;
      known[address] |= bit;
      if (kind === 'log') hits[address] += own.hits[i];
    }
  });
  return { names, pages: count, unknown, known, hits };
}

/** As {@link sourceBook}, kept as long as the snapshot. */
export const sourceBookOf = memoOf(['seen_in'], (view: View) => sourceBook(view));

/** For each source how many addresses it knows, and how many of them no other does. */
export const sourceSizesOf = keptOf(({ names, known }: SourceBook) => {
  const [urls, alone] = [new Float64Array(names.length), new Float64Array(names.length)];
  for (const bits of known)
    for (let at = 0; at < names.length; at++) {
      urls[at] += (bits >> at) & 1;
      alone[at] += Number(bits === 1 << at);
    }
  return { urls, alone };
});

/** One combination of sources, and the addresses that exactly these know. */
export interface AgreementRow {
  /** Numbers of sources, ascending. */
  sources: number[];
  urls: number;
  indexable: number;
  /** Of all logs. */
  hits: number;
  /** How many addresses the crawl does not know. */
  unknown: number;
  byVerdict: { verdict: Verdict; urls: number }[];
}

/**
 * Counts every combination of sources that occurs, the largest first. Addresses that none of them knows are left out.
 * @param chosen a bit for each chosen source
 */
export function agreementOf(
  book: SourceBook,
  verdict: Int32Array,
  chosen: number = 2 ** book.names.length - 1,
): AgreementRow[] {
  const rows = new Map<number, { urls: number; unknown: number; hits: number; byVerdict: Uint32Array }>();
  for (let address = 0; address < book.known.length; address++) {
    const mask = book.known[address] & chosen;
    if (mask === 0) continue;
    let row = rows.get(mask);
    if (!row) rows.set(mask, (row = { urls: 0, unknown: 0, hits: 0, byVerdict: new Uint32Array(verdicts.length) }));
    row.urls++;
    row.hits += book.hits[address];
    if (address < book.pages) row.byVerdict[verdict[address]]++;
    else row.unknown++;
  }
  return [...rows]
    .map(([mask, { byVerdict, ...row }]) => ({
      ...row,
      sources: book.names.flatMap((_, at) => (mask & (1 << at) ? [at] : [])),
      indexable: byVerdict[INDEXABLE],
      byVerdict: verdicts.flatMap((verdict, v) => (byVerdict[v] ? [{ verdict, urls: byVerdict[v] }] : [])),
    }))
    .sort((a, b) => b.urls - a.urls || a.sources.join().localeCompare(b.sources.join()));
}

/** One folder, and how many addresses below it each of two sources knows. */
export interface FolderRow {
  /** Path of the folder from the root, with a slash at its end. */
  path: string;
  level: number;
  first: number;
  second: number;
  both: number;
  /** How many folders it has that are not shown. */
  more: number;
}

interface Folder {
  counts: [number, number, number];
  children: Map<string, Folder>;
}
const folder = (): Folder => ({ counts: [0, 0, 0], children: new Map() });

/** Folders deeper than this are counted with the one that they are in. */
const MAX_LEVELS = 3;
/** A folder is opened when it holds so much of the whole gap. */
const OPEN_PART = 0.25;
/** Folders of one folder that are shown. */
const MAX_CHILDREN = 12;

/**
 * Sets two sources side by side, folder by folder: a part of the site that one of them does not know shows as a folder.
 * @param addressOf the address with a number
 * @param has whether a source (0 or 1) has the address with a number
 */
export function foldersOf(
  count: number,
  addressOf: (address: number) => string,
  has: (source: 0 | 1, address: number) => boolean,
): FolderRow[] {
  const root = folder();
  for (let address = 0; address < count; address++) {
    const [first, second] = [has(0, address), has(1, address)];
    if (!first && !second) continue;
    const at = first && second ? 2 : first ? 0 : 1;
    root.counts[at]++;
    let here = root;
    for (const name of addressParts(addressOf(address)).path.split('/').slice(1, -1).slice(0, MAX_LEVELS)) {
      let next = here.children.get(name);
      if (!next) here.children.set(name, (next = folder()));
      next.counts[at]++;
      here = next;
    }
  }
  return rowsOf(root, '/', 0, Math.max(2, OPEN_PART * gapOf(root)));
}

const sizeOf = ({ counts: [first, second, both] }: Folder) => first + second + both;
/** How far apart two sources are in a folder. */
const gapOf = ({ counts: [first, second] }: Folder) => Math.max(first, second);

function rowsOf(of: Folder, path: string, level: number, least: number): FolderRow[] {
  const [first, second, both] = of.counts;
  const children = [...of.children].sort(([, a], [, b]) => gapOf(b) - gapOf(a) || sizeOf(b) - sizeOf(a));
  const shown = children.slice(0, MAX_CHILDREN);
  // Where both nearly agree, what is in it needs no rows of its own.
  const open = level === 0 || gapOf(of) >= least ? shown : [];
  return [
    { path, level, first: first + both, second: second + both, both, more: children.length - open.length },
    ...open.flatMap(([name, child]) => rowsOf(child, `${path}${name}/`, level + 1, least)),
  ];
}

/**
 * The cells of sources.csv for one address: whether links and sitemaps know it, and the first number of each import.
 */
export function importCells({ imports }: View, book: SourceBook): (number | null)[][] {
  const numbers = new Map(book.unknown.map((address, i) => [address, book.pages + i]));
  return imports.map((source) => {
    const cells: (number | null)[] = new Array<null>(book.known.length).fill(null);
    const values = firstColumn(source);
    source.addresses.forEach((address, i) => {
      const at = source.pages[i] >= 0 ? source.pages[i] : numbers.get(address)!;
      cells[at] = Number.isNaN(values[i]) ? null : values[i];
    });
    return cells;
  });
}
