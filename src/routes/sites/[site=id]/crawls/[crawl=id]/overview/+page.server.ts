import { depthBars, overviewAnswer, sectionCounts, sourceCounts, verdictMakeUp } from '$core/answers';
import { closedWarning, filesOf, selectPages, trapsOf } from '$server/index';
import { crawlWithSnapshot } from '../../../../../crawl';
import type { PageServerLoad } from './$types';

const MOST_SECTIONS = 14;

export const load: PageServerLoad = async ({ params }) => {
  const { db, row, snapshot } = await crawlWithSnapshot(params, 'facts');
  const sections = sectionCounts(snapshot);
  return {
    answer: overviewAnswer(snapshot),
    bars: depthBars(snapshot, selectPages(snapshot, '').pages),
    verdicts: verdictMakeUp(snapshot),
    sources: sourceCounts(snapshot),
    sections: sections.slice(0, MOST_SECTIONS),
    moreSections: Math.max(0, sections.length - MOST_SECTIONS),
    files: await filesOf(db, row.id),
    traps: await trapsOf(db, row.id),
    warning: await closedWarning(db, row),
  };
};
