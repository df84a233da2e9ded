/** Numbers of rows, as addresses and bodies of requests name them. */
import { error } from '@sveltejs/kit';
import { z } from 'zod';

export const anId = z.number().int().min(1).max(999_999_999_999_999);
/** The body of a request about one row: `{id}`. */
export const byId = z.object({ id: anId });

/** The number that a query names; what is none answers 404, as a number that nothing has. */
export function idIn(query: URLSearchParams, name: string, missing: string): number {
  const asked = anId.safeParse(Number(query.get(name)));
  return asked.success ? asked.data : error(404, missing);
}
