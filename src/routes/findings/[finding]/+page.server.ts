import { error } from '@sveltejs/kit';
import { findings, guidance } from '$core/findings';
import { settingsSchema } from '$core/settings';
import type { PageServerLoad } from './$types';
import { errorTexts } from '../../texts';

const { thresholds } = settingsSchema.parse({ start: 'https://www.example.org/' });

/** What the catalogue says of one finding, and its neighbours there. */
export const load: PageServerLoad = ({ params }) => {
  const at = findings.findIndex(({ id }) => id === params.finding);
  if (at < 0) error(404, errorTexts.noSuchFinding);
  const finding = findings[at];
  const { id, name, question, over, rule, why, remedy, worthALook } = finding;
  return {
    ...{ id, name, question, over, rule, why, remedy, worthALook: worthALook ?? false },
    ...guidance[id],
    related: findings.filter((one) => finding.related?.includes(one.id)).map(({ id, name }) => ({ id, name })),
    select: finding.over === 'files' ? null : finding.select(thresholds),
    all: findings.map(({ id, name, question }) => ({ id, name, question })),
  };
};
