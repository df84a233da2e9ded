/** A draft: a crawl with edits, read like any other view. */
import { analyseWith } from '../analysis';
import type { CrawlSettings } from '../settings';
import { viewOf } from '../view';
import type { View } from '../view';
import { applyEdits } from './apply';
import type { Edit, Refusal } from './edit';
import { layerOf } from './layer';

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
  return { view: viewOf(edited, view.imports), refusals };
}
