/** The texts of Change. */
import type { FlowCategory } from '$core/answers';
import type { Incomparable, PairedBy } from '$core/compare';
import type { ComparedFact, PageClass } from '$core/facts';
import { pageFacts } from '$core/facts';
import { counted, number } from '../shell/words';

const classes: Record<PageClass, string> = {
  added: 'New',
  removed: 'No longer known',
  gone: 'Gone',
  returned: 'Returned',
  moved: 'Moved',
  changed: 'Changed',
  same: 'As it was',
};
const categories: Record<FlowCategory, string> = {
  verdict: 'verdict',
  reach: 'reach',
  depth: 'depth',
  section: 'section',
  finding: 'a finding',
};
const against: Record<Incomparable, string> = {
  known: 'which pages are known differs: new and removed pages may come of it',
  verdict: 'answers and verdicts may differ because of it',
  links: 'other links may count because of it',
  share: 'share is not comparable',
  section: 'sections are not comparable',
  findings: 'findings have other bounds',
};
const pairings: Record<PairedBy, string> = { canonical: 'canonical', redirect: 'redirect' };
const was = (value: unknown) =>
  value === null || value === '' || (Array.isArray(value) && value.length === 0)
    ? 'none'
    : Array.isArray(value)
      ? counted(value.length, 'entry', 'entries')
      : typeof value === 'number'
        ? number(value)
        : typeof value === 'object'
          ? JSON.stringify(value)
          : String(value);

export const texts = {
  pageTitle: (host: string) => `Change: ${host}`,
  picture: 'Picture',
  unfetched: 'What changed on pages that only one of the crawls has fetched is not known:',
  unfetchedNow: (n: number) => `${number(n)} were fetched then only`,
  unfetchedThen: (n: number) => `${number(n)} now only`,
  arrived: (n: number) =>
    `${counted(n, 'of the new pages is', 'of the new pages are')} where pages that have moved lead now.`,
  pairByRedirect: 'Compare them with what they were',
  since: 'Compared with',
  thePreviousCrawl: 'the previous crawl',
  crawlOf: (id: number, at: string, known: string) => `${id} · ${at} · ${known} URLs`,
  otherSite: (name: string) => `Crawls of ${name}`,
  thisSite: 'Crawls of this site',
  nothingBefore: 'There is no earlier crawl to compare this one with.',
  nothingBeforeThen:
    'Crawl the site again, and this screen tells what is new, what is gone, what has moved, and which fixes held.',
  openTimeline: 'Timeline, notes and coming crawls',
  anotherSite: 'A crawl of another site can be chosen too, for a relaunch or a staging host:',
  compare: 'Compare',
  pairing: 'Pair pages',
  pairingOf: 'How pages are paired',
  mapLabel: 'Hosts and folders that count as others',
  mapHint: 'As in staging.example.org=www.example.org, or www.example.org/news/=www.example.org/press/. One per line.',
  pairBy: 'Pair what has no counterpart by',
  pairName: (by: PairedBy) => pairings[by],
  apply: 'Compare',
  mapFault: (rule: string) => `“${rule}” maps nothing. Write host=host, or host/folder/=host/folder/.`,
  settingsDiffer: (n: number) => counted(n, 'setting differs', 'settings differ'),
  settingChanged: (label: string, before: unknown, after: unknown) => `${label}: ${was(before)} → ${was(after)}`,
  against: (of: Incomparable | null) => (of === null ? 'makes no difference here' : against[of]),
  olderStopped: (limit: string, added: string) =>
    `The earlier crawl stopped at ${limit}. ${added} may only not have been seen then.`,
  newerStopped: (limit: string, removed: string) =>
    `This crawl stopped at ${limit}. ${removed} may only not have been seen.`,
  pagesLimit: (limit: number) => counted(limit, 'page'),
  newPages: (n: number) => counted(n, 'new page'),
  removedPages: (n: number) => `${counted(n, 'page')} that ${n === 1 ? 'is' : 'are'} no longer known`,
  by: 'by',
  category: (of: FlowCategory) => categories[of],
  thenAndNow: 'From then (left) to now (right)',
  onlyMoved: 'Only what moved',
  noRoute: 'no route',
  clicks: (n: string) => (n === '1' ? '1 click' : `${n} clicks`),
  otherSections: 'other sections',
  came: 'new',
  went: 'no longer known',
  with: 'with the finding',
  without: 'without it',
  stream: (from: string, to: string) => `${from} → ${to}`,
  streamPages: (from: string, to: string, pages: number) => `${from} to ${to}: ${counted(pages, 'page')}`,
  stayed: 'Nothing went from one to another.',
  noFindings: 'Neither crawl has a finding about pages.',
  whichFinding: 'Which finding',
  className: (of: PageClass) => classes[of],
  whatBecame: 'What became of pages',
  whatDiffers: 'What differs',
  nothingDiffers: 'No fact differs.',
  factName: (fact: ComparedFact) => (fact === 'content' ? 'Content' : pageFacts[fact].label),
  linksOf: (added: number, removed: number, edits: number) =>
    `${counted(added, 'link')} came and ${number(removed)} went, by ${counted(edits, 'edit')}. Pages that both crawls have read are compared; the links of new pages are not counted.`,
  noLinkChange: 'No link came or went on the pages that both crawls have read.',
  edit: (change: 'added' | 'removed', placement: string, target: string, pages: number) =>
    `${placement === 'none' || placement === 'main' ? 'A link' : `A ${placement} link`} to ${target} was ${change === 'added' ? 'added to' : 'removed from'} ${counted(pages, 'page')}`,
  anchor: (words: string) => (words ? `“${words}”` : 'without words'),
  finding: 'Finding',
  new: 'New',
  solved: 'Solved',
  remaining: 'Still there',
  gone: 'Gone with the page',
  goneMeans: 'The page no longer answers: the finding is not solved, it is no longer there to be seen.',
  noFindingChanges: 'No finding in either crawl.',
  showPages: 'Show the pages',
};
