/**
 * The screen of settings as data: what it asks, in which words, and how a line of what is typed is read and written.
 */
import { formatOverride } from '$core/settings';
import { aHost, anAddress, anOverride, aPattern, aSection, asIs, aSubnet } from './lineReaders';
import type { LineReader } from './lineReaders';

interface FieldBase {
  /** Name in the settings; a dot leads into a group of them. */
  name: string;
  label: string;
  /** One line that says what it does. */
  hint: string;
}
export type Field = FieldBase &
  (
    | { type: 'lines'; example?: string; read: LineReader; write?: (value: never) => string }
    | { type: 'number'; range: [low: number, high: number]; whole: boolean; unit: string; empty: string }
    | { type: 'flag' }
    | { type: 'choice'; options: { value: string; label: string }[] }
    | { type: 'text'; example?: string; wide?: boolean }
  );

export interface FieldGroup {
  id: string;
  title: string;
  about: string;
  fields: Field[];
}

type Of<T extends Field['type']> = Extract<Field, { type: T }>;
type More<T extends Field['type']> = Omit<Of<T>, 'type' | 'name' | 'label' | 'hint'>;

const flag = (name: string, label: string, hint: string): Field => ({ type: 'flag', name, label, hint });
const text = (name: string, label: string, hint: string, more: More<'text'> = {}): Field => ({
  type: 'text',
  name,
  label,
  hint,
  ...more,
});
/** @param read reads one line */
const lines = (
  name: string,
  label: string,
  hint: string,
  read: LineReader,
  more: Omit<More<'lines'>, 'read'> = {},
): Field => ({ type: 'lines', name, label, hint, read, ...more });
/** A whole number, with no limit when it is left empty, unless it is said otherwise. */
const number = (
  name: string,
  label: string,
  hint: string,
  more: Pick<More<'number'>, 'unit' | 'range'> & Partial<More<'number'>>,
): Field => ({ type: 'number', name, label, hint, empty: 'any', whole: true, ...more });
/** @param labels by value */
const choice = (name: string, label: string, hint: string, labels: Record<string, string>): Field => ({
  type: 'choice',
  name,
  label,
  hint,
  options: Object.entries(labels).map(([value, label]) => ({ value, label })),
});

