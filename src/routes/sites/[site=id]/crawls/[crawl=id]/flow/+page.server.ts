import { flowAnswer, shareCurve } from '$core/answers';
import { openSiteReport } from '$server/index';
import { listScreen } from '../../../../../screen';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async (event) => {
  const { db, crawl, snapshot, list } = await listScreen(event);
  const report = (await openSiteReport(db, crawl))!;
  const curve = shareCurve(snapshot);
  return {
    list,
    answer: flowAnswer(snapshot, report, curve),
    curve,
    leaks: report.leaks,
    flow: report.flow,
    findings: report.findings.filter(({ question }) => question === 'Flow'),
    ignored: report.ignored,
  };
};
