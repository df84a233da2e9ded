/** The tour: what a new user is shown in two minutes, on the screens of any crawl. */
export interface TourStep {
  /** The screen it is about, with the state that it shows. */
  path: string;
  query?: string;
  /** Selector of the part of the screen that it is about; the first that is there. */
  about: string;
  title: string;
  text: string;
}

export const tourSteps: readonly TourStep[] = [
  {
    path: 'overview',
    about: '[data-tour=answer]',
    title: 'Every screen begins with its answer',
    text: 'One or two sentences with the numbers that matter. Click a number to see the pages that it counts.',
  },
  {
    path: 'overview',
    about: '#findings',
    title: 'The most costly problems come first',
    text: 'Cost grows with the pages and the link share that a problem touches. “Edits” says how many changes fix all of it: a link in a template counts once, however many pages show it.',
  },
  {
    path: 'reach',
    about: '[aria-label=Picture]',
    title: 'Pictures select pages',
    text: 'Each bar holds the pages that are so many clicks from the start page. Click a bar: the list below then holds its pages. The last bar holds what no link reaches.',
  },
  {
    path: 'reach',
    query: 'picture=no-route&select=not+reached',
    about: '[aria-label=Selection]',
    title: 'A selection is text that you can read and edit',
    text: 'Whatever you click writes it. Type to change it, with completion: “indexable and depth > 3”, “orphan and seen in sitemap”. Save it under a name, export it, or send the address of this screen to a colleague.',
  },
  {
    path: 'reach',
    query: 'page=START',
    about: '[data-tour=dossier]',
    title: 'The dossier tells everything about one page',
    text: 'Its route from the start page, why it may or may not be indexed, which links lead to it and with which words, and the line of source to change. Open it by clicking any row.',
  },
  {
    path: 'flow',
    about: '[aria-label=Picture]',
    title: 'Share is a page’s part of the internal links',
    text: 'It is worked out like PageRank, within the site: 1× is the average page, 3× gets three times as much. Leaks show how much of it ends at broken, redirected or closed pages.',
  },
  {
    path: 'reach',
    about: '[aria-label="Read as"]',
    title: 'Visitors and search crawlers see different sites',
    text: 'A visitor follows any link. A search crawler obeys robots.txt and nofollow. Switch here, or press r, and every number is worked out for the other reader.',
  },
  {
    path: 'overview',
    about: '[data-tour=finder]',
    title: 'Everything is a few keys away',
    text: 'Press / to find a page, a finding, a screen or an action, and ? for the list of keys. The tour is among the actions.',
  },
];
