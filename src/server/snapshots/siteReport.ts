/** The report of a crawl as its site wants it: without what the site ignores. */
import { faultOfIgnored, withoutIgnored } from '$core/findings';
import type { Found } from '$core/findings';
import type { View } from '$core/view';
import type { Crawl } from '../crawls';
import type { Database } from '../database';
import { ignoredFindings } from '../sites';
import type { Ignored } from '../sites';
import { openReport, openSnapshot } from './open';
import type { OpenReport } from './open';
import type { Analysed } from './parts';

export interface SiteReport extends OpenReport {
  /** What is left out of its findings, with the name of each, and why one cannot be answered of this crawl, if so. */
  ignored: (Ignored & { name: string; fault: string | null })[];
}

async function viewOf(db: Database, row: Analysed): Promise<View> {
  const view = await openSnapshot(db, row, 'links');
  if (!view) throw new Error(`Crawl ${row.id} has no snapshot.`);
  return view;
}

/** What was left of findings, for the report and the list of what is ignored that it was left of. */
const left = new WeakMap<OpenReport, { key: string; findings: Promise<Found[]> }>();

function findingsLeft(viewOf: () => Promise<View>, report: OpenReport, ignored: readonly Ignored[]): Promise<Found[]> {
  const key = ignored.map(({ id }) => id).join();
  const known = left.get(report);
  if (known?.key === key) return known.findings;
  const findings = withoutIgnored(report.findings, ignored, viewOf);
  left.set(report, { key, findings });
  findings.catch(() => left.delete(report));
  return findings;
}

/** The report of a crawl without what its site ignores; null when the crawl has none, or one of another version. */
export async function openSiteReport(db: Database, row: Analysed & Pick<Crawl, 'siteId'>): Promise<SiteReport | null> {
  const report = await openReport(db, row);
  return report && reportOfSite(db, row.siteId, report, () => viewOf(db, row));
}

/** A report without what a site ignores. @param viewOf what it is about, with its links */
export async function reportOfSite(
  db: Database,
  siteId: number,
  report: OpenReport,
  viewOf: () => Promise<View>,
): Promise<SiteReport> {
  const ignored = await ignoredFindings(db, siteId);
  const names = new Map(report.findings.map(({ id, name }) => [id, name]));
  const view = ignored.some(({ within }) => within.trim() !== '') ? await viewOf() : null;
  return {
    ...report,
    findings: ignored.length ? await findingsLeft(viewOf, report, ignored) : report.findings,
    ignored: ignored.flatMap((one) => {
      const name = names.get(one.finding);
      return name ? [{ ...one, name, fault: view && faultOfIgnored(view, one) }] : [];
    }),
  };
}
