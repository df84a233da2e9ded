/** What another robots.txt would do to a site: the analysis of a crawl with one base fact exchanged. */
import { analyseWith } from '../analysis';
import type { AnalysisSettings } from '../analysis';
import { INDEXABLE, sources, unvisitedReasons } from '../facts';
import type { RobotsRule } from '../facts';
import { parseRobots, robotsMatcher } from '../robots';
import { addressAt, robotsRuleText, textColumn } from '../snapshot';
import type { FetchedRobots, Snapshot } from '../snapshot';
import { originOf } from '../url';

/** A page that another robots.txt closes or opens. */
export interface ChangedPage {
  page: number;
  /** The line of the rule that decides in the new file; null when none matches. */
  line: number | null;
}

/** What changes, in numbers. */
export interface RobotsEffectCounts {
  closed: number;
  opened: number;
  indexable_lost: number;
  indexable_won: number;
  /** The part of all share, 0 to 1, that pages which may be indexed no longer hold; below zero when they hold more. */
  share_lost: number;
  /** Pages that stay open and that a search crawler no longer reaches. */
  routes_lost: number;
  /** Pages of sitemaps that become blocked. */
  listed_closed: number;
}

export interface RobotsEffect {
  counts: RobotsEffectCounts;
  closed: ChangedPage[];
  opened: ChangedPage[];
  /** The pages of `routes_lost`. */
  routesLost: number[];
  /** Verdicts and share with the file that holds now. */
  before: Snapshot;
}

export interface RobotsChange {
  /** Scheme and host that the file is for. */
  origin: string;
  /** The file to try. */
  text: string;
  /** The product token of the crawler that is asked about. */
  token: string;
}
const OPENED = unvisitedReasons.indexOf('robots');
const IN_SITEMAP = 1 << sources.indexOf('sitemap');

/** The rule that closes each page; null where it is open. */
type Rules = (RobotsRule | null)[];

/** A file that could not be read closes its host, as it did when the site was crawled. */
const isUnreadable = ({ status, fault }: FetchedRobots) => fault !== null && (status === null || status >= 500);

const unreadable: RobotsRule = { line: 0, directive: 'unreadable', path: '', group: '' };

/** Judges every page by the files of the site, of which one may be exchanged. */
function rulesOf(snapshot: Snapshot, token: string, change: RobotsChange | null): Rules {
  const { count, files } = snapshot;
  const closedBy = new Map<string, (address: string) => RobotsRule | null>();
  const byText = (text: string) => {
    const matcher = robotsMatcher(parseRobots(text), token);
    return (address: string) => {
      const { allowed, rule } = matcher(address);
      return allowed || !rule ? null : rule;
    };
  };
  for (const file of files.robots) closedBy.set(file.origin, isUnreadable(file) ? () => unreadable : byText(file.body));
  if (change) closedBy.set(change.origin, byText(change.text));
  return Array.from({ length: count }, (_, page) => {
    const address = addressAt(snapshot, page);
    return closedBy.get(originOf(address))?.(address) ?? null;
  });
}

/** The snapshot as it would be with these rules, with the facts that are compared. */
function withRules(snapshot: Snapshot, rules: Rules, settings: AnalysisSettings): Snapshot {
  const [status, error, rule] = [snapshot.column('status'), snapshot.column('error'), snapshot.column('robots_rule')];
  // What was closed when the site was crawled is opened: nobody knows what it would answer.
  const neverAsked = (page: number) =>
    rules[page] === null && status[page] < 0 && error[page] < 0 && rule.codes[page] > 0;
  const columns = {
    robots_rule: () => textColumn(rules.map((one) => one && robotsRuleText(one))),
    unvisited_reason: () =>
      snapshot.column('unvisited_reason').map((reason, page) => (neverAsked(page) ? OPENED : reason)),
  };
  return analyseWith(snapshot, { columns }, settings);
}

function heldByIndexable({ column }: Snapshot): number {
  const [verdict, share] = [column('verdict'), column('share')];
  let [held, all] = [0, 0];
  share.forEach((own, page) => {
    if (!(own > 0)) return;
    all += own;
    if (verdict[page] === INDEXABLE) held += own;
  });
  return all > 0 ? held / all : 0;
}

/** Works out what a robots.txt would change, for one crawler. */
export function robotsEffect(snapshot: Snapshot, change: RobotsChange, settings: AnalysisSettings): RobotsEffect {
  const [old, fresh] = [rulesOf(snapshot, change.token, null), rulesOf(snapshot, change.token, change)];
  const before = withRules(snapshot, old, settings);
  const after = withRules(snapshot, fresh, settings);
  const closed: ChangedPage[] = [];
  const opened: ChangedPage[] = [];
  const matcher = robotsMatcher(parseRobots(change.text), change.token);
  const changed = (page: number) => ({ page, line: matcher(addressAt(snapshot, page)).rule?.line ?? null });
  const [verdictBefore, verdictAfter] = [before.column('verdict'), after.column('verdict')];
  const routesLost: number[] = [];
  let [lost, won] = [0, 0];
  for (let page = 0; page < snapshot.count; page++) {
    if (fresh[page] && !old[page]) closed.push(changed(page));
    else if (old[page] && !fresh[page]) opened.push(changed(page));
    const [was, is] = [verdictBefore[page] === INDEXABLE, verdictAfter[page] === INDEXABLE];
    if (was && !is) lost++;
    if (is && !was) won++;
    if (!fresh[page] && before.column('crawler_depth')[page] >= 0 && after.column('crawler_depth')[page] < 0)
      routesLost.push(page);
  }
  const shareLost = heldByIndexable(before) - heldByIndexable(after);
  return {
    before,
    closed,
    opened,
    routesLost,
    counts: {
      closed: closed.length,
      opened: opened.length,
      indexable_lost: lost,
      indexable_won: won,
      share_lost: Math.round(shareLost * 1e6) / 1e6 || 0,
      routes_lost: routesLost.length,
      listed_closed: closed.filter(({ page }) => snapshot.column('seen_in')[page] & IN_SITEMAP).length,
    },
  };
}
