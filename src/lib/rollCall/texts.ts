/** The texts of Roll call. */
import { counted, number } from '../shell/words';

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
  noCombination: 'No source that takes part knows an address. Choose others at the right.',
  sources: 'Sources',
  takesPart: (name: string) => `${name} takes part`,
  addresses: 'Addresses',
  onlyHere: 'Only here',
  onlyHereMeans: 'Addresses that no other of these sources knows',
  rejected: (rejected: number, lines: number) => `${number(rejected)} of ${counted(lines, 'line')} left out`,
  downloadThem: 'Download the lines that were left out, with the reasons',
  remove: (name: string) => `Remove ${name}`,
  isRemoved: (name: string) => `${name} is removed from this site and its newest crawl.`,
  couldNotBeRemoved: 'The source could not be removed. Is Edge Map still running?',
  importAFile: 'Import a list or a log …',
  dropAFile:
    'Or drop a file anywhere on this screen: CSV, TSV, XLSX, JSON lines, text, or an access log, also as .gz or .zst.',
  unknownAddresses: (urls: number) =>
    `${counted(urls, 'address is', 'addresses are')} in lists or logs and not in this crawl.`,
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
  numbersFound: (names: readonly string[]) =>
    names.length
      ? `Numbers: ${names.join(', ')}. Rows of the same address are added up.`
      : 'No column of numbers was found.',
  logMeans: 'Hits are counted by address, status and day. Search crawlers are told by their user agents.',
  replaces: (kind: string) => `A ${kind} of this name is replaced.`,
  import: 'Import',
  stop: 'Stop',
  cancel: 'Cancel',
  reading: (percent: number) => `Reading: ${percent}%`,
  storing: 'Read. Matching and storing …',
  stopped: 'The import was stopped. Nothing was stored.',
  failed: 'The file did not arrive. Nothing was stored. Is Edge Map still running?',
  imported: (name: string, addresses: number, matched: number, fresh: number, rejected: number) =>
    `${name}: ${counted(addresses, 'address', 'addresses')}, ${number(matched)} of them in this crawl, ${number(fresh)} new${rejected ? `; ${counted(rejected, 'line')} left out` : ''}.`,
  importedBefore: (name: string) => `This file was imported before, as “${name}”; nothing has changed.`,
  noPreview: 'The file could not be looked at. Is Edge Map still running?',
  folder: 'Folder',
  both: 'both',
  onlyIn: (name: string) => `only ${name}`,
  moreFolders: (more: number) => `and ${counted(more, 'more folder')}`,
  chooseTwo: 'The first two sources that take part are compared; choose them at the right.',
  sitemap: 'Sitemap',
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
  checkAtTerminal:
    'Every check of the protocol, line by line: ./edgemap sitemap check ADDRESS. To write a sitemap of this crawl: ./edgemap sitemap write.',
};
