/** The texts of Flow. */
export const texts = {
  pageTitle: (host: string) => `Flow · ${host} · Edge Map`,
  picture: 'Picture',
  indexablePagesOrderedByTheirShare: 'Indexable pages, ordered by their share',
  thereIsNothingToDrawShare: 'There is nothing to draw: share is about links between pages that may be indexed.',
};
