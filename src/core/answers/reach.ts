/** What the screen Reach says: how far pages are, which have no route, and what differs between the two readers. */
import { INDEXABLE, heldBack, reaches, sources, verdicts } from '../facts';
import type { HeldBack, Source } from '../facts';
import type { Thresholds } from '../findings';
import { thousands } from '../numbers';
import { depthFact, noRouteSelection } from '../reach';
import type { Reader } from '../reach';
import { hasBit } from '../selection';
import type { Bits } from '../selection';
import { addressAt, countPages, textAt } from '../snapshot';
import { calm, lost, plural, say } from './pieces';
import type { AnswerPiece } from './pieces';
import type { View } from '../view';

/**
 * "N of M indexable pages are within 3 clicks of the start page. …"
 * @param near how many clicks are few: more of them are a finding
 */
export function reachAnswer(
  snapshot: View,
  { deepClicks: near }: Pick<Thresholds, 'deepClicks'>,
  reader: Reader = 'visitor',
): AnswerPiece[] {
  const verdict = snapshot.column('verdict');
  const fact = depthFact(reader);
  const noRouteTest = noRouteSelection(reader);
  const depth = snapshot.column(fact);
  const seen = snapshot.column('seen_in');
  const sitemap = 1 << sources.indexOf('sitemap');
  const indexable = (page: number) => verdict[page] === INDEXABLE;
  const all = countPages(snapshot, indexable);
  if (all === 0) return say`No page of this crawl may be indexed. ${{ text: 'Look at all verdicts', select: '' }}.`;
  const within = countPages(snapshot, (page) => indexable(page) && depth[page] >= 0 && depth[page] <= near);
  const deep = countPages(snapshot, (page) => indexable(page) && depth[page] > near);
  const none = all - within - deep;
  const listed = countPages(snapshot, (page) => indexable(page) && depth[page] < 0 && (seen[page] & sitemap) !== 0);
  const noRouteSelect = `indexable and ${noRouteTest}`;
  const whose = reader === 'crawler' ? ' for a search crawler' : '';
  const nearby = calm(`${thousands(within)} of ${thousands(all)}`, `indexable and ${fact} <= ${near}`);
  const deeper = deep ? say`${lost(deep, `indexable and ${fact} > ${near}`)} ${plural(deep, 'is', 'are')} deeper` : [];
  const alsoListed =
    listed === none
      ? say`, although the sitemap lists ${plural(none, 'it', 'them')}`
      : listed
        ? say`; the sitemap lists ${lost(listed, `${noRouteSelect} and seen in sitemap`)} of them`
        : [];
  const without = none ? say`${lost(none, noRouteSelect)} ${plural(none, 'has', 'have')} no route${alsoListed}` : [];
  const rest = deep || none ? '.' : 'None is deeper, and none is without a route.';
  return say`${nearby} indexable ${plural(all, 'page is', 'pages are')} within ${near} clicks of the start page${whose}. ${deeper}${deep && none ? ' and ' : ''}${without}${rest}`;
}

/** Indexable pages that nothing, or nothing that people read, leads to: three counts, each with its selection. */
export interface UnlinkedCount {
  lacks: 'route' | 'link' | 'text_link';
  pages: number;
  select: string;
}

/** Start pages need no link. */
export function unlinkedCounts(snapshot: View): UnlinkedCount[] {
  const { column, starts } = snapshot;
  const [verdict, depth] = [column('verdict'), column('depth')];
  const [linking, text] = [column('pages_linking'), column('pages_linking_text')];
  const isStart = new Set(starts);
  const pages = (test: (page: number) => boolean) =>
    countPages(snapshot, (page) => verdict[page] === INDEXABLE && !isStart.has(page) && test(page));
  return [
    { lacks: 'route', pages: pages((page) => depth[page] < 0), select: 'indexable and not reached' },
    {
      lacks: 'link',
      pages: pages((page) => linking[page] === 0),
      select: 'indexable and not (depth = 0) and pages_linking = 0',
    },
    {
      lacks: 'text_link',
      pages: pages((page) => text[page] === 0),
      select: 'indexable and not (depth = 0) and pages_linking_text = 0',
    },
  ];
}

/** One bar of the depth chart: how many pages of each verdict, and how many of them are selected. */
export interface DepthBar {
  /** Clicks from the start; null for pages without a route. */
  depth: number | null;
  pages: number;
  selected: number;
  /** By verdict, in the order of `verdicts`: all pages, and those that are selected. */
  byVerdict: number[];
  selectedByVerdict: number[];
}

/** Counts the pages by depth and verdict. Depths without pages between others are kept, so that the axis is even. */
export function depthBars(snapshot: View, selected: Bits, reader: Reader = 'visitor'): DepthBar[] {
  const depth = snapshot.column(depthFact(reader));
  const verdict = snapshot.column('verdict');
  const bar = (at: number | null): DepthBar => ({
    depth: at,
    pages: 0,
    selected: 0,
    byVerdict: verdicts.map(() => 0),
    selectedByVerdict: verdicts.map(() => 0),
  });
  const deepest = depth.reduce((most, d) => Math.max(most, d), -1);
  const bars = Array.from({ length: deepest + 1 }, (_, at) => bar(at));
  const lost = bar(null);
  for (let page = 0; page < snapshot.count; page++) {
    const at = depth[page] < 0 ? lost : bars[depth[page]];
    at.pages++;
    at.byVerdict[verdict[page]]++;
    if (!hasBit(selected, page)) continue;
    at.selected++;
    at.selectedByVerdict[verdict[page]]++;
  }
  return lost.pages ? [...bars, lost] : bars;
}

