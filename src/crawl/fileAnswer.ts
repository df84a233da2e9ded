import type { FileAnswer } from '$core/snapshot';
import { headerOf } from './fetch';
import type { Answer } from './fetch';

/** What is kept of how a file was answered. */
export function fileAnswer(
  address: string,
  redirects: number,
  { status, headers }: Pick<Answer, 'status' | 'headers'>,
): FileAnswer {
  const type = (headerOf(headers, 'content-type') ?? '').split(';', 1)[0].trim().toLowerCase();
  const modified = Date.parse(headerOf(headers, 'last-modified') ?? '');
  const age = headerOf(headers, 'age')?.trim() ?? '';
  return {
    status,
    address,
    redirects,
    type: type.slice(0, 100),
    modified: Number.isNaN(modified) ? null : new Date(modified).toISOString(),
    age: /^\d{1,9}$/.test(age) ? Number(age) : null,
  };
}
