/** What the screens say in words and numbers, worked out from a snapshot. */
import { sources } from '../snapshot';
import type { Snapshot, Source, TextColumn } from '../snapshot';
import { verdicts } from '../verdict';
import type { Verdict } from '../verdict';
import { hasBit } from '../selection';
import type { Bits } from '../selection';

/** A piece of an answer: plain words, or a number that selects what it counts. */
export interface AnswerPiece {
  text: string;
  /** `calm` for what is as it should be, `lost` for what is not. */
  tone?: 'calm' | 'lost';
  /** The selection of what is counted. */
  select?: string;
}

export const count = (n: number) => n.toLocaleString('en');
const plural = (n: number, one: string, many: string) => (n === 1 ? one : many);

const column = (snapshot: Snapshot, name: 'verdict' | 'reach' | 'depth' | 'seen_in') =>
  snapshot.columns[name] as Int32Array;

/** Counts the pages that satisfy a test. */
export function countPages(snapshot: Snapshot, test: (page: number) => boolean): number {
  let n = 0;
  for (let page = 0; page < snapshot.count; page++) if (test(page)) n++;
  return n;
}

/** How many clicks count as near. */
export const NEAR_CLICKS = 3;

/** "N of M indexable pages are within 3 clicks of the start page. …" */
export function reachAnswer(snapshot: Snapshot): AnswerPiece[] {
  const verdict = column(snapshot, 'verdict');
  const depth = column(snapshot, 'depth');
  const seen = column(snapshot, 'seen_in');
  const indexableCode = verdicts.indexOf('indexable');
  const sitemap = 1 << sources.indexOf('sitemap');
  const indexable = (page: number) => verdict[page] === indexableCode;
  const all = countPages(snapshot, indexable);
  if (all === 0)
    return [
      { text: 'No page of this crawl may be indexed. ' },
      { text: 'Look at all verdicts', select: '' },
      { text: '.' },
    ];
  const near = countPages(snapshot, (page) => indexable(page) && depth[page] >= 0 && depth[page] <= NEAR_CLICKS);
  const deep = countPages(snapshot, (page) => indexable(page) && depth[page] > NEAR_CLICKS);
  const lost = all - near - deep;
  const listed = countPages(snapshot, (page) => indexable(page) && depth[page] < 0 && (seen[page] & sitemap) !== 0);
  const pieces: AnswerPiece[] = [
    { text: `${count(near)} of ${count(all)}`, tone: 'calm', select: `indexable and depth <= ${NEAR_CLICKS}` },
    { text: ` indexable ${plural(all, 'page is', 'pages are')} within ${NEAR_CLICKS} clicks of the start page. ` },
  ];
  if (deep)
    pieces.push(
      { text: count(deep), tone: 'lost', select: `indexable and depth > ${NEAR_CLICKS}` },
      { text: ` ${plural(deep, 'is', 'are')} deeper` },
    );
  if (deep && lost) pieces.push({ text: ' and ' });
  if (lost) {
    pieces.push(
      { text: count(lost), tone: 'lost', select: 'indexable and not reached' },
      { text: ` ${plural(lost, 'has', 'have')} no route` },
    );
    if (listed === lost) pieces.push({ text: `, although the sitemap lists ${plural(lost, 'it', 'them')}` });
    else if (listed)
      pieces.push({ text: '; the sitemap lists ' }, { text: count(listed), tone: 'lost', select: 'indexable and not reached and seen in sitemap' }, { text: ' of them' }); // prettier-ignore
  }
  pieces.push({ text: deep || lost ? '.' : 'None is deeper, and none is without a route.' });
  return pieces;
}

/** "The crawl knows N addresses; M of them may be indexed. …" */
export function overviewAnswer(snapshot: Snapshot): AnswerPiece[] {
  const verdict = column(snapshot, 'verdict');
  const depth = column(snapshot, 'depth');
  const seen = column(snapshot, 'seen_in');
  const sitemap = 1 << sources.indexOf('sitemap');
  const indexable = countPages(snapshot, (page) => verdict[page] === verdicts.indexOf('indexable'));
  const deepest = depth.reduce((most, d) => Math.max(most, d), 0);
  const lost = countPages(snapshot, (page) => depth[page] < 0 && (seen[page] & sitemap) !== 0);
  return [
    { text: `${count(snapshot.count)} `, tone: 'calm', select: '' },
    { text: `${plural(snapshot.count, 'address is', 'addresses are')} known and ` },
    { text: count(indexable), tone: 'calm', select: 'indexable' },
    { text: ` may be indexed. The deepest is ` },
    { text: `${count(deepest)} ${plural(deepest, 'click', 'clicks')}`, tone: 'calm', select: `depth = ${deepest}` },
    { text: ' from the start' },
    ...(lost
      ? [
          { text: '; ' },
          { text: count(lost), tone: 'lost' as const, select: 'not reached and seen in sitemap' },
          { text: ` ${plural(lost, 'stands', 'stand')} in the sitemap and ${plural(lost, 'has', 'have')} no route.` },
        ]
      : [{ text: '.' }]),
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
export function depthBars(snapshot: Snapshot, selected: Bits): DepthBar[] {
  const depth = column(snapshot, 'depth');
  const verdict = column(snapshot, 'verdict');
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

/** How many pages have each verdict; those that do not occur are left out. */
export function verdictMakeUp(snapshot: Snapshot): { verdict: Verdict; pages: number }[] {
  const counts = verdicts.map(() => 0);
  for (const code of column(snapshot, 'verdict')) counts[code]++;
  return verdicts
    .map((verdict, code) => ({ verdict, pages: counts[code] }))
    .filter(({ pages }) => pages > 0)
    .reverse();
}

/** For each source that knows a page: how many it knows, how many nobody else knows, how many have no route. */
export function sourceCounts(snapshot: Snapshot): { source: Source; knows: number; alone: number; lost: number }[] {
  const seen = column(snapshot, 'seen_in');
  const depth = column(snapshot, 'depth');
  return sources.flatMap((source, i) => {
    const bit = 1 << i;
    const knows = countPages(snapshot, (page) => (seen[page] & bit) !== 0);
    const alone = countPages(snapshot, (page) => seen[page] === bit);
    const lost = countPages(snapshot, (page) => (seen[page] & bit) !== 0 && depth[page] < 0);
    return knows ? [{ source, knows, alone, lost }] : [];
  });
}

/** All sections, those with most pages first: pages, indexable ones, median depth and pages without a route. */
export function sectionCounts(snapshot: Snapshot) {
  const sections = snapshot.columns.section as TextColumn;
  const verdict = column(snapshot, 'verdict');
  const depth = column(snapshot, 'depth');
  const groups = new Map<number, number[]>();
  sections.codes.forEach((code, page) => {
    const group = groups.get(code);
    if (group) group.push(page);
    else groups.set(code, [page]);
  });
  return [...groups]
    .map(([code, pages]) => {
      const depths = pages.flatMap((page) => (depth[page] < 0 ? [] : [depth[page]])).sort((a, b) => a - b);
      return {
        section: sections.values[code],
        pages: pages.length,
        indexable: pages.filter((page) => verdict[page] === verdicts.indexOf('indexable')).length,
        medianDepth: depths.length ? depths[depths.length >> 1] : null,
        lost: pages.length - depths.length,
      };
    })
    .sort((a, b) => b.pages - a.pages || (a.section < b.section ? -1 : 1));
}
