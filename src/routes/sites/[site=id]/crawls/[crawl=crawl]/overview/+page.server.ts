import {
  depthBars,
  keyPagesAnswer,
  notCrawled,
  originCounts,
  overviewAnswer,
  sectionCounts,
  sourceCounts,
  unlinkedCounts,
  verdictMakeUp,
} from '$core/answers';
import { findings } from '$core/findings';
import { settingsSchema } from '$core/settings';
import {
  checkBounds,
  closedWarning,
  crawlSettings,
  crawlsOf,
  dateNotes,
  filesOf,
  selectPages,
  trapsOf,
} from '$server/index';
import { crawlWithSnapshot, hasEnded, keyFirst, localsOf, reportFor } from '../../../../../crawl';
import type { PageServerLoad } from './$types';

const MOST_SECTIONS = 14;
const MOST_CRAWLS = 12;

export const load: PageServerLoad = async (event) => {
  const locals = localsOf(event);
  const { db, crawl, snapshot } = await crawlWithSnapshot(locals, 'facts');
  const sections = sectionCounts(snapshot);
  const { thresholds } = settingsSchema.parse(await crawlSettings(db, crawl.id));
  const [opened, crawls, bounds, notes, files, traps, warning] = await Promise.all([
    reportFor(locals),
    crawlsOf(db, crawl.siteId, MOST_CRAWLS),
    checkBounds(db, crawl),
    dateNotes(db, crawl.siteId),
    filesOf(db, crawl.id),
    trapsOf(db, crawl.id),
    closedWarning(db, crawl),
  ]);
  const report = opened!;
  const ended = crawls.filter(hasEnded).reverse();
  return {
    answer: overviewAnswer(snapshot),
    unlinked: unlinkedCounts(snapshot),
    keyPages: keyPagesAnswer(snapshot, thresholds),
    bars: depthBars(snapshot, selectPages(snapshot, '').pages),
    verdicts: verdictMakeUp(snapshot),
    sources: sourceCounts(snapshot),
    sections: sections.slice(0, MOST_SECTIONS),
    moreSections: Math.max(0, sections.length - MOST_SECTIONS),
    origins: originCounts(snapshot),
    left: notCrawled(snapshot),
    findings: await keyFirst(locals, snapshot, report.findings),
    ignored: report.ignored,
    faults: report.findings.flatMap(({ name, files }) => files.map((file) => ({ name, ...file }))),
    trend: ended.flatMap(({ id, endedAt, counts }) => (counts ? [{ id, at: endedAt, ...counts }] : [])),
    bounds,
    notes,
    /** What can be watched: all findings, for those that nobody has are what a bound keeps so. */
    watchable: findings.map(({ id, name }) => ({ id, name })).sort((a, b) => (a.name < b.name ? -1 : 1)),
    files,
    traps,
    warning,
  };
};
