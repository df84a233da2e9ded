import {
  depthBars,
  notCrawled,
  originCounts,
  overviewAnswer,
  sectionCounts,
  sourceCounts,
  verdictMakeUp,
} from '$core/answers';
import { closedWarning, crawlsOf, filesOf, openReport, selectPages, storedReport, trapsOf } from '$server/index';
import { crawlWithSnapshot } from '../../../../../crawl';
import type { PageServerLoad } from './$types';

const MOST_SECTIONS = 14;
const MOST_FINDINGS = 10;
const MOST_CRAWLS = 12;

export const load: PageServerLoad = async ({ params }) => {
  const { db, row, snapshot } = await crawlWithSnapshot(params, 'facts');
  const sections = sectionCounts(snapshot);
  const report = (await openReport(db, row))!;
  const crawls = (await crawlsOf(db, row.siteId, MOST_CRAWLS)).filter(
    ({ state }) => state === 'done' || state === 'stopped',
  );
  const counted = await Promise.all(
    crawls
      .reverse()
      .map(async (crawl) => ({ id: crawl.id, at: crawl.endedAt, counts: (await storedReport(db, crawl))?.counts })),
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
    files: await filesOf(db, row.id),
    traps: await trapsOf(db, row.id),
    warning: await closedWarning(db, row),
  };
};