export interface Island {
  number: number;
  pages: number;
  indexable: number;
  /** The first of its pages. */
  example: string;
  /** The sources that know any of it. */
  seenIn: Source[];
}

export interface NoRoute {
  /** Orphans and pages of islands, by the sources that know them. A page that several know counts for each. */
  bySource: { source: Source; orphans: number; islandPages: number; indexable: number }[];
  orphans: number;
  islandPages: number;
  /** The largest first. */
  islands: Island[];
  moreIslands: number;
}

const MOST_ISLANDS = 100;

/** What has no route to it for a visitor, and how it is known of. */
export function noRoute(snapshot: View): NoRoute {
  const reach = snapshot.column('reach');
  const seen = snapshot.column('seen_in');
  const island = snapshot.column('island');
  const verdict = snapshot.column('verdict');
  const [orphanCode, islandCode] = [reaches.indexOf('orphan'), reaches.indexOf('island')];
  const bySource = sources.map((source) => ({ source, orphans: 0, islandPages: 0, indexable: 0 }));
  const islands = new Map<number, { pages: number; indexable: number; first: number; seen: number }>();
  let [orphans, islandPages] = [0, 0];
  for (let page = 0; page < snapshot.count; page++) {
    if (reach[page] !== orphanCode && reach[page] !== islandCode) continue;
    const indexable = Number(verdict[page] === INDEXABLE);
    const isOrphan = reach[page] === orphanCode;
    if (isOrphan) orphans++;
    else islandPages++;
    bySource.forEach((entry, bit) => {
      if (!(seen[page] & (1 << bit))) return;
      if (isOrphan) entry.orphans++;
      else entry.islandPages++;
      entry.indexable += indexable;
    });
    if (island[page] < 0) continue;
    const known = islands.get(island[page]) ?? { pages: 0, indexable: 0, first: page, seen: 0 };
    known.pages++;
    known.indexable += indexable;
    known.seen |= seen[page];
    islands.set(island[page], known);
  }
  const sorted = [...islands].sort(([, a], [, b]) => b.pages - a.pages || a.first - b.first);
  return {
    bySource: bySource.filter(({ orphans, islandPages }) => orphans + islandPages > 0),
    orphans,
    islandPages,
    islands: sorted.slice(0, MOST_ISLANDS).map(([number, { pages, indexable, first, seen }]) => ({
      number,
      pages,
      indexable,
      example: addressAt(snapshot, first),
      seenIn: sources.filter((_, bit) => seen & (1 << bit)),
    })),
    moreIslands: Math.max(0, sorted.length - MOST_ISLANDS),
  };
}

export interface Gate {
  address: string;
  title: string | null;
  /** Pages that lose every route without it. */
  gateFor: number;
  depth: number;
}

/** The pages that are the only way to most others; the start pages are a gate by nature, and are left out. */
export function topGates(snapshot: View, most = 60): Gate[] {
  const gateFor = snapshot.column('gate_for');
  const depth = snapshot.column('depth');
  const pages = Array.from(gateFor.keys()).filter((page) => gateFor[page] > 0 && depth[page] > 0);
  return pages
    .sort((a, b) => gateFor[b] - gateFor[a] || a - b)
    .slice(0, most)
    .map((page) => ({
      address: addressAt(snapshot, page),
      title: textAt(snapshot, 'title', page),
      gateFor: gateFor[page],
      depth: depth[page],
    }));
}

export interface ReaderDifference {
  /** Pages that a visitor reaches and a search crawler does not. */
  pages: number;
  indexable: number;
  byCause: { cause: HeldBack; pages: number; indexable: number }[];
  bySection: { section: string; pages: number }[];
  /** Pages that both reach, and that are further for the crawler. */
  deeper: number;
}

const MOST_SECTIONS = 12;

/** What a search crawler does not reach and a visitor does, and what holds it back. */
export function readerDifference(snapshot: View): ReaderDifference {
  const held = snapshot.column('held_back');
  const verdict = snapshot.column('verdict');
  const depth = snapshot.column('depth');
  const crawlerDepth = snapshot.column('crawler_depth');
  const section = snapshot.column('section');
  const byCause = heldBack.map((cause) => ({ cause, pages: 0, indexable: 0 }));
  const bySection = new Map<string, number>();
  let [pages, indexable, deeper] = [0, 0, 0];
  for (let page = 0; page < snapshot.count; page++) {
    if (depth[page] >= 0 && crawlerDepth[page] > depth[page]) deeper++;
    if (held[page] < 0) continue;
    const mayBeIndexed = Number(verdict[page] === INDEXABLE);
    pages++;
    indexable += mayBeIndexed;
    byCause[held[page]].pages++;
    byCause[held[page]].indexable += mayBeIndexed;
    const name = section.values[section.codes[page]];
    bySection.set(name, (bySection.get(name) ?? 0) + 1);
  }
  return {
    pages,
    indexable,
    deeper,
    byCause: byCause.filter(({ pages }) => pages > 0),
    bySection: [...bySection]
      .map(([name, n]) => ({ section: name, pages: n }))
      .sort((a, b) => b.pages - a.pages || (a.section < b.section ? -1 : 1))
      .slice(0, MOST_SECTIONS),
  };
}
