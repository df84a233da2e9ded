/** A draft: a crawl with edits, read like any other view. */
import { analyseWith } from '../analysis';
import type { CrawlSettings } from '../settings';
import { viewOf } from '../view';
import type { View } from '../view';
import { applyEdits } from './apply';
import type { Edit, Refusal } from './edit';
import type { DraftEdit } from './history';
import { layerOf } from './layer';
import { crawledSite, outcomeTest } from './live';
import type { Outcome } from './live';

export interface Drafted {
  view: View;
  /** For each edit why it was not applied; null where it was. */
  refusals: Refusal[];
}

/**
 * A view with edits, of which only what they touch is worked out again. Pages keep their numbers; added ones come after
 * them.
 */
export function draftOf(view: View, edits: readonly Edit[], settings: CrawlSettings): Drafted {
  const { changes, refusals } = applyEdits(view, edits, settings);
  const edited = analyseWith(view, layerOf(view, changes), settings);
  // Sources are matched again: they may know pages that are added.
  return { view: viewOf(edited, view.imports, view.keys, view.texts), refusals };
}

export interface EditState {
  /** Whether it counts: it may be switched off, made on the website already, or impossible. */
  state: 'applied' | 'off' | 'live' | 'refused';
  /** Why it is impossible. */
  refusal: Refusal;
  /** What the crawl has found of it; null where the edit is newer. */
  outcome: Outcome | null;
}

/** A crawl that a draft is put on. */
export interface DraftedCrawl {
  view: View;
  settings: CrawlSettings;
  /** When the crawl began. Edits that were made before, and that it has found on the website, are not made again. */
  began: Date;
}

/** What is known of edits before they are applied. */
function statesBefore({ view, settings, began }: DraftedCrawl, edits: readonly DraftEdit[]): EditState[] {
  const outcomeOf = outcomeTest(crawledSite(view), settings);
  return edits.map((edit) => {
    const outcome = edit.at < began ? outcomeOf(edit) : null;
    const state = !edit.on ? 'off' : outcome?.state === 'live' ? 'live' : 'applied';
    return { state, refusal: null, outcome };
  });
}

/** A crawl with the edits of a draft, and what has become of each of them. */
export function draftOfCrawl(crawl: DraftedCrawl, edits: readonly DraftEdit[]): { view: View; states: EditState[] } {
  const states = statesBefore(crawl, edits);
  const counting = edits.filter((_, i) => states[i].state === 'applied');
  if (counting.length === 0) return { view: crawl.view, states };
  const drafted = draftOf(crawl.view, counting, crawl.settings);
  const refusals = new Map(counting.map(({ id }, i) => [id, drafted.refusals[i]]));
  return {
    view: drafted.view,
    states: states.map((one, i) => {
      const refusal = refusals.get(edits[i].id);
      return refusal ? { ...one, state: 'refused', refusal } : one;
    }),
  };
}

/** Why edits could not be added to a draft, each if those before it were; null for one that could. */
export function refusalsOf(crawl: DraftedCrawl, edits: readonly DraftEdit[], more: readonly Edit[]): Refusal[] {
  const states = statesBefore(crawl, edits);
  const counting = edits.filter((_, i) => states[i].state === 'applied');
  return applyEdits(crawl.view, [...counting, ...more], crawl.settings).refusals.slice(counting.length);
}
