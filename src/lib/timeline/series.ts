/** What a timeline can show: a number of each crawl, or its pages by verdict. */
import type { Verdict } from '$core/facts';
import { verdicts } from '$core/facts';
import type { ReportCounts } from '$core/report';
import type { TrendNumber } from '$core/trend';

/** A crawl on a timeline. */
export interface TimelineCrawl {
  id: number;
  at: Date | null;
  counts: ReportCounts | null;
  pinned: boolean;
}

/** A bar of a timeline, from below: a length for each part; null where the number is not known. */
export interface TimelineBar {
  id: number;
  at: Date | null;
  parts: { verdict: Verdict | null; value: number }[] | null;
}

/** The value of one number of a crawl; null when it is not known. */
export function numberOf({ counts }: TimelineCrawl, name: TrendNumber): number | null {
  if (!counts) return null;
  if (name === 'known' || name === 'indexable' || name === 'noRoute' || name === 'findings') return counts[name];
  return counts.trend?.[name] ?? null;
}

/** Bars of pages by verdict: those that may be indexed lie at the bottom. */
export const verdictBars = (crawls: readonly TimelineCrawl[]): TimelineBar[] =>
  crawls.map(({ id, at, counts }) => ({
    id,
    at,
    parts: counts?.trend
      ? verdicts.map((verdict, i) => ({ verdict, value: counts.trend!.verdicts[i] })).reverse()
      : null,
  }));

/** Bars of one number a crawl. */
export const numberBars = (
  crawls: readonly TimelineCrawl[],
  valueOf: (crawl: TimelineCrawl) => number | null,
): TimelineBar[] =>
  crawls.map((crawl) => {
    const value = valueOf(crawl);
    return { id: crawl.id, at: crawl.at, parts: value === null ? null : [{ verdict: null, value }] };
  });

/** A day as the browser of the reader tells it, `2026-11-28`. */
export function dayOf(at: Date): string {
  const two = (n: number) => String(n).padStart(2, '0');
  return `${at.getFullYear()}-${two(at.getMonth() + 1)}-${two(at.getDate())}`;
}

/** How many crawls lie before a day: where a note on it stands between them. */
export const placeOfDay = (crawls: readonly { at: Date | null }[], day: string): number =>
  crawls.filter(({ at }) => at !== null && dayOf(at) < day).length;
