/** What the screen Draft says: what edits change of a crawl. */
import { costOf, freshPageOf } from '../compare';
import type { Comparison } from '../compare';
import { INDEXABLE, pageClasses, verdicts } from '../facts';
import type { Reach, Verdict } from '../facts';
import { thousands } from '../numbers';
import { quote } from '../selection';
import { addressAt, factAt } from '../snapshot';
import type { ComparedView, View } from '../view';
import { calm, lost, plural, say } from './pieces';
import type { AnswerPiece } from './pieces';
import { sectionCounts } from './answers';

/** The middle depth of the pages that may be indexed and have a route; null without any. */
export function medianDepth({ column, count }: View): number | null {
  const [depth, verdict] = [column('depth'), column('verdict')];
  const depths: number[] = [];
  for (let page = 0; page < count; page++)
    if (verdict[page] === INDEXABLE && depth[page] >= 0) depths.push(depth[page]);
  depths.sort((a, b) => a - b);
  return depths.length ? depths[(depths.length - 1) >> 1] : null;
}

/** The sections that lose and win most of all share, as parts of what they had, if that is a hundredth at least. */
function sectionShift(before: View, after: View) {
  const had = new Map(sectionCounts(before).map(({ section, share }) => [section, share]));
  const shifts = sectionCounts(after).flatMap(({ section, share }) => {
    const was = had.get(section) ?? 0;
    return was > 0 ? [{ section, by: share - was, part: (share - was) / was }] : [];
  });
  shifts.sort((a, b) => a.by - b.by);
  const [loser, winner] = [shifts[0], shifts.at(-1)];
  return loser && winner && loser.part <= -0.01 && winner.by > 0 ? { loser, winner } : null;
}

/** Counts pages of a draft by what they were and are. */
function moves({ comparison }: ComparedView) {
  const { old, fresh } = comparison;
  const counts = {
    added: 0,
    unreached: 0,
    routesWon: 0,
    routesLost: 0,
    indexableWon: 0,
    indexableLost: 0,
    nearer: 0,
    deeper: 0,
  };
  const at = (view: View, page: number) => ({
    indexable: page < view.count && view.column('verdict')[page] === INDEXABLE,
    depth: page < view.count ? view.column('depth')[page] : -1,
    reached: page < view.count && view.column('depth')[page] >= 0,
  });
  for (let page = 0; page < fresh.count; page++) {
    const [was, is] = [at(old, page), at(fresh, page)];
    if (was.indexable && !was.reached) {
      counts.unreached++;
      if (is.reached) counts.routesWon++;
    }
    if (was.indexable && was.reached && is.indexable && !is.reached) counts.routesLost++;
    if (page >= old.count) {
      counts.added += Number(is.indexable);
      continue;
    }
    if (was.reached && is.reached && is.indexable && is.depth !== was.depth)
      counts[is.depth < was.depth ? 'nearer' : 'deeper']++;
    if (was.indexable && !is.indexable) counts.indexableLost++;
    if (is.indexable && !was.indexable) counts.indexableWon++;
  }
  return counts;
}

const pagesText = (n: number) => plural(n, 'page', 'pages');

/** Two sentences at the most: what becomes reachable and how deep, and where share moves. */
export function draftAnswer(view: ComparedView, edits: number): AnswerPiece[] {
  const { old, fresh } = view.comparison;
  const { added, unreached, routesWon, routesLost, indexableWon, indexableLost, nearer, deeper } = moves(view);
  const told: AnswerPiece[][] = [];
  if (added)
    told.push(say`${calm(added, 'new and indexable')} ${pagesText(added)} ${plural(added, 'is', 'are')} added`);
  if (routesWon)
    told.push(
      say`${calm(`${thousands(routesWon)} of ${thousands(unreached)}`, 'was (indexable and not reached) and reached')} unreachable ${pagesText(unreached)} ${plural(routesWon, 'gets', 'get')} a route`,
    );
  if (routesLost)
    told.push(
      say`${lost(routesLost, 'was (indexable and reached) and indexable and not reached')} ${pagesText(routesLost)} ${plural(routesLost, 'loses its', 'lose their')} route`,
    );
  if (indexableWon)
    told.push(
      say`${calm(indexableWon, 'was (not indexable) and indexable')} more ${pagesText(indexableWon)} may be indexed`,
    );
  if (indexableLost)
    told.push(
      say`${lost(indexableLost, 'was (indexable) and not indexable')} ${pagesText(indexableLost)} may no longer be indexed`,
    );
  const [was, is] = [medianDepth(old), medianDepth(fresh)];
  if (was !== null && is !== null && was !== is)
    told.push(say`the median depth ${is < was ? 'falls' : 'rises'} from ${was} to ${(is < was ? calm : lost)(is)}`);
  else {
    if (nearer)
      told.push(
        say`${calm(nearer, 'depth_change < 0 and indexable')} ${pagesText(nearer)} ${plural(nearer, 'comes', 'come')} nearer to the start`,
      );
    if (deeper)
      told.push(
        say`${lost(deeper, 'depth_change > 0 and indexable')} ${nearer ? '' : `${pagesText(deeper)} `}${plural(deeper, 'gets', 'get')} deeper`,
      );
  }
  const shift = sectionShift(old, fresh);
  const percent = (part: number) => `${Math.max(1, Math.round(Math.abs(part) * 100))} %`;
  const shares = shift
    ? say` ${lost(`${shift.loser.section} loses ${percent(shift.loser.part)} of its share`, `section = ${quote(shift.loser.section)}`)}; ${shift.winner.section} gains most.`
    : [];
  const begin = say`With ${edits} ${plural(edits, 'edit', 'edits')}, `;
  if (told.length === 0) return say`${begin}no page gets another depth or changes whether it may be indexed.${shares}`;
  const joined = told.flatMap((one, i) => (i === 0 ? one : say`${i === told.length - 1 ? ' and ' : ', '}${one}`));
  return say`${begin}${joined}.${shares}`;
}

