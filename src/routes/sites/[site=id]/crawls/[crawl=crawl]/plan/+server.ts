import { error, json } from '@sveltejs/kit';
import { z } from 'zod';
import { editText } from '$core/draft';
import { editOfLink, planFor } from '$core/plan';
import { selectPages } from '$server/index';
import { crawlWithSnapshot, draftOver } from '../../../../../crawl';
import type { RequestHandler } from './$types';

const whole = z.coerce.number().int().min(1).max(1_000_000);
const query = z.object({
  /** Clicks from the start; without it a route is all that is asked for. */
  within: whole.optional(),
  /** New links that one page may get, and all together. */
  links: whole.optional(),
  budget: whole.optional(),
  /** Whether pages may link only within their section. */
  sections: z.stringbool().default(false),
  select: z.string().default('indexable'),
});

/** A plan over the current draft: `?within=3&links=5&budget=20&sections=true&select=indexable`. */
export const GET: RequestHandler = async ({ locals, url }) => {
  const asked = query.safeParse(Object.fromEntries(url.searchParams));
  if (!asked.success) error(400, asked.error.issues[0].message);
  const { within, links, budget, sections, select } = asked.data;
  const view = (await draftOver(locals))?.view ?? (await crawlWithSnapshot(locals, 'links')).snapshot;
  const { pages, fault } = selectPages(view, select);
  if (fault) error(400, `The selection cannot be answered: ${fault.message}`);
  const plan = planFor(view, { within, wanted: pages, newLinks: links, budget, withinSections: sections });
  return json({
    tooDeep: plan.tooDeep,
    missed: plan.missed,
    fewest: plan.fewest,
    proposals: plan.links.map((link) => {
      const edit = editOfLink(view, link);
      return { edit, text: editText(edit), gain: link.gain };
    }),
  });
};
