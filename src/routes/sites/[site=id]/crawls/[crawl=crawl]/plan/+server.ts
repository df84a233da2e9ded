import { error, json } from '@sveltejs/kit';
import { z } from 'zod';
import { editText } from '$core/draft';
import { sentence } from '$core/messages';
import { planFor, planGoals } from '$core/plan';
import { appDatabase, planWithPlaces, selectPages } from '$server/index';
import type { View } from '$core/view';
import { crawlOf, draftableCrawl, draftOver } from '../../../../../crawl';
import { errorTexts } from '../../../../../texts';
import type { RequestHandler } from './$types';

/** As many as a draft takes in at once. */
const MOST_PROPOSALS = 5000;

const whole = z.coerce.number().int().min(1).max(1_000_000);
const query = z
  .object({
    goal: z.enum(planGoals).default('within'),
    /** Clicks, links or share; of clicks without it a route is all that is asked for. */
    amount: z.coerce.number().positive().max(1_000_000).optional(),
    /** New links that one page may get, and edits all together. */
    links: whole.optional(),
    budget: whole.default(MOST_PROPOSALS).transform((budget) => Math.min(budget, MOST_PROPOSALS)),
    /** Whether pages may link only within their section, and only where they are alike in words. */
    sections: z.stringbool().default(false),
    alike: z.stringbool().default(false),
    /** Whether only links are planned that have a sentence to stand in. */
    sentences: z.stringbool().default(false),
    select: z.string().default('indexable'),
    /** Pages that are left as they are. */
    without: z.string().default(''),
  })
  .refine(({ goal, amount }) => goal === 'share' || Number.isInteger(amount ?? 1), errorTexts.wholeAmount);

function selected(view: View, select: string) {
  const { pages, fault } = selectPages(view, select);
  return fault ? error(400, `The selection “${select}” cannot be answered: ${fault.message}`) : pages;
}

/** A plan over the current draft: `?goal=within&amount=3&links=5&budget=20&sections=true&select=indexable`. */
export const GET: RequestHandler = async ({ locals, request, url }) => {
  const asked = query.safeParse(Object.fromEntries(url.searchParams));
  if (!asked.success) error(400, asked.error.issues[0].message);
  const { goal, amount, links, budget, sections, alike, sentences, select, without } = asked.data;
  const over = await draftableCrawl(crawlOf(locals));
  if (!over) error(409, errorTexts.crawlNotDraftable);
  const view = (await draftOver(locals))?.view ?? over.view;
  const call = {
    ...{ goal, amount, newLinks: links, budget, withinSections: sections, alike },
    wanted: selected(view, select),
    without: without ? selected(view, without) : null,
  };
  const plan =
    sentences && goal !== 'links'
      ? await planWithPlaces(appDatabase(), crawlOf(locals), view, call, over.settings, request.signal)
      : planFor(view, call, over.settings);
  if (!plan) error(409, errorTexts.textsNotIndexed);
  const { proposals, ...told } = plan;
  return json({
    ...told,
    proposals: proposals.map(({ edit, gain }) => ({ edit, text: editText(edit), gain: sentence(gain) })),
  });
};
