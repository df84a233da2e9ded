/** The texts of Reach. */
export const texts = {
  pageTitle: (host: string) => `Reach · ${host} · Edge Map`,
  past: 'past',
  clicks: (pages: string) => `clicks: ${pages}`,
  aSearchCrawlerDoesNotReach: 'A search crawler does not reach',
  pagesThatAVisitorReaches: (pages: number) => `${pages === 1 ? 'page' : 'pages'} that a visitor reaches.`,
  picture: 'Picture',
  noRoute: 'No route',
  noRouteInTable: 'no route',
};
