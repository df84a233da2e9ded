import { error } from '@sveltejs/kit';
import { z } from 'zod';
import { pairings, readMapRules } from '$core/compare';
import type { PairedBy } from '$core/compare';
import { isColumnName } from '$core/facts';
import type { ColumnName } from '$core/facts';
import { isListAcross, listedOf, listNames } from '$core/lists';
import { listOf } from '$server/index';
import type { ComparisonCall, ListView } from '$server/index';
import { readTexts } from '$core/view';
import type { View } from '$core/view';
import { crawlWithEarlier, crawlWithSnapshot, needOf } from './crawl';
import { idIn } from './ids';
import { errorTexts } from './texts';

const view = z.object({
  list: z.enum(listNames, errorTexts.noSuchList).default('pages'),
  select: z.string().default(''),
  sort: z.string().default(''),
  by: z.custom<ColumnName>((name) => isColumnName(String(name)), errorTexts.noSuchFact).default('section'),
  columns: z
    .string()
    .default('url')
    .transform((names) => names.split(',').filter(Boolean)),
});

/**
 * The comparison that a query asks for: `&since=CRAWL&map=RULES&pair=canonical,redirect`; of a draft also
 * `&since=draft-ID`.
 */
export function comparisonOf(query: URLSearchParams): ComparisonCall {
  const [, draft] = /^draft-([1-9]\d{0,14})$/.exec(query.get('since') ?? '') ?? [];
  const since = query.get('since') && !draft ? idIn(query, 'since', errorTexts.noSuchCrawl) : null;
  const { rules, fault } = readMapRules(query.get('map') ?? '');
  if (fault !== null) error(400, errorTexts.mapRule(fault));
  const by = (query.get('pair') ?? '')
    .split(',')
    .filter((name): name is PairedBy => pairings.includes(name as PairedBy));
  return { since, draft: draft ? Number(draft) : null, map: rules, by };
}

/** The list that the query of a request asks for: `?list=…&select=…&sort=column[:desc]&by=fact&columns=a,b`. */
export function viewOf(query: URLSearchParams): { view: ListView; columns: string[] } {
  const asked = view.safeParse(Object.fromEntries(query));
  if (!asked.success) error(400, asked.error.issues[0].message);
  const { columns, ...rest } = asked.data;
  return { view: rest, columns };
}

/** The snapshot of the crawl that the address names, with all that a view asks for: links, and an earlier crawl. */
export async function crawlForView(
  locals: App.Locals,
  { list, select }: Pick<ListView, 'list' | 'select'>,
  query: URLSearchParams,
) {
  const { links, earlier, texts } = needOf(select, listedOf(list));
  const need = listedOf(list) === 'links' || links ? 'links' : 'facts';
  const found =
    earlier || isListAcross(list)
      ? await crawlWithEarlier(locals, need, comparisonOf(query))
      : { ...(await crawlWithSnapshot(locals, need)), compared: null };
  if (texts) await readTexts(found.snapshot);
  return found;
}

/** The list that a view asks for; a selection that cannot be read, or takes too much work, answers 400. */
export function readableList(snapshot: View, view: ListView) {
  const { list, fault } = listOf(snapshot, view);
  if (fault) error(400, errorTexts.unreadableSelection(fault.message));
  return list;
}
