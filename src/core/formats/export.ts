import { landmarks, linkElements, linkKinds } from '../links';
import { addressAt, factAt, sources } from '../snapshot';
import type { FactName, FactValue, Snapshot } from '../snapshot';
import { verdicts } from '../verdict';
import { heldBack, reaches } from '../reach';
import { sectionCounts } from '../answers';
import { csvCell, csvRecord, csvRow } from './csv';
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
  'crawler_depth',
  'share',
  'gate_for',
  'island',
  'description',
  'h1',
  'words',
  'language',
  'robots_rule',
  'canonical_state',
  'verdict_reason',
  'duplicates',
  'near_duplicates',
];

const SHARE_DIGITS = 6;

function asCell(value: FactValue, name: FactName): Cell {
  if (Array.isArray(value)) return value.join('|');
  return name === 'share' && typeof value === 'number' ? value.toFixed(SHARE_DIGITS) : (value as Cell);
}

/**
 * pages.csv: one record a page.
 * @param pages numbers of the pages to write, in order; all of them when absent
 */
export function* pagesCsv(snapshot: Snapshot, pages: Iterable<number> = range(snapshot.count)): Generator<string> {
  yield csvRow(pageColumns);
  for (const page of pages) yield csvRow(pageColumns.map((name) => asCell(factAt(snapshot, name, page), name)));
}

/** links.csv: one record for each occurrence of a click link, to inside and outside targets. */
export function* linksCsv(snapshot: Snapshot): Generator<string> {
  yield csvRow(['source', 'target', 'anchor', 'rel', 'element', 'placement', 'line', 'column']);
  const { links } = snapshot;
  const click = linkKinds.indexOf('click');
  // Millions of links share their texts: each is made a field once.
  const phrases = snapshot.phrases.map(csvCell);
  const known: string[] = [];
  const address = (target: number) => (known[target] ??= csvCell(addressAt(snapshot, target)));
  for (let page = 0; page < snapshot.count; page++)
    for (let i = links.offsets[page]; i < links.offsets[page + 1]; i++)
      if (links.kind[i] === click)
        yield csvRecord([
          address(page),
          address(links.target[i]),
          phrases[links.anchor[i]],
          phrases[links.rel[i]],
          linkElements[links.element[i]],
          landmarks[links.landmark[i]],
          String(links.line[i]),
          String(links.column[i]),
        ]);
}

export interface Summary {
  pages: number;
  /** How many pages have each verdict, each reach, each depth; only those that occur. */
  verdict: Record<string, number>;
  reach: Record<string, number>;
  depth: Record<string, number>;
  /** The same for a search crawler: `reached` and `not_reached` pages, and depths. */
  crawler_reach: Record<string, number>;
  crawler_depth: Record<string, number>;
  /** Why a crawler has no route to pages that a visitor reaches. */
  held_back: Record<string, number>;
  /** Occurrences of click links. */
  links: number;
  sitemap_only: number;
  sections: {
    section: string;
    pages: number;
    indexable: number;
    median_depth: number | null;
    lost: number;
    share: number;
  }[];
}

const tally = (column: Int32Array, name: (value: number) => string) => {
  const counts: Record<string, number> = {};
  for (const value of column) if (value >= 0) counts[name(value)] = (counts[name(value)] ?? 0) + 1;
  return counts;
};

/** The counts of summary.json. */
export function summarize(snapshot: Snapshot): Summary {
  const { count, columns, links } = snapshot;
  const seen = columns.seen_in as Int32Array;
  const crawler = columns.crawler_depth as Int32Array;
  const reached = crawler.reduce((sum, depth) => sum + Number(depth >= 0), 0);
  const [linked, sitemap] = [1 << sources.indexOf('links'), 1 << sources.indexOf('sitemap')];
  return {
    pages: count,
    verdict: tally(columns.verdict as Int32Array, (value) => verdicts[value]),
    reach: tally(columns.reach as Int32Array, (value) => reaches[value]),
    depth: tally(columns.depth as Int32Array, String),
    crawler_reach: { reached, not_reached: count - reached },
    crawler_depth: tally(crawler, String),
    held_back: tally(columns.held_back as Int32Array, (value) => heldBack[value]),
    links: links.kind.reduce((sum, kind) => sum + Number(linkKinds[kind] === 'click'), 0),
    sitemap_only: seen.reduce((sum, bits) => sum + Number((bits & sitemap) !== 0 && (bits & linked) === 0), 0),
    sections: sectionCounts(snapshot).map(({ medianDepth, ...rest }) => ({ ...rest, median_depth: medianDepth })),
  };
}

function* range(count: number) {
  for (let i = 0; i < count; i++) yield i;
}
