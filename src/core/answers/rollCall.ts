/** What the screen Roll call says: the worst gap between what links reach and what other sources know. */
import { sources } from '../facts';
import { unknownAddresses } from '../imports';
import type { ImportKind, MatchedSource } from '../imports';
import { quote } from '../selection';
import { addressAt, countPages, memoOf } from '../snapshot';
import { addressParts } from '../url';
import { calm, lost, plural, say } from './pieces';
import type { AnswerPiece } from './pieces';
import type { View } from '../view';

/** What a source other than links knows. */
interface Knowledge {
  /** As the sentence calls it, with its verb: `the access log knows`. */
  who: string;
  /** How the addresses without a route are spoken of: `get visits and have no route`. */
  what: [one: string, many: string];
  /** The selection of pages that it knows. */
  test: string;
  pages: Iterable<number>;
  /** Addresses that the crawl does not know. */
  unknown: readonly string[];
}

/** A folder is named when so much of a gap is in it. */
const MOST_OF_IT = 0.3;

/** The folder that holds most of some addresses, if one does. */
function folderOf(addresses: readonly string[]): { path: string; count: number } | null {
  const counts = new Map<string, number>();
  for (const address of addresses) {
    const { path } = addressParts(address);
    const end = path.indexOf('/', 1);
    if (end > 0) counts.set(path.slice(0, end + 1), (counts.get(path.slice(0, end + 1)) ?? 0) + 1);
  }
  const [path, count] = [...counts].sort((a, b) => b[1] - a[1])[0] ?? ['', 0];
  return count > 1 && count >= MOST_OF_IT * addresses.length ? { path, count } : null;
}

/** What the imports of a kind know, without what only ever answered with an error and the crawl has not met. */
function knownTo(snapshot: View, kind: ImportKind): Pick<Knowledge, 'pages' | 'unknown'> & { all: MatchedSource[] } {
  const all = snapshot.imports.filter((one) => one.kind === kind);
  const pages = new Set(all.flatMap((one) => Array.from(one.pages).filter((page) => page >= 0)));
  return { all, pages, unknown: unknownAddresses(all).answered };
}

function logKnowledge(snapshot: View): Knowledge | null {
  const { all, ...known } = knownTo(snapshot, 'log');
  if (all.length === 0) return null;
  const who = all.length === 1 ? 'the access log knows' : `${all.length} access logs know`;
  return { who, what: ['gets visits and has no route', 'get visits and have no route'], test: 'seen in log', ...known };
}

function listKnowledge(snapshot: View): Knowledge | null {
  const { all, ...known } = knownTo(snapshot, 'list');
  if (all.length === 0) return null;
  const who = all.length === 1 ? `the list “${all[0].name}” has` : `${all.length} lists have`;
  return { who, what: ['of these has no route', 'of these have no route'], test: 'seen in list', ...known };
}

function sitemapKnowledge({ count, column, files }: View): Knowledge | null {
  const bit = 1 << sources.indexOf('sitemap');
  const pages = Array.from({ length: count }, (_, page) => page).filter((page) => column('seen_in')[page] & bit);
  if (pages.length === 0) return null;
  const who = files.sitemaps.length === 1 ? 'the sitemap lists' : 'the sitemaps list';
  return {
    who,
    what: ['listed page has no route', 'listed pages have no route'],
    test: 'seen in sitemap',
    pages,
    unknown: [],
  };
}

function folderPieces({ path, count }: { path: string; count: number }, of: number, test: string): AnswerPiece[] {
  if (count === of) return say`, ${plural(of, '', 'all ')}under ${path}`;
  const select = `${test} and not reached and path starts ${quote(path)}`;
  return say`; ${lost(count, select)} of them ${plural(count, 'is', 'are')} under ${path}`;
}

/** "Links reach N pages; the access log knows M. K addresses get visits and have no route; J of them are under /x/." */
export const rollCallAnswer = memoOf(['seen_in', 'depth', 'url', 'files'], (snapshot: View): AnswerPiece[] => {
  const depth = snapshot.column('depth');
  const reached = countPages(snapshot, (page) => depth[page] >= 0);
  const links = say`Links reach ${calm(reached, 'reached')} ${plural(reached, 'page', 'pages')}`;
  const known = [logKnowledge, listKnowledge, sitemapKnowledge].flatMap((of) => of(snapshot) ?? []);
  const gaps = known.map((one) => {
    const pages = [...one.pages];
    const away = pages.filter((page) => depth[page] < 0).map((page) => addressAt(snapshot, page));
    return { ...one, size: pages.length + one.unknown.length, away: [...away, ...one.unknown], inCrawl: away.length };
  });
  const worst = gaps.find(({ away }) => away.length > 0) ?? gaps[0];
  if (!worst)
    return say`${links}. No other source is known: import a list or an access log, or add sitemaps in the settings.`;
  const { who, what, test, size, away, inCrawl, unknown } = worst;
  const head = say`${links}; ${who} ${calm(size, test)}`;
  if (away.length === 0) return say`${head}. All of them have a route.`;
  const folder = folderOf(away);
  const noun = test === 'seen in log' ? plural(away.length, 'address ', 'addresses ') : '';
  const number = lost(away.length, inCrawl ? `${test} and not reached` : undefined);
  const inFolder = folder ? folderPieces(folder, away.length, test) : [];
  const notKnown = unknown.length ? say`. The crawl does not know ${unknown.length} of the ${away.length}.` : say`.`;
  return say`${head}. ${number} ${noun}${plural(away.length, ...what)}${inFolder}${notKnown}`;
});
