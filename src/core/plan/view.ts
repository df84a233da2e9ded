/** Plans for a view, as edits of a draft with what each gains. */
import { draftOf, editOf } from '../draft';
import type { Edit } from '../draft';
import { INDEXABLE } from '../facts';
import { CLICK_KIND, isContentPlacement, placements } from '../links';
import type { Message } from '../messages';
import { walkOf } from '../reach';
import { hasBit } from '../selection';
import type { Bits } from '../selection';
import type { CrawlSettings } from '../settings';
import { DAMPING } from '../share';
import { addressAt } from '../snapshot';
import type { View } from '../view';
import { planFewerLinks } from './fewerLinks';
import type { SharedLink } from './fewerLinks';
import { commonFolders, nameOf, wordLikeness } from './likeness';
import { planLinks } from './plan';
import { sourceFinder } from './sources';
import type { NewLink } from './spread';

/**
 * What a plan is to reach: pages within so many clicks; so many pages that link to them from running text; so many
 * times an even share; or no more than so many links on them.
 */
export const planGoals = ['within', 'text', 'share', 'links'] as const;
export type PlanGoalName = (typeof planGoals)[number];

export interface PlanCall {
  goal: PlanGoalName;
  /** Any number of clicks without it, so that pages need a route and no more. */
  amount?: number;
  /** The pages that are to reach it. */
  wanted: Bits;
  newLinks?: number;
  budget?: number;
  /** Whether pages may link only to pages of their own section. */
  withinSections?: boolean;
  /** Whether only pages may link whose content has the words that name the target. */
  alike?: boolean;
  /** By target the pages that may link to it; any without. Pages without sources get no link. */
  linkable?: ReadonlyMap<number, ReadonlySet<number>> | null;
  /** Pages that may neither get a new link nor lose one. */
  without?: Bits | null;
}

export interface Proposal {
  edit: Edit;
  /** The pages of a new link; null for other edits. */
  link: NewLink | null;
  /** What it brings, and for links to how many of the words that name its target the source has. */
  gain: Message;
}

export interface Proposals {
  /** Those that bring most first. */
  proposals: Proposal[];
  /** Wanted pages that fall short, and how many of them still do. */
  short: number;
  missed: number;
  /** No plan that reaches as much has fewer edits; 0 where none is known. */
  fewest: number;
}

/** A source must have so much of what names its target where only like pages may link. */
const ALIKE = 0.5;

/** What all goals plan with. */
function taskOf(view: View, { wanted, newLinks = Infinity, budget = Infinity, ...call }: PlanCall) {
  const { without, alike, linkable } = call;
  const isAlike = (source: number, target: number) => likeness(source, target) >= ALIKE;
  const isLinkable = (source: number, target: number) => linkable!.get(target)?.has(source) === true;
  const tests = [...(linkable ? [isLinkable] : []), ...(alike ? [isAlike] : [])];
  const likeness = wordLikeness(view);
  const folders = commonFolders(view);
  const isFree = (page: number) => !(without && hasBit(without, page));
  const paging = view.column('paging');
  /** Entries slide off a further page of a list, so that it is no place for links. */
  const stays = (page: number) => paging[page] !== 1 && isFree(page);
  const sources = Uint8Array.from(view.column('verdict'), (code, page) => Number(code === INDEXABLE && stays(page)));
  return {
    view,
    isFree,
    likeness,
    /** Folders decide among pages that are as alike. */
    suits: (source: number, target: number) => likeness(source, target) + folders(source, target) / 100,
    sources,
    wanted: sources.map((_, page) => Number(hasBit(wanted, page) && isFree(page))),
    newLinks,
    budget,
    groups: call.withinSections ? view.column('section').codes : null,
    targets: sources.map((one, page) => Number((one || hasBit(wanted, page)) && (!linkable || linkable.has(page)))),
    allowed: tests.length ? (source: number, target: number) => tests.every((test) => test(source, target)) : null,
    amount: call.amount,
  };
}
type Task = ReturnType<typeof taskOf>;

/** A new link as an edit, with the words that name its target. */
const editOfLink = (view: View, { source, target }: NewLink): Edit =>
  editOf('add_link', addressAt(view, source), {
    target: addressAt(view, target),
    anchor: nameOf(view, target),
    placement: 'main',
  });

const linkProposal = (view: View, link: NewLink) => ({ edit: editOfLink(view, link), link });

function planWithin({ view, likeness, suits, sources, wanted, amount = view.count, ...limits }: Task): Proposals {
  const { graph, pages, depths } = walkOf(view);
  const plan = planLinks(
    { graph, pages, depth: depths.depth, likeness: suits },
    { within: amount, wanted },
    { ...limits, sources },
  );
  return {
    ...plan,
    short: plan.tooDeep,
    proposals: plan.links.map((link) => ({
      ...linkProposal(view, link),
      gain: { code: 'plan_brings', pages: link.gain, words: likeness(link.source, link.target) },
    })),
  };
}

/** Pages that may be indexed and that a visitor comes to; a link from others helps nobody. */
function reachedSources({ view, sources }: Task): Uint8Array {
  const depth = view.column('depth');
  return sources.map((one, page) => Number(one === 1 && depth[page] >= 0));
}

