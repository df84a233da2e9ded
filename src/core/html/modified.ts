/** When a page says that it was changed last, in structured data (schema.org `dateModified`). */
import { readW3cDate } from '../sitemap';

type Json = Record<string, unknown>;
const isObject = (value: unknown): value is Json => typeof value === 'object' && value !== null;

/** A date that a sitemap could give; null when it is none. */
export function modifiedText(value: unknown): string | null {
  const text = typeof value === 'string' ? value.trim() : '';
  return text.length <= 40 && readW3cDate(text) !== null ? text : null;
}

/** Of the thing itself, of what it is about, or of the first thing in a list or graph: not of what it only mentions. */
function findModified(value: unknown, nesting: number): string | null {
  if (nesting === 0 || !isObject(value)) return null;
  const parts = Array.isArray(value) ? (value as unknown[]) : [value['@graph'], value.mainEntity];
  const own = Array.isArray(value) ? null : modifiedText(value.dateModified);
  if (own) return own;
  for (const part of parts) {
    const found = findModified(part, nesting - 1);
    if (found) return found;
  }
  return null;
}

/** Nested further, a date is hardly that of the page. */
const MAX_NESTING = 4;

/**
 * Reads `dateModified` from a JSON-LD script.
 * @returns a W3C date; null when there is none, or the script is no JSON
 */
export function modifiedOfJson(script: string): string | null {
  if (!script.includes('dateModified')) return null;
  try {
    return findModified(JSON.parse(script), MAX_NESTING);
  } catch {
    return null;
  }
}