/** A page that a draft changes: null is unknown, or a page that is not there. */
export interface DraftedPage {
  address: string;
  isNew: boolean;
  verdict: [before: Verdict | null, after: Verdict | null];
  reach: [before: Reach | null, after: Reach | null];
  depth: [before: number | null, after: number | null];
  share: [before: number | null, after: number | null];
  pages_linking: [before: number | null, after: number | null];
}

const SAME = pageClasses.indexOf('same');

function draftedPage({ old, fresh }: Comparison<View>, page: number): DraftedPage {
  const both = <T>(name: Parameters<typeof factAt>[1]): [T | null, T | null] => [
    page < old.count ? (factAt(old, name, page) as T | null) : null,
    factAt(fresh, name, page) as T | null,
  ];
  return {
    address: addressAt(fresh, page),
    isNew: page >= old.count,
    verdict: both('verdict'),
    reach: both('reach'),
    depth: both('depth'),
    share: both('share'),
    pages_linking: both('pages_linking'),
  };
}

/** The pages that gain share by a draft, and those that lose it, most first. */
export function draftedPages({ comparison }: ComparedView, most: number): { gain: DraftedPage[]; lose: DraftedPage[] } {
  const { old, fresh } = comparison;
  const shareOf = (view: View, page: number) =>
    page < view.count && view.column('verdict')[page] === INDEXABLE ? Math.max(0, view.column('share')[page]) : 0;
  const changed: { page: number; by: number }[] = [];
  for (let row = 0; row < comparison.rows; row++) {
    const page = freshPageOf(comparison, row);
    if (page < 0 || (comparison.change[row] === SAME && costOf(comparison, row) === 0)) continue;
    const by = shareOf(fresh, page) - shareOf(old, page);
    if (Math.abs(by) >= 0.01) changed.push({ page, by });
  }
  changed.sort((a, b) => b.by - a.by);
  const pagesOf = (rows: typeof changed) => rows.slice(0, most).map(({ page }) => draftedPage(comparison, page));
  return {
    gain: pagesOf(changed.filter(({ by }) => by > 0)),
    lose: pagesOf(changed.filter(({ by }) => by < 0).reverse()),
  };
}

/** Pages by depth before and after: those without a route last. */
export function draftDepths({
  comparison: { old, fresh },
}: ComparedView): { depth: number | null; before: number; after: number }[] {
  const bars: { depth: number | null; before: number; after: number }[] = [];
  const none = { depth: null, before: 0, after: 0 };
  const count = (view: View, when: 'before' | 'after') => {
    const depth = view.column('depth');
    for (let page = 0; page < view.count; page++) {
      for (let at = bars.length; at <= depth[page]; at++) bars.push({ depth: at, before: 0, after: 0 });
      (depth[page] < 0 ? none : bars[depth[page]])[when]++;
    }
  };
  count(old, 'before');
  count(fresh, 'after');
  return none.before || none.after ? [...bars, none] : bars;
}

/** Pages of each verdict before and after, where it differs. */
export const draftVerdicts = ({ comparison: { old, fresh } }: ComparedView) =>
  verdicts.flatMap((verdict, code) => {
    const count = (view: View) => view.column('verdict').reduce((sum, one) => sum + Number(one === code), 0);
    const [before, after] = [count(old), count(fresh)];
    return before === after ? [] : [{ verdict, before, after }];
  });
