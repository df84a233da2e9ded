import { flowAnswer, shareCurve } from '$core/answers';
import { keyFirst, reportFor } from '../../../../../crawl';
import { listScreen } from '../../../../../screen';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async (event) => {
  const { snapshot, list } = await listScreen(event);
  const report = (await reportFor(event.locals))!;
  const curve = shareCurve(snapshot);
  return {
    list,
    answer: flowAnswer(snapshot, report, curve),
    curve,
    leaks: report.leaks,
    flow: report.flow,
    findings: await keyFirst(
      event.locals,
      snapshot,
      report.findings.filter(({ question }) => question === 'Flow'),
    ),
    ignored: report.ignored,
  };
};
