import { error, json } from '@sveltejs/kit';
import { z } from 'zod';
import { findings } from '$core/findings';
import { parseLinkSelection, parseSelection } from '$core/selection';
import { appDatabase, ignoreFinding, reportAgain } from '$server/index';
import { bodyOf } from '../../../body';
import { siteOf } from '../../../crawl';
import { byId } from '../../../ids';
import type { RequestHandler } from './$types';
import { errorTexts } from '../../../texts';

const ignored = z.object({
  finding: z.string(),
  within: z.string().trim().max(10_000).default(''),
  reason: z.string().trim().min(1, 'A reason is needed.').max(500, 'A reason has up to 500 characters.'),
});

/** Ignores a finding of the site, everywhere or within a selection. */
export const POST: RequestHandler = async ({ locals, request }) => {
  const { id } = siteOf(locals);
  const given = await bodyOf(request, ignored);
  const finding = findings.find((one) => one.id === given.finding);
  if (!finding) error(400, errorTexts.noSuchFinding);
  if (given.within) {
    if (finding.over === 'files') error(400, 'A finding about files is ignored as a whole.');
    const parsed = (finding.over === 'pages' ? parseSelection : parseLinkSelection)(given.within);
    if (!parsed.ok) error(400, `The selection cannot be read: ${parsed.fault.message}`);
  }
  return json({ id: await ignoreFinding(appDatabase(), id, given) });
};

/** Reports an ignored finding again. */
export const DELETE: RequestHandler = async ({ locals, request }) => {
  const { id } = await bodyOf(request, byId);
  await reportAgain(appDatabase(), siteOf(locals).id, id);
  return json({ reported: id });
};
