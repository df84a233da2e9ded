import { sources } from '../facts';
import { memoOf, textColumn } from '../snapshot';
import type { Columns, Snapshot } from '../snapshot';
import { ROWS_COLUMN } from './source';
import type { ImportedSource } from './source';

/**
 * Finds the pages that an imported source names, by going through both in their order.
 * @returns for each of its addresses the number of the page; −1 when the crawl does not know it
 */
export function pagesOfAddresses(
  { count, columns: { url } }: { count: number; columns: Columns<'url'> },
  addresses: readonly string[],
): Int32Array {
  const pages = new Int32Array(addresses.length).fill(-1);
  let page = 0;
  addresses.forEach((address, i) => {
    while (page < count && url.values[url.codes[page]] < address) page++;
    if (page < count && url.values[url.codes[page]] === address) pages[i] = page;
  });
  return pages;
}

/** An imported source beside a crawl. */
export interface MatchedSource extends ImportedSource {
  /** For each of its addresses the number of the page; −1 when the crawl does not know it. */
  pages: Int32Array;
}

/** A snapshot with the sources that count for its crawl. */
export interface SnapshotWithImports extends Snapshot {
  imports: MatchedSource[];
}

const bitOf = { list: 1 << sources.indexOf('list'), log: 1 << sources.indexOf('log') };

/** Adds the values of a column to those of the pages; unknown becomes known with the first. */
function addTo(
  total: Int32Array | Float64Array,
  { pages }: MatchedSource,
  values: Float64Array,
  join: (a: number, b: number) => number,
) {
  pages.forEach((page, i) => {
    if (page >= 0 && values[i] >= 0) total[page] = total[page] < 0 ? values[i] : join(total[page], values[i]);
  });
}
const sum = (a: number, b: number) => a + b;

/** A moment, in seconds since 1970, as ISO 8601 in UTC; null below zero. */
export const isoTime = (seconds: number): string | null =>
  seconds < 0 ? null : new Date(seconds * 1000).toISOString().replace(/\.\d+Z/, 'Z');

/** The facts that imports give, one entry a page. */
function importColumns(count: number, imports: readonly MatchedSource[]) {
  const column = () => new Int32Array(count).fill(-1);
  const columns = { log_hits: column(), crawler_hits: column(), list_hits: column() };
  // Seconds outgrow 32 bits in 2038.
  const lastHit = new Float64Array(count).fill(-1);
  for (const source of imports)
    if (source.kind === 'log') {
      addTo(columns.log_hits, source, source.columns.hits, sum);
      addTo(columns.crawler_hits, source, source.columns.crawler_hits, sum);
      addTo(lastHit, source, source.columns.last_hit, Math.max);
    } else addTo(columns.list_hits, source, source.columns[ROWS_COLUMN], sum);
  return { ...columns, last_hit: textColumn(Array.from(lastHit, isoTime)) };
}

/**
 * Puts imported sources beside a snapshot: its pages have the facts that they give, and `seen_in` names them. Nothing
 * else depends on them, so nothing else is worked out again.
 */
export function withImports(snapshot: Snapshot, imports: readonly ImportedSource[]): SnapshotWithImports {
  const matched = imports.map((source) => ({ ...source, pages: pagesOfAddresses(snapshot, source.addresses) }));
  const given = importColumns(snapshot.count, matched);
  const columns = Object.create(snapshot.columns) as Snapshot['columns'];
  for (const [name, value] of Object.entries(given)) Object.defineProperty(columns, name, { value, enumerable: true });
  Object.defineProperty(columns, 'seen_in', { get: seenIn, enumerable: true, configurable: true });
  /** Read when it is first asked for, as all columns are. */
  function seenIn() {
    const value = snapshot.columns.seen_in.slice();
    for (const { kind, pages } of matched) for (const page of pages) if (page >= 0) value[page] |= bitOf[kind];
    Object.defineProperty(columns, 'seen_in', { value, enumerable: true });
    return value;
  }
  return Object.create(snapshot, {
    columns: { value: columns, enumerable: true },
    imports: { value: matched, enumerable: true },
  }) as SnapshotWithImports;
}

/**
 * The addresses that only imports know, ascending: those that a list names or that have answered, and those whose every
 * request in the logs ended in an error, which scanners ask for by the thousand.
 */
export function unknownAddresses(imports: readonly MatchedSource[]): { answered: string[]; errors: string[] } {
  const answered = new Set<string>();
  const errors = new Set<string>();
  for (const { kind, addresses, pages, columns } of imports)
    for (let i = 0; i < addresses.length; i++)
      if (pages[i] < 0) (kind === 'list' || columns.answered[i] > 0 ? answered : errors).add(addresses[i]);
  return { answered: [...answered].sort(), errors: [...errors].filter((address) => !answered.has(address)).sort() };
}

/** The imports that stand beside a snapshot; none where it was opened without them. */
export const importsBeside = (snapshot: Snapshot): MatchedSource[] =>
  (snapshot as Partial<SnapshotWithImports>).imports ?? [];

/** A number of a source, one entry a page; −1 where it gives none. */
export function columnOfSource(count: number, { pages, columns }: MatchedSource, name: string): Float64Array {
  const column = new Float64Array(count).fill(-1);
  pages.forEach((page, i) => {
    if (page >= 0 && columns[name][i] >= 0) column[page] = columns[name][i];
  });
  return column;
}

/** As {@link unknownAddresses} of all imports beside a snapshot, kept as long as it is. */
export const unknownOf = memoOf((snapshot: SnapshotWithImports) => unknownAddresses(snapshot.imports));
