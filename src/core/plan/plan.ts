/**
 * Plans the fewest new links that bring pages within some clicks of the start. A link to a page brings all that is near
 * it, so this is set cover: greedily, each gain worked out again only when it might be the largest (M. Minoux,
 * Accelerated greedy algorithms for maximizing submodular set functions, 1978), then improved by taking some links away
 * and planning them anew (G. Schrimpf et al., Record breaking optimization results using the ruin and recreate
 * principle, 2000).
 */
import { chance } from '../numbers';
import type { Incoming, PageGraph } from '../reach';
import { fewestLinks } from './bound';
import { clicksTo, NO_ROUTE, spreading } from './spread';
import type { NewLink, Spread } from './spread';

export interface PlanGoal {
  /** Clicks from the start. */
  within: number;
  /** 1 for the pages that are to come within them. */
  wanted: Uint8Array;
}

export interface PlanLimits {
  /** 1 for the pages that may get new links on them. */
  sources: Uint8Array;
  /** 1 for the pages that may be linked to. */
  targets: Uint8Array;
  /** How many new links a page may get on it. */
  newLinks: number;
  /** How many new links there may be in all. */
  budget: number;
  /** Links only between pages with the same number here; null where any may link to any. */
  groups: ArrayLike<number> | null;
  /** Whether a page may link to another at all; null where any may. */
  allowed: ((source: number, target: number) => boolean) | null;
}

export interface PlannedLink extends NewLink {
  /** The wanted pages that come within the limit by it. */
  gain: number;
}

export interface Plan {
  /** Those that bring most first. */
  links: PlannedLink[];
  /** Wanted pages that were too deep, and how many of them still are. */
  tooDeep: number;
  missed: number;
  /** No plan that brings what this one does within the limit, whatever its other limits, has fewer links. */
  fewest: number;
}

/** A site to plan for, as a visitor walks it. */
export interface PlanSite {
  graph: PageGraph;
  pages: Incoming;
  depth: Int32Array;
  /** How well a page suits as source of a link to another; the higher, the better. */
  likeness: (source: number, target: number) => number;
}

/** Wanted pages, by what they bring, beyond which a plan is not improved: it would take too long. */
const MOST_IMPROVED = 3000;
const ROUNDS = 120;
/** How many of a hundred links each round takes away. */
const RUINED = 30;

interface Task {
  site: PlanSite;
  goal: PlanGoal;
  limits: PlanLimits;
  need: Int32Array;
  /** The pages that bring any wanted page if they are linked to. */
  candidates: readonly number[];
}

const begin = ({ site, goal, need }: Task): Spread => spreading(site.graph, site.depth, { ...goal, need });

/** Adds links until all wanted pages are near enough, or no link brings another. */
function extend({ site, goal, limits, candidates }: Task, kept: readonly NewLink[], spread: Spread): PlannedLink[] {
  const { depth } = spread;
  const { sources, groups } = limits;
  const used = new Map<number, number>();
  const use = ({ source }: NewLink) => used.set(source, (used.get(source) ?? 0) + 1);
  kept.forEach(use);
  const isFree = (page: number) => sources[page] === 1 && (used.get(page) ?? 0) < limits.newLinks;
  const groupOf = (page: number) => (groups ? groups[page] : 0);
  /** The least depth of a page of each group that may get another link. */
  const nearestFree = () => {
    const nearest = new Map<number, number>();
    for (let page = 0; page < depth.length; page++)
      if (depth[page] < goal.within && depth[page] < (nearest.get(groupOf(page)) ?? Infinity) && isFree(page))
        nearest.set(groupOf(page), depth[page]);
    return nearest;
  };
  const deepest = depth.reduce((most, clicks) => (clicks < NO_ROUTE ? Math.max(most, clicks) : most), 0);
  let nearest = nearestFree();
  const gainOf = (page: number) => spread.gain(page, (nearest.get(groupOf(page)) ?? goal.within) + 1);
  /** The best source of those from which a link brings as much, else of those from which it brings anything. */
  function sourceFor(target: number, gain: number): number {
    let most = nearest.get(groupOf(target))! + 1;
    // Beyond the deepest source there is none.
    const last = Math.min(goal.within, deepest + 1);
    while (most < last && spread.gain(target, most + 1) === gain) most++;
    const best = bestSource(target, most);
    return best >= 0 || !limits.allowed ? best : bestSource(target, last);
  }
  /** The best source of those less than so many clicks deep. */
  function bestSource(target: number, most: number): number {
    let best = -1;
    let [bestUsed, bestLikeness] = [0, -Infinity];
    for (let page = 0; page < depth.length; page++) {
      if (depth[page] >= most || page === target || groupOf(page) !== groupOf(target) || !isFree(page)) continue;
      if (limits.allowed && !limits.allowed(page, target)) continue;
      const likeness = site.likeness(page, target);
      const links = used.get(page) ?? 0;
      if (likeness < bestLikeness || (likeness === bestLikeness && links >= bestUsed)) continue;
      [best, bestLikeness, bestUsed] = [page, likeness, links];
    }
    return best;
  }
  // Gains only become less, so that those worked out before bound them from above.
  const byGain: number[][] = [];
  const put = (page: number, gain: number) => gain > 0 && (byGain[gain] ??= []).push(page);
  for (const page of candidates) put(page, gainOf(page));
  const links: PlannedLink[] = [];
  while (byGain.length > 0 && kept.length + links.length < limits.budget) {
    const target = byGain.at(-1)?.pop();
    if (target === undefined) {
      byGain.pop();
      continue;
    }
    const gain = gainOf(target);
    if (gain < byGain.length - 1) {
      put(target, gain);
      continue;
    }
    const source = sourceFor(target, gain);
    if (source < 0) continue;
    const link = { source, target, gain: spread.gain(target, depth[source] + 1) };
    if (link.gain === 0) continue;
    links.push(link);
    use(link);
    spread.add(link);
    nearest = nearestFree();
  }
  return links;
}

