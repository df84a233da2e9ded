import { sources } from '../facts';
import { keptOf, pagesOfAddresses, textColumn } from '../snapshot';
import type { Snapshot } from '../snapshot';
import { ROWS_COLUMN } from './source';
import type { ImportedSource } from './source';

/** An imported source beside a crawl. */
export interface MatchedSource extends ImportedSource {
  /** For each of its addresses the number of the page; −1 when the crawl does not know it. */
  pages: Int32Array;
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
export function importColumns(count: number, imports: readonly MatchedSource[]) {
  const column = () => new Int32Array(count).fill(-1);
  const [logHits, crawlerHits, listHits] = [column(), column(), column()];
  // Seconds outgrow 32 bits in 2038.
  const lastHit = new Float64Array(count).fill(-1);
  for (const source of imports)
    if (source.kind === 'log') {
      addTo(logHits, source, source.columns.hits, sum);
      addTo(crawlerHits, source, source.columns.crawler_hits, sum);
      addTo(lastHit, source, source.columns.last_hit, Math.max);
    } else addTo(listHits, source, source.columns[ROWS_COLUMN], sum);
  return {
    log_hits: () => logHits,
    crawler_hits: () => crawlerHits,
    list_hits: () => listHits,
    last_hit: () => textColumn(Array.from(lastHit, isoTime)),
  };
}

/** Finds the pages of imported sources. */
export const matchSources = (snapshot: Snapshot, imports: readonly ImportedSource[]): MatchedSource[] =>
  imports.map((source) => ({ ...source, pages: pagesOfAddresses(snapshot, source.addresses) }));

/** The bits of `seen_in`, with those of imported sources. */
export function withHits(seenIn: Int32Array, imports: readonly MatchedSource[]): Int32Array {
  const seen = seenIn.slice();
  for (const { kind, pages } of imports) for (const page of pages) if (page >= 0) seen[page] |= bitOf[kind];
  return seen;
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

/** A number of a source, one entry a page; −1 where it gives none. */
export function columnOfSource(count: number, { pages, columns }: MatchedSource, name: string): Float64Array {
  const column = new Float64Array(count).fill(-1);
  pages.forEach((page, i) => {
    if (page >= 0 && columns[name][i] >= 0) column[page] = columns[name][i];
  });
  return column;
}

/** As {@link unknownAddresses}, kept as long as the imports. */
export const unknownOf = keptOf(unknownAddresses);
