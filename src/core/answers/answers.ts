/** What the screens say in words and numbers, worked out from a snapshot. */
import { pageGroups } from '../lists';
import { noBits, otherBits } from '../selection';
import { sources } from '../snapshot';
import type { Snapshot, Source, TextColumn } from '../snapshot';
import { originOf } from '../url';
import { verdicts } from '../verdict';
import type { Verdict } from '../verdict';
import { countPages, plural } from './pieces';
import { thousands } from '../numbers';
import type { AnswerPiece } from './pieces';

const column = (snapshot: Snapshot, name: 'verdict' | 'reach' | 'depth' | 'seen_in') =>
  snapshot.columns[name] as Int32Array;

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
    { text: `${thousands(snapshot.count)} `, tone: 'calm', select: '' },
    { text: `${plural(snapshot.count, 'address is', 'addresses are')} known and ` },
    { text: thousands(indexable), tone: 'calm', select: 'indexable' },
    { text: ` may be indexed. The deepest is ` },
    { text: `${thousands(deepest)} ${plural(deepest, 'click', 'clicks')}`, tone: 'calm', select: `depth = ${deepest}` },
    { text: ' from the start' },
    ...(lost
      ? [
          { text: '; ' },
          { text: thousands(lost), tone: 'lost' as const, select: 'not reached and seen in sitemap' },
          { text: ` ${plural(lost, 'stands', 'stand')} in the sitemap and ${plural(lost, 'has', 'have')} no route.` },
        ]
      : [{ text: '.' }]),
  ];
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

/** All sections, those with most pages first: pages, indexable ones, median depth, share, and pages without a route. */
export function sectionCounts(snapshot: Snapshot) {
  const all = noBits(snapshot.count);
  const list = pageGroups(snapshot, otherBits(all), 'section');
  const number = (name: string, row: number) => list.cells(name).value(row) as number;
  return Array.from(list.rows, (row) => ({
    section: list.cells('value').value(row) as string,
    pages: number('pages', row),
    indexable: number('indexable', row),
    medianDepth: list.cells('median_depth').value(row) as number | null,
    share: number('share', row),
    lost: number('lost', row),
  })).sort((a, b) => b.pages - a.pages || (a.section < b.section ? -1 : 1));
}

/** Each protocol and host that inside addresses have, with its pages and those that may be indexed; most pages first. */
export function originCounts(snapshot: Snapshot): { origin: string; pages: number; indexable: number }[] {
  const verdict = column(snapshot, 'verdict');
  const url = snapshot.columns.url as TextColumn;
  const counts = new Map<string, { origin: string; pages: number; indexable: number }>();
  // Pages are numbered in the order of their addresses, so those of one origin follow each other.
  let entry: { origin: string; pages: number; indexable: number } | undefined;
  for (let page = 0; page < snapshot.count; page++) {
    const address = url.values[url.codes[page]];
    if (!entry || !address.startsWith(`${entry.origin}/`)) {
      const origin = originOf(address);
      entry = counts.get(origin) ?? { origin, pages: 0, indexable: 0 };
      counts.set(origin, entry);
    }
    entry.pages++;
    entry.indexable += Number(verdicts[verdict[page]] === 'indexable');
  }
  return [...counts.values()].sort((a, b) => b.pages - a.pages || (a.origin < b.origin ? -1 : 1));
}

/** What is known and was not fetched, by the reason why; most pages first. */
export function notCrawled(snapshot: Snapshot): { reason: string; pages: number }[] {
  const verdict = column(snapshot, 'verdict');
  const reasons = snapshot.columns.verdict_reason as TextColumn;
  const counts = new Map<number, number>();
  verdict.forEach((code, page) => {
    if (verdicts[code] === 'unvisited') counts.set(reasons.codes[page], (counts.get(reasons.codes[page]) ?? 0) + 1);
  });
  return [...counts]
    .map(([code, pages]) => ({ reason: reasons.values[code], pages }))
    .sort((a, b) => b.pages - a.pages);
}
