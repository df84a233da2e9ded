import { error } from '@sveltejs/kit';
import type { z } from 'zod';

/** The JSON body of a request; what does not fit the schema answers 400 and says why. */
export async function bodyOf<T>(request: Request, schema: z.ZodType<T>): Promise<T> {
  const asked = schema.safeParse(await request.json().catch(() => null));
  if (!asked.success) error(400, asked.error.issues[0].message);
  return asked.data;
}
