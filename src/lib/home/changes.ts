/** What differs between two crawls of a site, in a few words. */
import type { ReportCounts } from '$core/report';
import { number } from '../shell/words';

const counted: { name: Exclude<keyof ReportCounts, 'trend'>; one: string; many: string }[] = [
  { name: 'known', one: 'URL', many: 'URLs' },
  { name: 'indexable', one: 'indexable', many: 'indexable' },
  { name: 'noRoute', one: 'without a route', many: 'without a route' },
  { name: 'findings', one: 'finding', many: 'findings' },
];

/** `+12 URLs, −1 finding`; “no change” when all counts are equal; null when one of the crawls has none. */
export function changesBetween(now: ReportCounts | null, before: ReportCounts | null): string | null {
  if (!now || !before) return null;
  const changes = counted.flatMap(({ name, one, many }) => {
    const change = now[name] - before[name];
    if (change === 0) return [];
    return [`${change > 0 ? '+' : '−'}${number(Math.abs(change))} ${Math.abs(change) === 1 ? one : many}`];
  });
  return changes.length ? changes.join(', ') : 'no change';
}