const missedBy = ({ goal: { wanted, within } }: Task, { depth }: Spread) =>
  depth.reduce((sum, clicks, page) => sum + Number(wanted[page] === 1 && clicks > within), 0);

/** What links bring together. */
function spreadOf(task: Task, links: readonly NewLink[]): Spread {
  const spread = begin(task);
  for (const link of links) spread.add(link);
  return spread;
}

/** Leaves out the links without which as much is brought, the last first. */
function withoutNeedless(task: Task, links: readonly PlannedLink[]): PlannedLink[] {
  const missed = missedBy(task, spreadOf(task, links));
  let kept = [...links];
  for (const link of [...links].reverse()) {
    const others = kept.filter((one) => one !== link);
    if (missedBy(task, spreadOf(task, others)) <= missed) kept = others;
  }
  return kept;
}

function shuffled(pages: readonly number[], next: (below: number) => number): number[] {
  const all = [...pages];
  for (let i = all.length - 1; i > 0; i--) {
    const other = next(i + 1);
    [all[i], all[other]] = [all[other], all[i]];
  }
  return all;
}

/** Takes some links away and plans them anew, again and again; what is no worse is kept. */
function improved(task: Task, first: readonly PlannedLink[], fewest: number): readonly PlannedLink[] {
  const next = chance(1);
  let best = withoutNeedless(task, first);
  const missed = missedBy(task, spreadOf(task, best));
  for (let round = 0; round < ROUNDS && best.length > fewest; round++) {
    const kept = best.filter(() => next(100) >= RUINED);
    const spread = spreadOf(task, kept);
    const candidates = shuffled(task.candidates, next);
    const all = withoutNeedless(task, [...kept, ...extend({ ...task, candidates }, kept, spread)]);
    if (all.length <= best.length && missedBy(task, spreadOf(task, all)) <= missed) best = all;
  }
  return best;
}

/** The links in the order in which each brings most, with what it brings then. */
function inOrderOfGain(task: Task, links: readonly NewLink[]): PlannedLink[] {
  const spread = begin(task);
  const left = new Set(links);
  const ordered: PlannedLink[] = [];
  while (left.size) {
    let best: PlannedLink | null = null;
    let chosen: NewLink | null = null;
    for (const link of left) {
      const gain = spread.gain(link.target, spread.depth[link.source] + 1);
      if (!best || gain > best.gain) [best, chosen] = [{ ...link, gain }, link];
    }
    left.delete(chosen!);
    spread.add(chosen!);
    ordered.push(best!);
  }
  return ordered;
}

/** Plans new links. */
export function planLinks(site: PlanSite, goal: PlanGoal, limits: PlanLimits): Plan {
  const { graph, pages, depth } = site;
  const tooDeep: number[] = [];
  goal.wanted.forEach((wanted, page) => wanted && (depth[page] < 0 || depth[page] > goal.within) && tooDeep.push(page));
  const need = clicksTo(graph, pages, tooDeep, goal.within - 1);
  const candidates: number[] = [];
  const covers = new Map<number, number[]>();
  const all = { site, goal, limits, need, candidates };
  const spread = begin(all);
  for (let page = 0; page < graph.count; page++) {
    if (limits.targets[page] !== 1 || need[page] > goal.within) continue;
    const brought: number[] = [];
    if (spread.gain(page, 1, brought) === 0) continue;
    candidates.push(page);
    covers.set(page, brought);
  }
  const planned = extend(all, [], spread);
  const missed = missedBy(all, spread);
  const isWhole = planned.length < limits.budget;
  const fewest = isWhole && missed === 0 ? fewestLinks(covers) : 0;
  const links = isWhole && candidates.length <= MOST_IMPROVED ? improved(all, planned, fewest) : planned;
  return { links: inOrderOfGain(all, links), tooDeep: tooDeep.length, missed, fewest };
}