/** Each link gives one page one more, so that what is missing is the fewest links there can be. */
function planTextLinks(task: Task): Proposals {
  const { view, wanted, amount = 1, budget, likeness, suits } = task;
  const [linking, share] = [view.column('pages_linking_text'), view.column('share')];
  const short: number[] = [];
  wanted.forEach((is, page) => is && linking[page] < amount && short.push(page));
  const fewest = short.reduce((sum, page) => sum + amount - linking[page], 0);
  const finder = sourceFinder(
    walkOf(view).pages,
    { ...task, sources: reachedSources(task) },
    { suits, strength: (page) => share[page], links: fewest },
  );
  const proposals: Proposal[] = [];
  const missed = new Set<number>();
  // Pages without any such link get their first one before others get their second.
  for (let count = 0; count < amount; count++)
    for (const target of short) {
      if (linking[target] > count || missed.has(target)) continue;
      const source = proposals.length < budget ? finder.best(target) : -1;
      if (source < 0) {
        missed.add(target);
        continue;
      }
      const link = { source, target };
      finder.take(link);
      const gain: Message = { code: 'plan_text', nth: count + 1, of: amount, words: likeness(source, target) };
      proposals.push({ ...linkProposal(view, link), gain });
    }
  return { proposals, short: short.length, missed: missed.size, fewest: missed.size ? 0 : fewest };
}

/** How often a plan for share is worked out again, with what its links really give. */
const SHARE_ROUNDS = 6;

/**
 * What one more link gives is estimated from the share of its source and how many pages that links to, the strongest
 * first; then share is worked out with the links, and what is missing is planned for again.
 */
function planShare(task: Task, settings: CrawlSettings): Proposals {
  const { view, wanted, amount = 1, budget, likeness } = task;
  const [share, linked] = [view.column('share'), view.column('pages_linked')];
  const gives = (page: number) => (DAMPING * Math.max(0, share[page])) / (Math.max(0, linked[page]) + 1);
  const short: number[] = [];
  wanted.forEach((is, page) => is && share[page] < amount && short.push(page));
  const finder = sourceFinder(
    walkOf(view).pages,
    { ...task, sources: reachedSources(task) },
    {
      suits: (source, target) => gives(source) * (0.5 + likeness(source, target)),
      strength: gives,
      links: short.length,
    },
  );
  const links: NewLink[] = [];
  let now: ArrayLike<number> = share;
  let open = short;
  for (let round = 0; round < SHARE_ROUNDS && open.length > 0 && links.length < budget; round++) {
    const before = links.length;
    for (const target of open) {
      // What nothing links to gets its even part with the first link.
      let missing = amount - (now[target] < 0 ? 1 - DAMPING : now[target]);
      while (missing > 0 && links.length < budget) {
        const source = finder.best(target);
        if (source < 0) break;
        const link = { source, target };
        finder.take(link);
        links.push(link);
        missing -= gives(source);
      }
    }
    if (links.length === before) break;
    const edits = links.map((link) => editOfLink(view, link));
    now = draftOf(view, edits, settings).view.column('share');
    open = short.filter((page) => now[page] < amount);
  }
  return {
    proposals: links.map((link) => ({
      ...linkProposal(view, link),
      gain: {
        code: 'plan_share',
        gives: gives(link.source),
        from: Math.max(0, share[link.target]),
        to: now[link.target],
        words: likeness(link.source, link.target),
      },
    })),
    short: short.length,
    missed: open.length,
    fewest: 0,
  };
}

function planFewer({ view, isFree, wanted, amount = 100, budget }: Task): Proposals {
  const [verdict, depth, links] = [view.column('verdict'), view.column('depth'), view.links];
  const keys = view.keys ? view.column('key') : null;
  /** The pages that the content of another one links to. */
  const isLinked = new Uint8Array(view.count);
  for (let page = 0; page < view.count; page++)
    for (let link = links.offsets[page]; depth[page] >= 0 && link < links.offsets[page + 1]; link++)
      if (links.kind[link] === CLICK_KIND && isContentPlacement[links.placement[link]] && links.target[link] !== page)
        isLinked[links.target[link]] = 1;
  /** What nobody may find through search is worth least; what is linked from nowhere else must stay. */
  const worth = ({ target }: SharedLink): number | null => {
    if (target >= view.count || verdict[target] !== INDEXABLE) return 0;
    const isKept = view.starts.includes(target) || keys?.[target] === 1 || !isFree(target);
    return isKept || !isLinked[target] ? null : 1;
  };
  const plan = planFewerLinks(
    view,
    { most: amount, wanted, linksOut: view.column('links_out') as Int32Array, budget },
    worth,
  );
  const addressOf = (target: number) =>
    target < view.count ? addressAt(view, target) : view.outside[target - view.count];
  return {
    ...plan,
    fewest: 0,
    // Every page that has the link is meant.
    proposals: plan.removals.map(({ target, placement, crowded }) => ({
      link: null,
      edit: editOf('remove_link', '*', { target: addressOf(target), placement: placements[placement] }),
      gain: { code: 'plan_fewer', pages: crowded },
    })),
  };
}

/** Plans edits that bring pages to a goal, with the fewest edits that are found. */
export function planFor(view: View, call: PlanCall, settings: CrawlSettings): Proposals {
  const task = taskOf(view, call);
  switch (call.goal) {
    case 'within':
      return planWithin(task);
    case 'text':
      return planTextLinks(task);
    case 'share':
      return planShare(task, settings);
    case 'links':
      return planFewer(task);
  }
}
