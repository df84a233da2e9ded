import type { MeantState } from '$core/outline';
import { counted, number, unanswered } from '../shell/words';

export const texts = {
  planTitle: 'Plan a site',
  planHeading: 'Plan a site that does not exist yet',
  planAbout:
    'Its pages become a draft that can be read like a crawl: depth, share, what hangs on one page. When the site is there, or a staging copy of it, its first crawl can be set beside the plan.',
  start: 'Address of its start page',
  startExample: 'https://www.example.org/',
  outline: 'Its structure',
  outlineExample: 'Museum /\n  Visit /visit/\n    Tickets\n    Opening hours\n  Collections /collections/',
  outlineHint:
    'An outline, indented by spaces, tabs, bullets or heading marks, a page a line: its title, its address, or both. A page without an address gets one from its title. Or a table (CSV) with columns url and parent, and title if you like.',
  plan: 'Plan this site',
  planAnyway: 'Plan it without these lines',
  back: 'All sites',
  read: (pages: number, faults: number) =>
    `${counted(pages, 'page')} read${faults ? `; ${counted(faults, 'line')} could not be` : ''}.`,
  line: (n: number) => `Line ${n}:`,
  more: (n: number) => `and ${counted(n, 'line')} more`,
  noneMeant:
    'Paste the structure that the site is meant to have, and see what is missing, elsewhere, deeper, or extra.',
  save: 'Compare with the crawl',
  change: 'Change what was meant',
  saved: 'What was meant is kept for this site.',
  notSaved: unanswered('The structure could not be kept.'),
  states: {
    as_meant: 'as meant',
    deeper: 'deeper than meant',
    elsewhere: 'not linked from its parent',
    no_route: 'no route',
    no_page: 'no page',
    missing: 'missing',
  } satisfies Record<MeantState, string>,
  all: 'all',
  extra: 'extra',
  summary: (asMeant: number, all: number) => `${number(asMeant)} of ${counted(all, 'page')} are as they were meant.`,
  page: 'Page that was meant',
  meantDepth: 'Clicks meant',
  depth: 'Clicks',
  state: 'State',
  foundUnder: (parent: string) => `found under ${parent}`,
  answers: (status: number | null) => (status === null ? '' : `answers ${status}`),
  noExtra: 'Every page that may be indexed was meant.',
  moreExtra: (n: number) => `and ${counted(n, 'page')} more`,
};