export const fieldGroups: FieldGroup[] = [
  {
    id: 'scope',
    title: 'What belongs to the site',
    about:
      'Pages of the site are crawled and analysed. Everything else counts as another site: links to it are recorded.',
    fields: [
      lines('starts', 'Further start addresses', 'One per line. They count as depth 0, as the first does.', anAddress),
      lines(
        'hosts',
        'Further hosts',
        'Hosts that belong to the site besides its own, one per line. A host with a private address is fetched only when it is named.',
        aHost,
        { example: 'shop.example.org' },
      ),
      text(
        'folder',
        'Only under the folder',
        'Only pages in this folder belong to the site. Leave it empty for the whole site.',
        { example: '/fr/' },
      ),
      lines(
        'include',
        'Include only',
        'Only addresses that match one of these patterns are fetched. One pattern per line: * stands for anything, $ for the end. Leave it empty to fetch everything.',
        aPattern,
        { example: '/visit/*' },
      ),
      lines(
        'exclude',
        'Exclude',
        'Addresses that match are recorded but not fetched, even if “Include only” matches them too.',
        aPattern,
        { example: '*sort=*' },
      ),
      lines(
        'dropParameters',
        'Parameters to ignore',
        'Query parameters that do not change the page, one per line. They are removed from every address.',
        asIs,
        { example: 'utm_source' },
      ),
      flag('subdomains', 'Include subdomains', 'Hosts such as shop.example.org belong to the site of example.org.'),
      flag(
        'sortParameters',
        'Ignore the order of parameters',
        'Addresses that differ only in the order of their parameters are one page.',
      ),
    ],
  },
  {
    id: 'limits',
    title: 'Limits',
    about: 'A crawl that reaches a limit says so, and can be continued with a higher one.',
    fields: [
      number('limit', 'At most', 'The crawl ends when so many pages were fetched.', {
        unit: 'pages',
        range: [1, 10_000_000],
        empty: '100,000',
      }),
      number(
        'knownLimit',
        'Know at most',
        'A million at least, when this is empty. Links and sitemap entries that lead to further ones are left out.',
        {
          unit: 'addresses',
          range: [1, 200_000_000],
          empty: '20 for each page',
        },
      ),
      number('depth', 'No deeper than', 'Pages more clicks from the start are recorded but not fetched.', {
        unit: 'clicks',
        range: [0, 10_000],
      }),
      number('minutes', 'No longer than', 'Time in which the crawl is paused does not count.', {
        unit: 'minutes',
        range: [1, 100_000],
      }),
      number('megabytes', 'No more than', 'The sum of all answers, as they were sent.', {
        unit: 'MiB received',
        range: [1, 10_000_000],
      }),
      number(
        'bodyMegabytes',
        'Read at most',
        'Only the beginning of longer pages is read; they are marked as truncated.',
        { unit: 'MiB of a page', range: [1, 100], empty: '20' },
      ),
      number(
        'trapLimit',
        'Fetch at most',
        'Of each family of addresses that grows without end, such as the months of a calendar.',
        { unit: 'of a trap', range: [10, 10_000_000], empty: '500' },
      ),
    ],
  },
  {
    id: 'pace',
    title: 'Crawl rate',
    about: 'The limits apply to each host, for all workers together.',
    fields: [
      number('connections', 'Connections', 'Requests under way at the same time. Fewer put less load on the server.', {
        unit: 'at once',
        range: [1, 64],
        empty: '8',
      }),
      number('rate', 'No more than', 'To one host. 0.5 means one request every two seconds.', {
        unit: 'requests a second',
        range: [0.01, 1000],
        whole: false,
      }),
      number(
        'retries',
        'Repeat failed requests',
        'After a time-out, a broken connection, or an answer with status 429 or 5xx.',
        { unit: 'times', range: [0, 10], empty: '2' },
      ),
      flag(
        'keepCrawlDelay',
        'Obey Crawl-delay',
        'Wait between requests as long as robots.txt asks, if robots.txt is obeyed.',
      ),
    ],
  },
  {
    id: 'reader',
    title: 'User agent and robots token',
    about: 'Some sites answer crawlers differently, and robots rules may apply to one crawler only.',
    fields: [
      choice(
        'robots',
        'robots.txt',
        'If robots.txt is obeyed, the pages that it closes are recorded but not fetched. If not, they are fetched and still reported as closed.',
        { obey: 'Obey it', 'look-past': 'Ignore it, but report' },
      ),
      text('userAgent', 'User agent', 'Sent in the User-Agent header of every request.', { wide: true }),
      text('token', 'Robots token', 'The name of the crawler whose rules in robots.txt and meta robots apply.'),
      text('language', 'Language', 'Sent in the Accept-Language header of every request.', { example: 'en, fr;q=0.8' }),
      flag('keepCookies', 'Keep cookies', 'Send the cookies that the site sets back to it, during one crawl.'),
    ],
  },
  {
    id: 'links',
    title: 'Links to follow and to check',
    about:
      'Links that a visitor can click are always followed. Targets of other links are recorded, and fetched only if you choose so.',
    fields: [
      flag(
        'follow.nofollow',
        'Links with nofollow',
        'Also rel sponsored and ugc, and all links of pages that say nofollow.',
      ),
      flag('follow.refresh', 'Meta refresh', 'Counts no click, as a redirect does.'),
      flag('follow.canonical', 'Canonical', 'Fetch pages that only a canonical names.'),
      flag('follow.hreflang', 'hreflang', 'Fetch pages that only an hreflang names.'),
      flag('follow.paging', 'next and prev', 'Fetch pages that only a rel next or prev names.'),
      flag('follow.amphtml', 'amphtml', 'Fetch pages that only a rel amphtml names.'),
      flag('follow.iframe', 'iframe', 'Fetch pages of the site that are shown in frames.'),
      flag('fragments', 'Check fragments', 'Find links whose #fragment names nothing on the target page.'),
      flag('check.image', 'Check images', 'Find those that do not load.'),
      flag('check.script', 'Check scripts', 'Find those that do not load.'),
      flag('check.style', 'Check styles', 'Find those that do not load.'),
      flag('check.other', 'Check other files', 'Find video, audio, icons and embedded files that do not load.'),
      choice(
        'external',
        'Links to other sites',
        'A check asks for each address once, with HEAD, and with GET if HEAD fails.',
        { record: 'Record them', check: 'Check whether they answer' },
      ),
      number('externalLimit', 'Check at most', 'Applies only if links to other sites are checked.', {
        unit: 'addresses',
        range: [1, 10_000_000],
        empty: '1,000',
      }),
    ],
  },
  {
    id: 'sitemaps',
    title: 'Sitemaps and logs',
    about: 'Edge Map compares what sitemaps and access logs know with what links reach.',
    fields: [
      flag('sitemapsFromRobots', 'Sitemaps that robots.txt names', 'Sitemap indexes are followed.'),
      flag(
        'usualSitemaps',
        'Sitemaps at the usual addresses',
        '/sitemap.xml and /sitemap_index.xml, if robots.txt names none.',
      ),
      lines('sitemaps', 'Further sitemaps', 'One URL a line.', anAddress),
      number(
        'sitemapMinutes',
        'Wait for sitemaps',
        'When everything else is fetched. Sitemaps that are not read by then are read when the crawl is resumed.',
        {
          unit: 'minutes',
          range: [1, 100_000],
          empty: '10',
        },
      ),
      lines(
        'crawlerAddresses',
        'Addresses of search crawlers',
        'IP addresses or subnets, one per line. Access logs imported from now on count only their hits as those of crawlers; without any, user agents decide, which anybody can borrow.',
        aSubnet,
        { example: '192.0.2.0/24' },
      ),
    ],
  },
  {
    id: 'network',
    title: 'Network',
    about: 'Use these to map a staging copy of a site under its final name.',
    fields: [
      lines(
        'overrides',
        'Address overrides',
        'host=address:port, one per line. Requests for the host go to that address instead.',
        anOverride,
        { example: 'www.example.org=127.0.0.1:8080', write: formatOverride },
      ),
      flag(
        'acceptCertificates',
        'Accept certificates that cannot be checked',
        'For example the self-signed certificate of a staging server.',
      ),
    ],
  },
  {
    id: 'reading',
    title: 'Analysis',
    about: 'How the results are worked out. Changes apply from the next crawl on.',
    fields: [
      lines(
        'sections',
        'Sections',
        'Pattern = name, one per line; the first match counts. Other pages belong to the section of their first folder.',
        aSection,
        {
          example: '/shop/* = Shop',
          write: ({ pattern, name }: { pattern: string; name: string }) => `${pattern} = ${name}`,
        },
      ),
      flag(
        'linksInCode',
        'Links in code',
        'Words in code may become links, for sites that name their pages in code; applies at once.',
      ),
      text(
        'editing',
        'Editing address',
        'Where a page is edited, with {url}, {path}, {path:regular expression} or {source:regular expression}; applies at once.',
        { example: 'https://cms.example/edit?id={source:data-id="(\\d+)"}', wide: true },
      ),
      number(
        'nearTolerance',
        'Near-duplicates differ in at most',
        'Of the fingerprint of their text. 0 finds only pages with the same words in the same order.',
        { unit: 'of 64 bits', range: [0, 6], empty: '3' },
      ),
      number('weights.header', 'Weight of a link in a header', 'For link share; a link in the main content weighs 1.', {
        unit: 'times',
        range: [0, 100],
        empty: '1',
        whole: false,
      }),
      number(
        'weights.nav',
        'Weight of a link in a navigation',
        'Menus are on every page; a lower weight gives other links more influence.',
        { unit: 'times', range: [0, 100], empty: '1', whole: false },
      ),
      number('weights.aside', 'Weight of a link in an aside', 'Related pages and teasers.', {
        unit: 'times',
        range: [0, 100],
        empty: '1',
        whole: false,
      }),
      number('weights.footer', 'Weight of a link in a footer', 'Imprint, contact and social media.', {
        unit: 'times',
        range: [0, 100],
        empty: '1',
        whole: false,
      }),
      number('thresholds.deepClicks', 'Pages are deep beyond', 'Indexable pages with more clicks are a finding.', {
        unit: 'clicks',
        range: [1, 10_000],
        empty: '3',
      }),
      number(
        'thresholds.starvingShare',
        'Pages have very little share below',
        'The median share of the indexable pages of the same section at the same depth.',
        { unit: 'of the usual share', range: [0, 1000], empty: '0.3', whole: false },
      ),
      number(
        'thresholds.crowdedLinks',
        'Pages have too many links beyond',
        'Different pages of the site that the content of one page links to, without shared navigation.',
        { unit: 'pages linked', range: [1, 1_000_000], empty: '150' },
      ),
      number('thresholds.gatePages', 'A page is a gate for at least', 'Pages that can be reached only through it.', {
        unit: 'pages',
        range: [1, 10_000_000],
        empty: '10',
      }),
      number('thresholds.thinWords', 'Pages have very little text below', 'Words in the main content of the page.', {
        unit: 'words',
        range: [0, 100_000],
        empty: '50',
      }),
    ],
  },
];

export const allFields = fieldGroups.flatMap(({ fields }) => fields);
