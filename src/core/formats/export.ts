import { landmarks, linkElements, linkKinds } from '../links';
import { addressAt, factAt, sources } from '../snapshot';
import type { FactName, FactValue, Snapshot } from '../snapshot';
import { verdicts } from '../verdict';
import { reaches } from '../reach';
import { csvRow } from './csv';
import type { Cell } from './csv';

/** The columns of pages.csv, in order. Later facts are added at the end. */
export const pageColumns: readonly FactName[] = [
  'url',
  'status',
  'content_type',
  'title',
  'depth',
  'reach',
  'pages_linking',
  'links_in',
  'pages_linked',
  'links_out',
  'verdict',
  'canonical',
  'robots',
  'noindex',
  'seen_in',
  'redirect_to',
];

const asCell = (value: FactValue): Cell => (Array.isArray(value) ? value.join('|') : (value as Cell));

/**
 * pages.csv: one record a page.
 * @param pages numbers of the pages to write, in order; all of them when absent
 */
export function* pagesCsv(snapshot: Snapshot, pages: Iterable<number> = range(snapshot.count)): Generator<string> {
  yield csvRow(pageColumns);
  for (const page of pages) yield csvRow(pageColumns.map((name) => asCell(factAt(snapshot, name, page))));
}

/** links.csv: one record for each occurrence of a click link, to inside and outside targets. */
export function* linksCsv(snapshot: Snapshot): Generator<string> {
  yield csvRow(['source', 'target', 'anchor', 'rel', 'element', 'placement', 'line', 'column']);
  const { links, phrases } = snapshot;
  const click = linkKinds.indexOf('click');
  for (let page = 0; page < snapshot.count; page++)
    for (let i = links.offsets[page]; i < links.offsets[page + 1]; i++)
      if (links.kind[i] === click)
        yield csvRow([
          addressAt(snapshot, page),
          addressAt(snapshot, links.target[i]),
          phrases[links.anchor[i]],
          phrases[links.rel[i]],
          linkElements[links.element[i]],
          landmarks[links.landmark[i]],
          links.line[i],
          links.column[i],
        ]);
}

export interface Summary {
  pages: number;
  /** How many pages have each verdict, each reach, each depth; only those that occur. */
  verdict: Record<string, number>;
  reach: Record<string, number>;
  depth: Record<string, number>;
  /** Occurrences of click links. */
  links: number;
  sitemap_only: number;
}

const tally = (column: Int32Array, name: (value: number) => string) => {
  const counts: Record<string, number> = {};
  for (const value of column) if (value >= 0) counts[name(value)] = (counts[name(value)] ?? 0) + 1;
  return counts;
};

/** The counts of summary.json. */
export function summarize({ count, columns, links }: Snapshot): Summary {
  const seen = columns.seen_in as Int32Array;
  const [linked, sitemap] = [1 << sources.indexOf('links'), 1 << sources.indexOf('sitemap')];
  return {
    pages: count,
    verdict: tally(columns.verdict as Int32Array, (value) => verdicts[value]),
    reach: tally(columns.reach as Int32Array, (value) => reaches[value]),
    depth: tally(columns.depth as Int32Array, String),
    links: links.kind.reduce((sum, kind) => sum + Number(linkKinds[kind] === 'click'), 0),
    sitemap_only: seen.reduce((sum, bits) => sum + Number((bits & sitemap) !== 0 && (bits & linked) === 0), 0),
  };
}

function* range(count: number) {
  for (let i = 0; i < count; i++) yield i;
}
