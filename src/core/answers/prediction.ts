/** What a draft predicted, beside what the crawl found that came after its edits were made. */
import { freshPageOf, oldPageOf } from '../compare';
import { comparedFacts, INDEXABLE, reaches } from '../facts';
import type { ComparedFact } from '../facts';
import type { ComparedView, View } from '../view';
import { medianDepth } from './draft';

export const predictedFigures = ['indexable', 'no_route', 'median_depth', 'links'] as const;
export type PredictedFigure = (typeof predictedFigures)[number];

const REACHED = reaches.indexOf('reached');

function figuresOf(view: View): Record<PredictedFigure, number | null> {
  const [verdict, reach] = [view.column('verdict'), view.column('reach')];
  let [indexable, noRoute] = [0, 0];
  for (let page = 0; page < view.count; page++) {
    if (verdict[page] !== INDEXABLE) continue;
    indexable++;
    if (reach[page] !== REACHED) noRoute++;
  }
  const links = view.column('links_out').reduce((sum, own) => sum + Math.max(0, own), 0);
  return { indexable, no_route: noRoute, median_depth: medianDepth(view), links };
}

/** What is told of pages one by one where a prediction was wrong. */
const predictedFacts: readonly ComparedFact[] = ['verdict', 'depth', 'reach', 'links_in'];

export interface Prediction {
  figures: {
    figure: PredictedFigure;
    before: number | null;
    predicted: number | null;
    came: number | null;
  }[];
  /** Pages that both know and of which a fact came otherwise; facts of which none did are left out. */
  otherwise: { fact: ComparedFact; pages: number }[];
}

/**
 * @param before the crawl that the draft was put on
 * @param view the later crawl, beside what the draft predicted of it
 */
export function predictionOf(before: View, { comparison }: ComparedView): Prediction {
  const [was, said, is] = [before, comparison.old, comparison.fresh].map(figuresOf);
  const counts = predictedFacts.map((fact) => ({ fact, pages: 0 }));
  for (let row = 0; row < comparison.rows; row++) {
    if (oldPageOf(comparison, row) < 0 || freshPageOf(comparison, row) < 0) continue;
    for (const count of counts) if (comparison.changed[row] & (1 << comparedFacts.indexOf(count.fact))) count.pages++;
  }
  return {
    figures: predictedFigures.map((figure) => ({
      figure,
      before: was[figure],
      predicted: said[figure],
      came: is[figure],
    })),
    otherwise: counts.filter(({ pages }) => pages > 0),
  };
}
