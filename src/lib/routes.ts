/** Where the screens of a crawl are. */
export const crawlPath = (site: number, crawl: number) => `/sites/${site}/crawls/${crawl}`;

/** The questions that are built, in the order of their keys. */
export const questions = [
  { path: 'overview', name: 'Overview', question: 'The site at a glance' },
  { path: 'reach', name: 'Reach', question: 'Can all be reached?' },
] as const;
