/** The numbers of a timeline that are one number a crawl. */
export const trendNumbers = [
  ...(['known', 'indexable', 'noRoute', 'findings'] as const),
  ...(['orphans', 'brokenLinks', 'medianDepth', 'topTen'] as const),
] as const;
export type TrendNumber = (typeof trendNumbers)[number];
