/** The texts of Roll call. */
import type { SitemapAdvice } from '$core/answers';
import type { FileAnswer } from '$core/snapshot';
import { counted, duration, number, unanswered } from '../shell/words';

export const texts = {
  pageTitle: (host: string) => `Roll call · ${host} · Edge Map`,
  picture: 'Picture',
  sourceLabel: (name: string) => {
    const [kind, ...rest] = name.split(':');
    return rest.length ? rest.join(':') : kind === 'links' ? 'Links' : 'Sitemaps';
  },
  kinds: { list: 'list', log: 'access log' },
  knowIn: { links: 'linked', sitemap: 'in a sitemap' } as Record<string, string>,
  knowNot: { links: 'not linked', sitemap: 'not in a sitemap' } as Record<string, string>,
  inImport: (kind: string, name: string) => `in the ${kind === 'log' ? 'log' : 'list'} “${name}”`,
  notInImport: (kind: string, name: string) => `not in the ${kind === 'log' ? 'log' : 'list'} “${name}”`,
  combination: (urls: number, parts: readonly string[]) =>
    `${counted(urls, 'address', 'addresses')}: ${parts.join(', ')}`,
  order: 'Order by',
  orders: { urls: 'addresses', hits: 'hits', indexable: 'share of indexable' },
  addressesByVerdict: 'Addresses, by verdict',
  hits: 'Hits',
  notInCrawl: (urls: number) => `${number(urls)} not in this crawl`,
  noCombination: 'None of the chosen sources knows an address. Choose others on the right.',
  sources: 'Sources',
  takesPart: (name: string) => `Include ${name}`,
  addresses: 'Addresses',
  onlyHere: 'Only here',
  onlyHereMeans: 'Addresses that no other of these sources knows',
  rejected: (rejected: number, lines: number) => `${number(rejected)} of ${counted(lines, 'line')} left out`,
  downloadThem: 'Download the lines that were left out, with the reasons',
  remove: (name: string) => `Remove ${name}`,
  isRemoved: (name: string) => `${name} is removed from this site and its newest crawl.`,
  couldNotBeRemoved: unanswered('The source could not be removed.'),
  importAFile: 'Import a list or a log …',
  dropAFile:
    'Or drop a file anywhere on this screen: CSV, TSV, XLSX, JSON lines, text, or an access log, also as .gz or .zst.',
  earlierCrawl: 'Add an earlier crawl …',
  earlierCrawlMeans: 'The addresses that answered 2xx then, with their depth and how many pages linked to them',
  crawlTaken: (name: string) => `${name} is a source now.`,
  crawlNotTaken: unanswered('The crawl could not be added.'),
  unknownAddresses: (urls: number) =>
    `${counted(urls, 'address is', 'addresses are')} in lists or logs and not in this crawl.`,
  onlyErrors: (urls: number) => `${counted(urls, 'more address', 'more addresses')} only ever answered with an error.`,
  showThem: 'Show them',
  andMore: (more: number) => `and ${number(more)} more`,
  fetchThem: 'Fetch them into this crawl',
  fetchThemMeans: 'The crawl goes on with these addresses; depth and reach of all others stay as they are',
  dialogTitle: (file: string) => `Import ${file}`,
  kind: 'What is it?',
  kindList: 'A list of addresses',
  kindLog: 'An access log',
  name: 'Name of the source',
  column: 'Column with the addresses',
  numbersFound: (names: readonly string[], dates: readonly string[]) =>
    [
      names.length
        ? `Numbers: ${names.join(', ')}. Rows of the same address are added up.`
        : 'No column of numbers was found.',
      ...(dates.length ? [`Dates: ${dates.join(', ')}. Of the same address the latest counts.`] : []),
    ].join(' '),
  logMeans: 'Hits are counted by address, status and day. Search crawlers are told by their user agents.',
  replaces: (kind: string) => `A ${kind} of this name is replaced.`,
  import: 'Import',
  stop: 'Stop',
  cancel: 'Cancel',
  reading: (percent: number) => `Reading: ${percent}%`,
  storing: 'Read. Matching and storing …',
  stopped: 'The import was stopped. Nothing was stored.',
  failed: unanswered('The file did not arrive. Nothing was stored.'),
  imported: (name: string, addresses: number, matched: number, fresh: number, rejected: number) =>
    `${name}: ${counted(addresses, 'address', 'addresses')}, ${number(matched)} of them in this crawl, ${number(fresh)} new${rejected ? `; ${counted(rejected, 'line')} left out` : ''}.`,
  importedBefore: (name: string) => `This file was imported before, as “${name}”; nothing has changed.`,
  noPreview: unanswered('The file could not be looked at.'),
  folder: 'Folder',
  both: 'both',
  onlyIn: (name: string) => `only ${name}`,
  moreFolders: (more: number) => `and ${counted(more, 'more folder')}`,
  chooseTwo: 'The first two chosen sources are compared; choose them on the right.',
  sitemap: 'Sitemap',
  foundAt: 'Found',
  origins: {
    robots: 'robots.txt',
    given: 'the settings',
    usual: 'the usual place',
    index: 'an index',
  },
  originLine: (line: number) => `, line ${line}`,
  feed: 'a feed: it lists only what is new',
  advice: {
    missing: 'Put the file there, or remove whatever names it: robots.txt, the index or the settings.',
    refused:
      'Let crawlers fetch it: look for a password, a firewall or a rate limit. Secrets can be given in the settings.',
    failing: 'Look into the log of the server; a sitemap that is made on request may take too long to make.',
    unanswered: 'Check host, port and certificate in its address, and that the server answers within half a minute.',
    html: 'The server answers with a page, often a login or its “not found” page with status 200. Open the address in a browser.',
    other: 'Open the address in a browser: it must answer 200 with a urlset, an index, a feed, or a text of addresses.',
    xml: 'Correct the XML at the line; & must be written &amp;. What came before it was read.',
    empty: 'The file is empty. Look at the program that writes it.',
    large: 'Split it: a sitemap has at most 50,000 addresses and 50 MiB uncompressed.',
    unread: 'Resume the crawl to read it, or check it now.',
    split: 'Crawl the parts of the site that they belong to as sites of their own.',
    blocked: 'Search engines that keep to robots.txt do not fetch it. Open it to them.',
    redirect: 'Name the final address, so that nothing depends on the redirect.',
    type: 'Serve it as application/xml, or text/plain when it is a text of addresses.',
    stale: 'Search engines may see an old one: shorten how long caches may keep it, then check again.',
    outside: 'Entries outside the site are passed over. If they belong to it, add their host in the settings.',
    many: 'Split it and name the parts in an index: search engines read the first 50,000 entries.',
  },
  /** What is odd about an answer, before what to do about it. */
  oddities: (answer: FileAnswer | null, rule: string | null, advice: SitemapAdvice): string => {
    if (advice === 'blocked' && rule) return `robots.txt closes it (${rule}). `;
    if (advice === 'redirect' && answer) return `It redirects to ${answer.address}. `;
    if (advice === 'type' && answer) return `It is served as ${answer.type}. `;
    if (advice === 'stale' && answer?.age) return `A cache had held it for ${duration(answer.age * 1000)}. `;
    return '';
  },
  checkNow: 'Check now',
  checkAgain: 'Check again',
  checkAgainMeans: 'Fetch it anew, past caches, and check it by every rule of the protocol',
  checking: 'Checking …',
  noFaults: (entries: number) => `${counted(entries, 'entry', 'entries')}, no fault by the protocol.`,
  faultsNow: (faults: number, entries: number) =>
    `${counted(faults, 'fault')} in ${counted(entries, 'entry', 'entries')}:`,
  lineHead: (line: number) => `Line ${line}:`,
  inIndex: (address: string) => `in ${address}`,
  entries: 'Entries',
  outside: 'Outside the site',
  outcome: 'Outcome',
  read: 'read',
  inLine: (line: number) => ` Line ${line}.`,
  noSitemap: 'No sitemap: robots.txt names none, none is at the usual places, and none was given.',
  problems: 'Problems in sitemaps',
  line: (line: number) => `, line ${line}`,
  listedNotIndexable: 'Listed, and may not be indexed',
  indexableNotListed: 'May be indexed, and not listed',
  writeSitemap: 'Save the sitemap that this crawl suggests',
  writeSitemapMeans:
    'All indexable pages with a route, with dates that something shows, and their editions in other languages',
  difference: 'Save how it differs from the live ones',
  differenceMeans: 'A unified diff, an address a line with its date of change',
  wouldCome: 'It would add these',
  wouldGo: 'and leave these out',
  checkAtTerminal: 'To check a file before it is published: ./edgemap sitemap check FILE',
};
