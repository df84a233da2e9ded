import { error } from '@sveltejs/kit';
import { z } from 'zod';
import { isColumnName } from '$core/facts';
import type { ColumnName } from '$core/facts';
import { listedOf, listNames } from '$core/lists';
import type { PartGroup } from '$core/snapshot';
import { listOf } from '$server/index';
import type { ListView } from '$server/index';
import type { Snapshot } from '$core/snapshot';
import { needOf } from './crawl';
import { answers } from './texts';

const view = z.object({
  list: z.enum(listNames, answers.noSuchList).default('pages'),
  select: z.string().default(''),
  sort: z.string().default(''),
  by: z.custom<ColumnName>((name) => isColumnName(String(name)), answers.noSuchFact).default('section'),
  columns: z
    .string()
    .default('url')
    .transform((names) => names.split(',').filter(Boolean)),
});

/** The list that the query of a request asks for: `?list=…&select=…&sort=column[:desc]&by=fact&columns=a,b`. */
export function viewOf(query: URLSearchParams): { view: ListView; columns: string[]; need: PartGroup } {
  const asked = view.safeParse(Object.fromEntries(query));
  if (!asked.success) error(400, asked.error.issues[0].message);
  const { columns, ...rest } = asked.data;
  return { view: rest, columns, need: listedOf(rest.list) === 'links' ? 'links' : needOf(rest.select) };
}

/** The list that a view asks for; a selection that cannot be read, or takes too much work, answers 400. */
export function readableList(snapshot: Snapshot, view: ListView) {
  const { list, fault } = listOf(snapshot, view);
  if (fault) error(400, `The selection cannot be answered: ${fault.message}`);
  return list;
}
