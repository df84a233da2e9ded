/** Where a page is edited in the content system of the site. */

/** How much of a source is searched; a page names its number in its head. */
const MOST_SEARCHED = 100_000;

const places = /\{(url|path|(?:path|source):((?:[^{}]|\{\d+(?:,\d*)?\})*))\}/g;

/** Whether a pattern can be read: null, or what is wrong with it. */
export function editingPatternFault(pattern: string): string | null {
  for (const [, , expression] of pattern.matchAll(places)) {
    if (expression === undefined) continue;
    try {
      new RegExp(expression);
    } catch {
      return `“${expression}” is not a regular expression.`;
    }
  }
  return URL.canParse(pattern.replace(places, '1')) ? null : 'The editing address is not an http or https address.';
}

/**
 * The editing address of a page.
 * @param pattern an address with `{url}`, `{path}`, `{path:expression}` or `{source:expression}`, of which the first
 *   group of the regular expression counts, or all that it matches
 * @param source the page as received, where the pattern asks for it
 * @returns null where something that the pattern asks for is not there
 */
export function editingAddress(pattern: string, address: string, source: string | null): string | null {
  const { pathname, search } = new URL(address);
  let isWhole = pattern !== '';
  const made = pattern.replace(places, (_, what: string, expression?: string) => {
    if (what === 'url') return encodeURIComponent(address);
    if (what === 'path') return encodeURIComponent(pathname + search);
    const text = what.startsWith('path:') ? pathname + search : source?.slice(0, MOST_SEARCHED);
    const found = text === undefined ? null : new RegExp(expression!).exec(text);
    if (!found) isWhole = false;
    return encodeURIComponent(found?.[1] ?? found?.[0] ?? '');
  });
  return isWhole ? made : null;
}

export const asksForSource = (pattern: string): boolean => pattern.includes('{source:');
