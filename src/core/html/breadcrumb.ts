/** The breadcrumb trail of a page: where it says it belongs. */

export interface Crumb {
  name: string;
  /** Address in normal form; null for a step that leads nowhere. */
  address: string | null;
}

type Json = Record<string, unknown>;
const isObject = (value: unknown): value is Json => typeof value === 'object' && value !== null;
const textOf = (value: unknown) => (typeof value === 'string' ? value : '');
/** A position is a number or a text; conversion of anything else may fail. */
const positionOf = ({ position }: Json) =>
  (typeof position === 'number' || typeof position === 'string' ? Number(position) : 0) || 0;

/** Steps beyond so many are left out. */
export const MAX_CRUMBS = 30;

/** Lists nested deeper than this are not looked into. */
const MAX_NESTING = 6;

function findList(value: unknown, nesting = 0): Json | null {
  if (nesting > MAX_NESTING || !isObject(value)) return null;
  if (Array.isArray(value)) {
    for (const item of value) {
      const found = findList(item, nesting + 1);
      if (found) return found;
    }
    return null;
  }
  if ([value['@type']].flat().includes('BreadcrumbList')) return value;
  return findList(value['@graph'], nesting + 1) ?? findList(value.breadcrumb, nesting + 1);
}

/**
 * Reads a schema.org BreadcrumbList from a JSON-LD script.
 * @param resolve turns what stands in the script into an address
 * @returns null when there is none, or the script is no JSON
 */
export function breadcrumbOfJson(script: string, resolve: (href: string) => string | null): Crumb[] | null {
  let parsed: unknown;
  try {
    parsed = JSON.parse(script);
  } catch {
    return null;
  }
  const list = findList(parsed);
  if (!list) return null;
  const steps = [list.itemListElement].flat().filter(isObject);
  return steps
    .sort((a, b) => positionOf(a) - positionOf(b))
    .slice(0, MAX_CRUMBS)
    .map((step) => {
      const item = isObject(step.item) ? step.item : null;
      const href = item ? textOf(item['@id']) || textOf(item.url) : textOf(step.item);
      return { name: textOf(step.name) || textOf(item?.name), address: href ? resolve(href) : null };
    });
}
