/** What the screens say in words and numbers, worked out from a snapshot. */
import { pageGroups } from '../lists';
import { noBits, otherBits } from '../selection';
import { INDEXABLE, sources, unvisitedReasons, verdicts } from '../facts';
import type { Source, UnvisitedReason, Verdict } from '../facts';
import { thousands } from '../numbers';
import { countPages, memoOf } from '../snapshot';
import { originOf } from '../url';
import { calm, lost, plural, say } from './pieces';
import type { AnswerPiece } from './pieces';
import type { View } from '../view';

/** "The crawl knows N addresses; M of them may be indexed. …" */
export function overviewAnswer(snapshot: View): AnswerPiece[] {
  const verdict = snapshot.column('verdict');
  const depth = snapshot.column('depth');
  const seen = snapshot.column('seen_in');
  const sitemap = 1 << sources.indexOf('sitemap');
  const indexable = countPages(snapshot, (page) => verdict[page] === INDEXABLE);
  const deepest = depth.reduce((most, d) => Math.max(most, d), 0);
  const far = countPages(snapshot, (page) => depth[page] < 0 && (seen[page] & sitemap) !== 0);
  const clicks = calm(`${thousands(deepest)} ${plural(deepest, 'click', 'clicks')}`, `depth = ${deepest}`);
  const end = far
    ? say`; ${lost(far, 'not reached and seen in sitemap')} ${plural(far, 'page', 'pages')} in the sitemap cannot be reached by links.`
    : say`.`;
  return say`${calm(`${thousands(snapshot.count)} `, '')}${plural(snapshot.count, 'address is', 'addresses are')} known and ${calm(indexable, 'indexable')} may be indexed. The deepest page is ${clicks} from the start page${end}`;
}

/** How many pages have each verdict; those that do not occur are left out. */
export function verdictMakeUp(snapshot: View): { verdict: Verdict; pages: number }[] {
  const counts = verdicts.map(() => 0);
  for (const code of snapshot.column('verdict')) counts[code]++;
  return verdicts
    .map((verdict, code) => ({ verdict, pages: counts[code] }))
    .filter(({ pages }) => pages > 0)
    .reverse();
}

/** For each source that knows a page: how many it knows, how many nobody else knows, how many have no route. */
export function sourceCounts(snapshot: View): { source: Source; knows: number; alone: number; lost: number }[] {
  const seen = snapshot.column('seen_in');
  const depth = snapshot.column('depth');
  return sources.flatMap((source, i) => {
    const bit = 1 << i;
    const knows = countPages(snapshot, (page) => (seen[page] & bit) !== 0);
    const alone = countPages(snapshot, (page) => seen[page] === bit);
    const lost = countPages(snapshot, (page) => (seen[page] & bit) !== 0 && depth[page] < 0);
    return knows ? [{ source, knows, alone, lost }] : [];
  });
}

/** All sections, those with most pages first: pages, indexable ones, median depth, share, and pages without a route. */
export function sectionCounts(snapshot: View) {
  const all = noBits(snapshot.count);
  const list = pageGroups(snapshot, otherBits(all), 'section');
  const number = (name: string, row: number) => list.cells(name).value(row) as number;
  return Array.from(list.rows, (row) => ({
    section: list.cells('value').value(row) as string,
    pages: number('pages', row),
    indexable: number('indexable', row),
    medianDepth: list.cells('median_depth').value(row) as number | null,
    share: number('share', row),
    noRoute: number('no_route', row),
  })).sort((a, b) => b.pages - a.pages || (a.section < b.section ? -1 : 1));
}

/** What is counted of a protocol and host. */
interface OriginCount {
  origin: string;
  pages: number;
  indexable: number;
}

/**
 * Each protocol and host that inside addresses have, with its pages and those that may be indexed; most pages first.
 */
export const originCounts = memoOf(['verdict', 'url'], ({ column, count }): OriginCount[] => {
  const verdict = column('verdict');
  const url = column('url');
  const counts = new Map<string, OriginCount>();
  // Pages are numbered in the order of their addresses, so those of one origin follow each other.
  let entry: OriginCount | undefined;
  for (let page = 0; page < count; page++) {
    const address = url.values[url.codes[page]];
    if (!entry || !address.startsWith(`${entry.origin}/`)) {
      const origin = originOf(address);
      entry = counts.get(origin) ?? { origin, pages: 0, indexable: 0 };
      counts.set(origin, entry);
    }
    entry.pages++;
    entry.indexable += Number(verdict[page] === INDEXABLE);
  }
  return [...counts.values()].sort((a, b) => b.pages - a.pages || (a.origin < b.origin ? -1 : 1));
});

/** What is known and was not fetched, by the reason why; most pages first. */
export function notCrawled({ column }: View): { reason: UnvisitedReason; pages: number }[] {
  const counts = unvisitedReasons.map((reason) => ({ reason, pages: 0 }));
  for (const code of column('unvisited_reason')) if (code >= 0) counts[code].pages++;
  return counts.filter(({ pages }) => pages > 0).sort((a, b) => b.pages - a.pages);
}
