/** The files that a crawl is exported to. */
import { sectionCounts } from '../answers';
import { heldBack, isColumnName, reaches, sources, verdicts } from '../facts';
import type { FactName, LinkFactName } from '../facts';
import { CLICK_KIND, placements } from '../links';
import { linkCells } from '../lists';
import { factAt } from '../snapshot';
import { verdictReason } from '../verdict';
import { cellOf, csvPieces } from './csv';
import type { Cell } from './csv';
import type { View } from '../view';

const SHARE_DIGITS = 6;

/** A fact of a page as files have it. */
export function pageCell(snapshot: View, name: FactName, page: number): Cell {
  if (!isColumnName(name)) return cellOf(verdictReason(snapshot, page));
  const cell = cellOf(factAt(snapshot, name, page));
  return name === 'share' && typeof cell === 'number' ? cell.toFixed(SHARE_DIGITS) : cell;
}

/** The columns of pages.csv. Later ones are added at the end, so that files stay comparable. */
// Several words a line, to be read as a whole:
// prettier-ignore
const pageColumns: readonly FactName[] = [
  'url', 'status', 'content_type', 'title', 'depth', 'reach', 'pages_linking', 'links_in', 'pages_linked', 'links_out',
  'verdict', 'canonical', 'robots', 'noindex', 'seen_in', 'redirect_to', 'crawler_depth', 'share', 'gate_for', 'island',
  'description', 'h1', 'word_count', 'language', 'robots_rule', 'canonical_state', 'verdict_reason', 'duplicates',
  'near_duplicates', 'robots_line', 'unvisited_reason', 'redirect_state',
];

/**
 * pages.csv: one record a page.
 * @param pages numbers of the pages to write, in order; all of them when absent
 */
export function pagesCsv(snapshot: View, pages: Iterable<number> = range(snapshot.count)): Generator<string> {
  function* records(): Generator<readonly Cell[]> {
    yield pageColumns;
    for (const page of pages) yield pageColumns.map((name) => pageCell(snapshot, name, page));
  }
  return csvPieces(records());
}

/** How the placement of a link is written: in no landmark the field is empty. */
export const placementCells = placements.map((name) => (name === 'none' ? '' : name));

/** The columns of links.csv: facts of links. */
const linkColumns: LinkFactName[] = ['source', 'target', 'anchor', 'rel', 'element', 'placement', 'line', 'column'];

/** links.csv: one record for each occurrence of a click link, to inside and outside targets. */
export function linksCsv(snapshot: View): Generator<string> {
  const { kind, placement } = snapshot.links;
  const cells = linkCells(snapshot, (link) => link);
  const columns = linkColumns.map((name): ((link: number) => Cell) => {
    if (name === 'placement') return (link) => placementCells[placement[link]];
    const { value } = cells[name]();
    return (link) => cellOf(value(link));
  });
  function* records(): Generator<readonly Cell[]> {
    yield linkColumns;
    for (let link = 0; link < kind.length; link++)
      if (kind[link] === CLICK_KIND) yield columns.map((cellAt) => cellAt(link));
  }
  return csvPieces(records());
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
    no_route: number;
    share: number;
  }[];
}

const tally = (column: Int32Array, name: (value: number) => string) => {
  const counts: Record<string, number> = {};
  for (const value of column) if (value >= 0) counts[name(value)] = (counts[name(value)] ?? 0) + 1;
  return counts;
};

/** The counts of summary.json. */
export function summarize(snapshot: View): Summary {
  const { count, column, links } = snapshot;
  const crawler = column('crawler_depth');
  const seen = column('seen_in');
  const reached = crawler.reduce((sum, depth) => sum + Number(depth >= 0), 0);
  const [linked, sitemap] = [1 << sources.indexOf('links'), 1 << sources.indexOf('sitemap')];
  return {
    pages: count,
    verdict: tally(column('verdict'), (value) => verdicts[value]),
    reach: tally(column('reach'), (value) => reaches[value]),
    depth: tally(column('depth'), String),
    crawler_reach: { reached, not_reached: count - reached },
    crawler_depth: tally(crawler, String),
    held_back: tally(column('held_back'), (value) => heldBack[value]),
    links: links.kind.reduce((sum, kind) => sum + Number(kind === CLICK_KIND), 0),
    sitemap_only: seen.reduce((sum, bits) => sum + Number((bits & sitemap) !== 0 && (bits & linked) === 0), 0),
    sections: sectionCounts(snapshot).map(({ medianDepth, noRoute, ...rest }) => ({
      ...rest,
      median_depth: medianDepth,
      no_route: noRoute,
    })),
  };
}

function* range(count: number) {
  for (let i = 0; i < count; i++) yield i;
}
