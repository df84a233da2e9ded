/** The words of Edge Map's own, as tooltips and the page of words explain them. */
export const terms = {
  share: {
    word: 'Share',
    text: 'A page’s part of the internal links of the site, worked out like PageRank. 1× is what every page would have if all had the same; 3× is three times as much. Search engines take pages with more internal links for more important.',
  },
  verdict: {
    word: 'Verdict',
    text: 'The one answer to “may this page be indexed, and if not, why”: the first obstacle on its way into an index.',
  },
  depth: {
    word: 'Depth',
    text: 'How many clicks a page is from the start page, by the shortest route. Redirects cost no click.',
  },
  no_route: {
    word: 'No route',
    text: 'No series of links leads from the start page to it. It is an orphan, to which no page links, or part of an island. Visitors cannot find it by browsing, and search engines give it little weight.',
  },
  running_text: {
    word: 'Running text',
    text: 'Links from a sentence in the main content: not from menus, lists, cards or tables, nor from what many pages repeat. Other programs may count fewer orphans, as they take any link for one, or more, as they know only the pages that links lead to.',
  },
  island: {
    word: 'Island',
    text: 'A group of pages that link to each other and that no reachable page links to. One link from outside brings back the whole group.',
  },
  gate: {
    word: 'Gate',
    text: 'A page that is the only way to others: if it goes, they lose every route from the start page. A second route makes the site less fragile.',
  },
  leak: {
    word: 'Leak',
    text: 'Share that ends where nothing can be indexed: at broken, redirected, closed or noindexed addresses, or withheld by nofollow. It is lost to the pages that should rank.',
  },
  one_edit: {
    word: 'Edits',
    text: 'How many changes fix all places of a finding: the same link in a template or block counts once, however many pages show it.',
  },
  cost: {
    word: 'Cost',
    text: 'What puts findings in their order: how much the fault matters, times the part of the pages and of the share that it touches.',
  },
  trap: {
    word: 'Trap',
    text: 'A family of addresses that grows without end, such as a calendar. Search engines spend their visits on it instead of on your pages.',
  },
  read_as: {
    word: 'Read as',
    text: 'Whose eyes the site is read with: a visitor follows any link, a search crawler obeys nofollow and robots.txt. Every number is worked out for the reader that is chosen.',
  },
  seen_in: {
    word: 'Seen in',
    text: 'The sources that know an address: the start, links, sitemaps, lists, redirects, canonicals, hreflang. A source that knows what no link reaches shows a gap.',
  },
  worth_a_look: {
    word: 'Worth a look',
    text: 'A finding that only a person can judge, because the same thing may be a fault on one site and right on another. It comes after the faults.',
  },
  selection: {
    word: 'Selection',
    text: 'Which pages or links are meant, written as text that you can read, edit, save and send.',
  },
  dossier: {
    word: 'Dossier',
    text: 'Everything that is known of one page, at the right of a screen or as a page of its own.',
  },
} as const;

export type TermName = keyof typeof terms;
