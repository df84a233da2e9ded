/**
 * The screen of settings as data: what it asks, in which words, and how a line of what is typed is read and written.
 */
import { formatOverride, parseOverride } from '$core/settings';
import { patternTest } from '$core/scope';
import { identify } from '$core/url';

/** Reads one line; a string is what is wrong with it. */
type LineReader = (line: string) => { value: unknown } | string;

interface FieldBase {
  /** Name in the settings; a dot leads into a group of them. */
  name: string;
  label: string;
  /** One line that says what it does. */
  hint: string;
}
export type Field = FieldBase &
  (
    | { type: 'lines'; example?: string; rows?: number; read: LineReader; write?: (value: never) => string }
    | { type: 'number'; low: number; high: number; whole: boolean; unit: string; empty: string }
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

const anAddress: LineReader = (line) => {
  const found = identify(line);
  return found ? { value: found.address } : `“${line}” is not a URL.`;
};
const aHost: LineReader = (line) => {
  const host = line
    .toLowerCase()
    .replace(/^https?:\/\//, '')
    .replace(/\/$/, '');
  return identify(`https://${host}/`) && !/[/?#\s@]/.test(host) ? { value: host } : `“${line}” is not a host.`;
};
const aPattern: LineReader = (line) => {
  patternTest(line);
  return { value: line };
};
const anOverride: LineReader = (line) => {
  const override = parseOverride(line);
  return override ? { value: override } : `“${line}” is not of the form host=address:port.`;
};
const aSection: LineReader = (line) => {
  const [, pattern, name] = /^(.*\S)\s*=\s*([^=]+)$/.exec(line) ?? [];
  return pattern ? { value: { pattern, name: name.trim() } } : `“${line}” is not of the form pattern = name.`;
};
const aSubnet: LineReader = (line) =>
  /^([\d.]+|[\da-f:.]*:[\da-f:.]*)(\/\d{1,3})?$/i.test(line)
    ? { value: line }
    : `“${line}” is no IP address or subnet, such as 192.0.2.0/24.`;
const asIs: LineReader = (line) => ({ value: line });

export const fieldGroups: FieldGroup[] = [
  {
    id: 'scope',
    title: 'What belongs to the site',
    about:
      'Pages of the site are crawled and analysed. Everything else counts as another site: links to it are recorded.',
    fields: [
      {
        type: 'lines',
        name: 'starts',
        label: 'Further start addresses',
        read: anAddress,
        hint: 'One per line. They count as depth 0, as the first does.',
      },
      {
        type: 'lines',
        name: 'hosts',
        label: 'Further hosts',
        read: aHost,
        hint: 'Hosts that belong to the site besides its own, one per line. A host with a private address is fetched only when it is named.',
        example: 'shop.example.org',
      },
      {
        type: 'text',
        name: 'folder',
        label: 'Only under the folder',
        example: '/fr/',
        hint: 'Only pages in this folder belong to the site. Leave it empty for the whole site.',
      },
      {
        type: 'lines',
        name: 'include',
        label: 'Include only',
        read: aPattern,
        hint: 'Only addresses that match one of these patterns are fetched. One pattern per line: * stands for anything, $ for the end. Leave it empty to fetch everything.',
        example: '/visit/*',
      },
      {
        type: 'lines',
        name: 'exclude',
        label: 'Exclude',
        read: aPattern,
        hint: 'Addresses that match are recorded but not fetched, even if “Include only” matches them too.',
        example: '*sort=*',
      },
      {
        type: 'lines',
        name: 'dropParameters',
        label: 'Parameters to ignore',
        read: asIs,
        hint: 'Query parameters that do not change the page, one per line. They are removed from every address.',
        example: 'utm_source',
      },
      {
        type: 'flag',
        name: 'subdomains',
        label: 'Include subdomains',
        hint: 'Hosts such as shop.example.org belong to the site of example.org.',
      },
      {
        type: 'flag',
        name: 'sortParameters',
        label: 'Ignore the order of parameters',
        hint: 'Addresses that differ only in the order of their parameters are one page.',
      },
    ],
  },
  {
    id: 'limits',
    title: 'Limits',
    about: 'A crawl that reaches a limit says so, and can be continued with a higher one.',
    fields: [
      {
        type: 'number',
        name: 'limit',
        label: 'At most',
        unit: 'pages',
        empty: '100,000',
        low: 1,
        high: 10_000_000,
        hint: 'The crawl ends when so many pages were fetched.',
        whole: true,
      },
      {
        type: 'number',
        name: 'depth',
        label: 'No deeper than',
        unit: 'clicks',
        empty: 'any',
        low: 0,
        high: 10_000,
        hint: 'Pages more clicks from the start are recorded but not fetched.',
        whole: true,
      },
      {
        type: 'number',
        name: 'minutes',
        label: 'No longer than',
        unit: 'minutes',
        empty: 'any',
        low: 1,
        high: 100_000,
        hint: 'Time in which the crawl is paused does not count.',
        whole: true,
      },
      {
        type: 'number',
        name: 'megabytes',
        label: 'No more than',
        unit: 'MiB received',
        empty: 'any',
        low: 1,
        high: 10_000_000,
        hint: 'The sum of all answers, as they were sent.',
        whole: true,
      },
      {
        type: 'number',
        name: 'bodyMegabytes',
        label: 'Read at most',
        unit: 'MiB of a page',
        empty: '20',
        low: 1,
        high: 100,
        hint: 'Only the beginning of longer pages is read; they are marked as truncated.',
        whole: true,
      },
      {
        type: 'number',
        name: 'trapLimit',
        label: 'Fetch at most',
        unit: 'of a trap',
        empty: '500',
        low: 10,
        high: 10_000_000,
        hint: 'Of each family of addresses that grows without end, such as the months of a calendar.',
        whole: true,
      },
    ],
  },
  {
    id: 'pace',
    title: 'Crawl rate',
    about: 'The limits apply to each host, for all workers together.',
    fields: [
      {
        type: 'number',
        name: 'connections',
        label: 'Connections',
        unit: 'at once',
        empty: '8',
        low: 1,
        high: 64,
        hint: 'Requests under way at the same time. Fewer put less load on the server.',
        whole: true,
      },
      {
        type: 'number',
        name: 'rate',
        label: 'No more than',
        unit: 'requests a second',
        empty: 'any',
        low: 0.01,
        high: 1000,
        hint: 'To one host. 0.5 means one request every two seconds.',
        whole: false,
      },
      {
        type: 'number',
        name: 'retries',
        label: 'Repeat failed requests',
        unit: 'times',
        empty: '2',
        low: 0,
        high: 10,
        hint: 'After a time-out, a broken connection, or an answer with status 429 or 5xx.',
        whole: true,
      },
      {
        type: 'flag',
        name: 'keepCrawlDelay',
        label: 'Obey Crawl-delay',
        hint: 'Wait between requests as long as robots.txt asks, if robots.txt is obeyed.',
      },
    ],
  },
  {
    id: 'reader',
    title: 'User agent and robots token',
    about: 'Some sites answer crawlers differently, and robots rules may apply to one crawler only.',
    fields: [
      {
        type: 'choice',
        name: 'robots',
        label: 'robots.txt',
        hint: 'If robots.txt is obeyed, the pages that it closes are recorded but not fetched. If not, they are fetched and still reported as closed.',
        options: [
          { value: 'obey', label: 'Obey it' },
          { value: 'look-past', label: 'Ignore it, but report' },
        ],
      },
      {
        type: 'text',
        name: 'userAgent',
        label: 'User agent',
        wide: true,
        hint: 'Sent in the User-Agent header of every request.',
      },
      {
        type: 'text',
        name: 'token',
        label: 'Robots token',
        hint: 'The name of the crawler whose rules in robots.txt and meta robots apply.',
      },
      {
        type: 'text',
        name: 'language',
        label: 'Language',
        example: 'en, fr;q=0.8',
        hint: 'Sent in the Accept-Language header of every request.',
      },
      {
        type: 'flag',
        name: 'keepCookies',
        label: 'Keep cookies',
        hint: 'Send the cookies that the site sets back to it, during one crawl.',
      },
    ],
  },
  {
    id: 'links',
    title: 'Links to follow and to check',
    about:
      'Links that a visitor can click are always followed. Targets of other links are recorded, and fetched only if you choose so.',
    fields: [
      {
        type: 'flag',
        name: 'follow.nofollow',
        label: 'Links with nofollow',
        hint: 'Also rel sponsored and ugc, and all links of pages that say nofollow.',
      },
      { type: 'flag', name: 'follow.refresh', label: 'Meta refresh', hint: 'Counts no click, as a redirect does.' },
      { type: 'flag', name: 'follow.canonical', label: 'Canonical', hint: 'Fetch pages that only a canonical names.' },
      { type: 'flag', name: 'follow.hreflang', label: 'hreflang', hint: 'Fetch pages that only an hreflang names.' },
      {
        type: 'flag',
        name: 'follow.paging',
        label: 'next and prev',
        hint: 'Fetch pages that only a rel next or prev names.',
      },
      { type: 'flag', name: 'follow.amphtml', label: 'amphtml', hint: 'Fetch pages that only a rel amphtml names.' },
      {
        type: 'flag',
        name: 'follow.iframe',
        label: 'iframe',
        hint: 'Fetch pages of the site that are shown in frames.',
      },
      {
        type: 'flag',
        name: 'fragments',
        label: 'Check fragments',
        hint: 'Find links whose #fragment names nothing on the target page.',
      },
      { type: 'flag', name: 'check.image', label: 'Check images', hint: 'Find those that do not load.' },
      { type: 'flag', name: 'check.script', label: 'Check scripts', hint: 'Find those that do not load.' },
      { type: 'flag', name: 'check.style', label: 'Check styles', hint: 'Find those that do not load.' },
      {
        type: 'flag',
        name: 'check.other',
        label: 'Check other files',
        hint: 'Find video, audio, icons and embedded files that do not load.',
      },
      {
        type: 'choice',
        name: 'external',
        label: 'Links to other sites',
        hint: 'A check asks for each address once, with HEAD, and with GET if HEAD fails.',
        options: [
          { value: 'record', label: 'Record them' },
          { value: 'check', label: 'Check whether they answer' },
        ],
      },
      {
        type: 'number',
        name: 'externalLimit',
        label: 'Check at most',
        unit: 'addresses',
        empty: '1,000',
        low: 1,
        high: 10_000_000,
        hint: 'Applies only if links to other sites are checked.',
        whole: true,
      },
    ],
  },
  {
    id: 'sitemaps',
    title: 'Sitemaps and logs',
    about: 'Edge Map compares what sitemaps and access logs know with what links reach.',
    fields: [
      {
        type: 'flag',
        name: 'sitemapsFromRobots',
        label: 'Sitemaps that robots.txt names',
        hint: 'Sitemap indexes are followed.',
      },
      {
        type: 'flag',
        name: 'usualSitemaps',
        label: 'Sitemaps at the usual addresses',
        hint: '/sitemap.xml and /sitemap_index.xml, if robots.txt names none.',
      },
      { type: 'lines', name: 'sitemaps', label: 'Further sitemaps', read: anAddress, hint: 'One URL a line.' },
      {
        type: 'lines',
        name: 'crawlerAddresses',
        label: 'Addresses of search crawlers',
        read: aSubnet,
        hint: 'IP addresses or subnets, one per line. Access logs imported from now on count only their hits as those of crawlers; without any, user agents decide, which anybody can borrow.',
        example: '192.0.2.0/24',
      },
    ],
  },
  {
    id: 'network',
    title: 'Network',
    about: 'Use these to map a staging copy of a site under its final name.',
    fields: [
      {
        type: 'lines',
        name: 'overrides',
        label: 'Address overrides',
        read: anOverride,
        hint: 'host=address:port, one per line. Requests for the host go to that address instead.',
        example: 'www.example.org=127.0.0.1:8080',
        write: formatOverride,
      } as Field,
      {
        type: 'flag',
        name: 'acceptCertificates',
        label: 'Accept certificates that cannot be checked',
        hint: 'For example the self-signed certificate of a staging server.',
      },
    ],
  },
  {
    id: 'reading',
    title: 'Analysis',
    about: 'How the results are worked out. Changes apply from the next crawl on.',
    fields: [
      {
        type: 'lines',
        name: 'sections',
        label: 'Sections',
        read: aSection,
        write: (({ pattern, name }: { pattern: string; name: string }) => `${pattern} = ${name}`) as (
          value: never,
        ) => string,
        hint: 'Pattern = name, one per line; the first match counts. Other pages belong to the section of their first folder.',
        example: '/shop/* = Shop',
      },
      {
        type: 'number',
        name: 'nearTolerance',
        label: 'Near-duplicates differ in at most',
        unit: 'of 64 bits',
        empty: '3',
        low: 0,
        high: 6,
        hint: 'Of the fingerprint of their text. 0 finds only pages with the same words in the same order.',
        whole: true,
      },
      {
        type: 'number',
        name: 'weights.header',
        label: 'Weight of a link in a header',
        unit: 'times',
        empty: '1',
        low: 0,
        high: 100,
        hint: 'For link share; a link in the main content weighs 1.',
        whole: false,
      },
      {
        type: 'number',
        name: 'weights.nav',
        label: 'Weight of a link in a navigation',
        unit: 'times',
        empty: '1',
        low: 0,
        high: 100,
        hint: 'Menus are on every page; a lower weight gives other links more influence.',
        whole: false,
      },
      {
        type: 'number',
        name: 'weights.aside',
        label: 'Weight of a link in an aside',
        unit: 'times',
        empty: '1',
        low: 0,
        high: 100,
        hint: 'Related pages and teasers.',
        whole: false,
      },
      {
        type: 'number',
        name: 'weights.footer',
        label: 'Weight of a link in a footer',
        unit: 'times',
        empty: '1',
        low: 0,
        high: 100,
        hint: 'Imprint, contact and social media.',
        whole: false,
      },
      {
        type: 'number',
        name: 'thresholds.deepClicks',
        label: 'Pages are deep beyond',
        unit: 'clicks',
        empty: '3',
        low: 1,
        high: 10_000,
        hint: 'Indexable pages with more clicks are a finding.',
        whole: true,
      },
      {
        type: 'number',
        name: 'thresholds.starvingShare',
        label: 'Pages have very little share below',
        unit: 'of the usual share',
        empty: '0.3',
        low: 0,
        high: 1000,
        hint: 'The median share of the indexable pages of the same section at the same depth.',
        whole: false,
      },
      {
        type: 'number',
        name: 'thresholds.crowdedLinks',
        label: 'Pages have too many links beyond',
        unit: 'pages linked',
        empty: '150',
        low: 1,
        high: 1_000_000,
        hint: 'Different pages of the site that the content of one page links to, without shared navigation.',
        whole: true,
      },
      {
        type: 'number',
        name: 'thresholds.gatePages',
        label: 'A page is a gate for at least',
        unit: 'pages',
        empty: '10',
        low: 1,
        high: 10_000_000,
        hint: 'Pages that can be reached only through it.',
        whole: true,
      },
      {
        type: 'number',
        name: 'thresholds.thinWords',
        label: 'Pages have very little text below',
        unit: 'words',
        empty: '50',
        low: 0,
        high: 100_000,
        hint: 'Words in the main content of the page.',
        whole: true,
      },
    ],
  },
];

export const allFields = fieldGroups.flatMap(({ fields }) => fields);
