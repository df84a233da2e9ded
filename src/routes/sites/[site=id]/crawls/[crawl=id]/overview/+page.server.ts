import {
  depthBars,
  notCrawled,
  originCounts,
  overviewAnswer,
  sectionCounts,
  sourceCounts,
  verdictMakeUp,
} from '$core/answers';
import { closedWarning, crawlsOf, filesOf, openReport, selectPages, trapsOf } from '$server/index';
import { crawlWithSnapshot, hasEnded } from '../../../../../crawl';
import type { PageServerLoad } from './$types';

const MOST_SECTIONS = 14;
const MOST_FINDINGS = 10;
const MOST_CRAWLS = 12;

export const load: PageServerLoad = async ({ locals }) => {
  const { db, crawl, snapshot } = await crawlWithSnapshot(locals, 'facts');
  const sections = sectionCounts(snapshot);
  const report = (await openReport(db, crawl))!;
  const ended = (await crawlsOf(db, crawl.siteId, MOST_CRAWLS)).filter(hasEnded).reverse();
  const counted = await Promise.all(
    ended.map(async (one) => ({ id: one.id, at: one.endedAt, counts: (await openReport(db, one))?.counts })),
  );
  return {
    answer: overviewAnswer(snapshot),
    bars: depthBars(snapshot, selectPages(snapshot, '').pages),
    verdicts: verdictMakeUp(snapshot),
    sources: sourceCounts(snapshot),
    sections: sections.slice(0, MOST_SECTIONS),
    moreSections: Math.max(0, sections.length - MOST_SECTIONS),
    origins: originCounts(snapshot),
    left: notCrawled(snapshot),
    top: report.findings.slice(0, MOST_FINDINGS),
    moreFindings: Math.max(0, report.findings.length - MOST_FINDINGS),
    faults: report.findings.flatMap(({ name, files }) => files.map((file) => ({ name, ...file }))),
    trend: counted.flatMap(({ counts, ...crawl }) => (counts ? [{ ...crawl, ...counts }] : [])),
    files: await filesOf(db, crawl.id),
    traps: await trapsOf(db, crawl.id),
    warning: await closedWarning(db, crawl),
  };
};
