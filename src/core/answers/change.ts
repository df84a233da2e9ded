/** What the screen Change says: what moved from one crawl to another. */
import { changedByLinks, changedInLinksOnly, classCounts, freshPageOf, oldPageOf } from '../compare';
import type { Comparison } from '../compare';
import { INDEXABLE, comparedFacts, pageClasses, reaches, verdicts } from '../facts';
import type { ComparedFact, PageClass } from '../facts';
import { thousands } from '../numbers';
import { keptOf, pagesNamed } from '../snapshot';
import { calm, lost, plural, say } from './pieces';
import type { AnswerPiece } from './pieces';
import type { ComparedView, View } from '../view';

const ADDED = pageClasses.indexOf('added');

export interface ChangeCounts {
  /** Pages of each class. */
  classes: Record<PageClass, number>;
  /** Pages of which each fact differs. */
  facts: { fact: ComparedFact; pages: number }[];
  /**
   * Indexable then and not now, and the other way, among pages that both crawls have asked for; the same of having a
   * route, among those that both know.
   */
  lost: number;
  won: number;
  routesLost: number;
  routesWon: number;
  /** Changed pages of which only what links to them and what they link to differs. */
  linksOnly: number;
  /** New pages to which pages that have moved lead. */
  arrived: number;
  /** Pages that were fetched then and not now, such as those beyond a limit, and the other way. */
  unfetchedNow: number;
  unfetchedThen: number;
}

const MOVED = pageClasses.indexOf('moved');

/** New pages to which pages that have moved lead. */
function arrivedPages({ fresh, change }: Comparison<View>): number {
  const ends = pagesNamed(fresh, 'redirect_end');
  const arrived = new Set<number>();
  for (let page = 0; page < fresh.count; page++) {
    const end = change[page] === MOVED ? ends[page] : -1;
    if (end >= 0 && change[end] === ADDED) arrived.add(end);
  }
  return arrived.size;
}
const UNVISITED = verdicts.indexOf('unvisited');
const REACHED = reaches.indexOf('reached');

/** What the numbers of Change are made of, kept as long as the comparison. */
export const changeCounts = keptOf((comparison: Comparison<View>): ChangeCounts => {
  const { old, fresh } = comparison;
  const facts = comparedFacts.map(() => 0);
  const counts = { lost: 0, won: 0, routesLost: 0, routesWon: 0, linksOnly: 0, unfetchedNow: 0, unfetchedThen: 0 };
  for (let row = 0; row < comparison.rows; row++) {
    for (let bits = comparison.changed[row]; bits !== 0; bits &= bits - 1) facts[31 - Math.clz32(bits & -bits)]++;
    if (changedInLinksOnly(comparison, row)) counts.linksOnly++;
    const [was, is] = [oldPageOf(comparison, row), freshPageOf(comparison, row)];
    if (was < 0 || is < 0) continue;
    const [before, after] = [old.column('verdict')[was], fresh.column('verdict')[is]];
    if (before !== UNVISITED && after === UNVISITED) counts.unfetchedNow++;
    else if (before === UNVISITED && after !== UNVISITED) counts.unfetchedThen++;
    else if (before === INDEXABLE && after !== INDEXABLE) counts.lost++;
    else if (after === INDEXABLE && before !== INDEXABLE) counts.won++;
    const [route, routeNow] = [old.column('reach')[was] === REACHED, fresh.column('reach')[is] === REACHED];
    if (route && !routeNow) counts.routesLost++;
    if (routeNow && !route) counts.routesWon++;
  }
  return {
    classes: classCounts(comparison),
    arrived: arrivedPages(comparison),
    facts: comparedFacts.map((fact, i) => ({ fact, pages: facts[i] })).filter(({ pages }) => pages > 0),
    ...counts,
  };
});

/** Selections of what the screen counts. */
export const changeSelections = {
  lost: 'was (indexable) and verdict != indexable and verdict != unvisited',
  won: 'indexable and was (verdict != indexable and verdict != unvisited)',
  unfetchedNow: 'unvisited and was (verdict != unvisited)',
  unfetchedThen: 'verdict != unvisited and was (unvisited)',
  routesLost: 'was (reached) and not reached and not removed',
  routesWon: 'reached and was (not reached)',
  linksOnly: `changed and not (${comparedFacts
    .filter((fact) => !(changedByLinks as readonly string[]).includes(fact))
    .map((fact) => `changed(${fact})`)
    .join(' or ')})`,
} as const;

/**
 * The answer of Change, in one or two sentences.
 * @param since how the earlier crawl is named, as in `crawl 12 of 3 Oct`; null where a draft is beside its own crawl
 * @param begin what the sentence begins with instead, as in `Compared with the draft “Winter”`
 */
export function changeAnswer({ comparison }: ComparedView, since: string | null, begin?: string): AnswerPiece[] {
  const { classes, lost: gone, won, routesLost, routesWon, linksOnly, facts } = changeCounts(comparison);
  const told: [PageClass, one: string, many: string][] = [
    ['added', 'page is new', 'pages are new'],
    ['removed', 'is no longer known', 'are no longer known'],
    ['gone', 'is gone', 'are gone'],
    ['returned', 'has returned', 'have returned'],
    ['moved', 'has moved', 'have moved'],
    ['changed', 'has changed', 'have changed'],
  ];
  const parts = told.filter(([change]) => classes[change] > 0);
  if (parts.length === 0)
    return since === null
      ? say`The draft changes none of ${classes.same} pages.`
      : begin
        ? say`${begin}, all ${classes.same} pages are the same.`
        : say`Nothing has moved since ${since}: all ${classes.same} pages are as they were.`;
  const classed = parts.map(([change, one, many], i) => {
    const n = classes[change];
    const join = i === 0 ? '' : i === parts.length - 1 ? ' and ' : ', ';
    const select = change === 'added' ? 'new' : change;
    const number = change === 'gone' || change === 'removed' ? lost(n, select) : { text: thousands(n), select };
    // The first part says what is counted.
    const noun = i === 0 && change !== 'added' ? plural(n, 'page ', 'pages ') : '';
    const some = { text: linksOnly === n ? 'all' : thousands(linksOnly), select: changeSelections.linksOnly };
    const inLinks = change === 'changed' && linksOnly ? say`, ${some} of them only in their links` : [];
    return say`${join}${number} ${noun}${plural(n, one, many)}${inLinks}`;
  });
  const lostPages = gone
    ? say`${lost(gone, changeSelections.lost)} ${plural(gone, 'page', 'pages')} could be indexed then and cannot now`
    : [];
  const now = gone
    ? 'can now and could not then'
    : `${plural(won, 'page', 'pages')} can be indexed now and could not then`;
  const wonPages = won ? say`${gone ? '; ' : ''}${calm(won, changeSelections.won)} ${now}` : [];
  const join = gone || won ? (routesLost ? ', and ' : '.') : '';
  const routes = routesLost
    ? say`${lost(routesLost, changeSelections.routesLost)} lost ${plural(routesLost, 'its route', 'their routes')}.`
    : [];
  const isSame = !gone && !won && !routesLost && facts.length > 0;
  const same = !isSame
    ? ''
    : routesWon
      ? say`${calm(routesWon, changeSelections.routesWon)} ${plural(routesWon, 'page', 'pages')} without a route can be reached now.`
      : 'What may be indexed, and what can be reached, is as it was.';
  const first = begin ?? (since === null ? 'With the draft' : `Since ${since}`);
  return say`${first}, ${classed.flat()}. ${lostPages}${wonPages}${join}${routes}${same}`;
}
