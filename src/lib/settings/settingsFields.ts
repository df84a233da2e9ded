/** The screen of settings as data: what it asks, in which words, and how what is typed is read and written. */
import { formatOverride, parseOverride } from '$core/settings';
import type { CrawlSettings } from '$core/settings';
import { patternTest } from '$core/scope';
import { identify, readStartAddress } from '$core/url';

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
const asIs: LineReader = (line) => ({ value: line });

export const fieldGroups: FieldGroup[] = [
  {
    id: 'scope',
    title: 'What belongs to the site',
    about: 'Everything inside is a page of the model; everything else is outside and only linked to.',
    fields: [
      {
        type: 'lines',
        name: 'starts',
        label: 'Further start addresses',
        read: anAddress,
        hint: 'One a line. They count as depth 0, as the first does.',
      },
      {
        type: 'lines',
        name: 'hosts',
        label: 'Further hosts',
        read: aHost,
        hint: 'Hosts that belong to the site besides its own, one a line. A host with a private address is fetched only when it is named.',
        example: 'shop.example.org',
      },
      {
        type: 'text',
        name: 'folder',
        label: 'Only under the folder',
        example: '/fr/',
        hint: 'Pages elsewhere count as outside. Empty for the whole site.',
      },
      {
        type: 'lines',
        name: 'include',
        label: 'Fetch only',
        read: aPattern,
        hint: 'Patterns, one a line: * for anything, $ for the end. Empty for everything.',
        example: '/visit/*',
      },
      {
        type: 'lines',
        name: 'exclude',
        label: 'Leave out',
        read: aPattern,
        hint: 'Matching addresses are known and not fetched. They go before what “Fetch only” takes in.',
        example: '*sort=*',
      },
      {
        type: 'lines',
        name: 'dropParameters',
        label: 'Parameters to drop',
        read: asIs,
        hint: 'Query parameters that do not tell pages apart, one a line.',
        example: 'utm_source',
      },
      {
        type: 'flag',
        name: 'subdomains',
        label: 'Subdomains are inside',
        hint: 'Any host that ends with one of the hosts.',
      },
      {
        type: 'flag',
        name: 'sortParameters',
        label: 'Order of parameters does not matter',
        hint: 'Addresses that differ in it only are one page.',
      },
    ],
  },
  {
    id: 'limits',
    title: 'Where it ends',
    about: 'A crawl that meets a limit says so, and can go on with a higher one.',
    fields: [
      {
        type: 'number',
        name: 'limit',
        label: 'At most',
        unit: 'pages',
        empty: '100,000',
        low: 1,
        high: 10_000_000,
        hint: 'The crawl ends there.',
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
        hint: 'What lies deeper is known, not fetched.',
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
        hint: 'Pauses do not count.',
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
        hint: 'Of all answers together.',
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
        hint: 'Longer pages are read in part, and marked.',
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
        hint: 'Of addresses like calendars, which never end.',
        whole: true,
      },
    ],
  },
  {
    id: 'pace',
    title: 'Crawl rate',
    about: 'Rates hold for each host, across all workers.',
    fields: [
      {
        type: 'number',
        name: 'connections',
        label: 'Connections',
        unit: 'at once',
        empty: '8',
        low: 1,
        high: 64,
        hint: 'Fewer are kinder to the server.',
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
        hint: 'To one host; 0.5 is one every two seconds.',
        whole: false,
      },
      {
        type: 'number',
        name: 'retries',
        label: 'Try again',
        unit: 'times',
        empty: '2',
        low: 0,
        high: 10,
        hint: 'After time-outs, broken connections, 429 and 5xx.',
        whole: true,
      },
      {
        type: 'flag',
        name: 'keepCrawlDelay',
        label: 'Keep to Crawl-delay',
        hint: 'Wait between requests as robots.txt asks, when it is obeyed.',
      },
    ],
  },
  {
    id: 'reader',
    title: 'Who asks',
    about: 'Some sites answer readers differently; rules may name a crawler.',
    fields: [
      {
        type: 'choice',
        name: 'robots',
        label: 'robots.txt',
        hint: 'Closed pages are known and not fetched; or fetched too, and reported as closed.',
        options: [
          { value: 'obey', label: 'Obey it' },
          { value: 'look-past', label: 'Ignore it, and report' },
        ],
      },
      {
        type: 'text',
        name: 'userAgent',
        label: 'Agent string',
        wide: true,
        hint: 'Sent with every request as User-Agent.',
      },
      {
        type: 'text',
        name: 'token',
        label: 'Product token',
        hint: 'The name whose rules hold in robots.txt and metas.',
      },
      { type: 'text', name: 'language', label: 'Language', example: 'en, fr;q=0.8', hint: 'Sent as Accept-Language.' },
      {
        type: 'flag',
        name: 'keepCookies',
        label: 'Keep cookies',
        hint: 'Send back what the site sets, within one crawl.',
      },
    ],
  },
  {
    id: 'links',
    title: 'What is followed and checked',
    about: 'Click links are always followed. What is not followed stays known.',
    fields: [
      {
        type: 'flag',
        name: 'follow.nofollow',
        label: 'Links with nofollow',
        hint: 'Also sponsored and ugc, and pages with nofollow.',
      },
      { type: 'flag', name: 'follow.refresh', label: 'Meta refresh', hint: 'Costs no click, as redirects do.' },
      { type: 'flag', name: 'follow.canonical', label: 'Canonical', hint: 'Pages that only a canonical names.' },
      { type: 'flag', name: 'follow.hreflang', label: 'hreflang', hint: 'Pages that only an hreflang names.' },
      { type: 'flag', name: 'follow.paging', label: 'next and prev', hint: 'From the head of the page.' },
      { type: 'flag', name: 'follow.amphtml', label: 'amphtml', hint: 'Editions for mobile readers.' },
      { type: 'flag', name: 'follow.iframe', label: 'iframe', hint: 'Framed pages of the site.' },
      { type: 'flag', name: 'fragments', label: 'Check fragments', hint: 'Whether #… names something on its page.' },
      { type: 'flag', name: 'check.image', label: 'Check images', hint: 'Ask whether each answers.' },
      { type: 'flag', name: 'check.script', label: 'Check scripts', hint: 'Ask whether each answers.' },
      { type: 'flag', name: 'check.style', label: 'Check styles', hint: 'Ask whether each answers.' },
      { type: 'flag', name: 'check.other', label: 'Check other files', hint: 'Video, audio, icons, embedded files.' },
      {
        type: 'choice',
        name: 'external',
        label: 'Links outside',
        hint: 'Checking asks each address once, by HEAD and if need be by GET.',
        options: [
          { value: 'record', label: 'Record them' },
          { value: 'check', label: 'Check whether they answer' },
        ],
      },
      {
        type: 'number',
        name: 'externalLimit',
        label: 'Check at most',
        unit: 'outside',
        empty: '1,000',
        low: 1,
        high: 10_000_000,
        hint: 'Only when they are checked.',
        whole: true,
      },
    ],
  },
  {
    id: 'sitemaps',
    title: 'Sitemaps',
    about: 'What they list is compared with what links reach.',
    fields: [
      {
        type: 'flag',
        name: 'sitemapsFromRobots',
        label: 'Those robots.txt names',
        hint: 'Read with the indexes they belong to.',
      },
      {
        type: 'flag',
        name: 'usualSitemaps',
        label: 'The usual places',
        hint: '/sitemap.xml and its like, when none is named.',
      },
      { type: 'lines', name: 'sitemaps', label: 'Further sitemaps', read: anAddress, hint: 'One URL a line.' },
    ],
  },
  {
    id: 'network',
    title: 'The network',
    about: 'To map a copy of a site under its final name.',
    fields: [
      {
        type: 'lines',
        name: 'overrides',
        label: 'Address overrides',
        read: anOverride,
        hint: 'host=address:port, one a line, as a hosts file would.',
        example: 'www.example.org=127.0.0.1:8080',
        write: formatOverride,
      } as Field,
      {
        type: 'flag',
        name: 'acceptCertificates',
        label: 'Accept certificates that cannot be checked',
        hint: 'Self-made ones of a staging copy.',
      },
    ],
  },
  {
    id: 'reading',
    title: 'How it is read',
    about: 'What the model makes of what was found. A change holds from the next crawl on.',
    fields: [
      {
        type: 'lines',
        name: 'sections',
        label: 'Sections',
        read: aSection,
        write: (({ pattern, name }: { pattern: string; name: string }) => `${pattern} = ${name}`) as (
          value: never,
        ) => string,
        hint: 'Pattern = name, one a line; the first that matches. Else the first part of the path is the section.',
        example: '/shop/* = Shop',
      },
      {
        type: 'number',
        name: 'nearTolerance',
        label: 'Near-duplicates differ in',
        unit: 'of 64 bits',
        empty: '3',
        low: 0,
        high: 6,
        hint: 'Of their fingerprints. 0 finds pages that are alike word by word only.',
        whole: true,
      },
      {
        type: 'number',
        name: 'weights.header',
        label: 'A link in a header weighs',
        unit: 'times',
        empty: '1',
        low: 0,
        high: 100,
        hint: 'In share, where a link in the main part weighs 1.',
        whole: false,
      },
      {
        type: 'number',
        name: 'weights.nav',
        label: 'A link in a navigation weighs',
        unit: 'times',
        empty: '1',
        low: 0,
        high: 100,
        hint: 'Menus repeat on every page; less makes room for the others.',
        whole: false,
      },
      {
        type: 'number',
        name: 'weights.aside',
        label: 'A link in an aside weighs',
        unit: 'times',
        empty: '1',
        low: 0,
        high: 100,
        hint: 'Related pages, teasers.',
        whole: false,
      },
      {
        type: 'number',
        name: 'weights.footer',
        label: 'A link in a footer weighs',
        unit: 'times',
        empty: '1',
        low: 0,
        high: 100,
        hint: 'Imprint, contact, social media.',
        whole: false,
      },
      {
        type: 'number',
        name: 'thresholds.deepClicks',
        label: 'Far from the start is more than',
        unit: 'clicks',
        empty: '3',
        low: 1,
        high: 10_000,
        hint: 'Where the finding begins.',
        whole: true,
      },
      {
        type: 'number',
        name: 'thresholds.starvingShare',
        label: 'Starving is a share below',
        unit: 'times',
        empty: '0.3',
        low: 0,
        high: 1000,
        hint: 'Of an even split.',
        whole: false,
      },
      {
        type: 'number',
        name: 'thresholds.crowdedLinks',
        label: 'Crowded is more than',
        unit: 'pages linked',
        empty: '150',
        low: 1,
        high: 1_000_000,
        hint: 'From one page.',
        whole: true,
      },
      {
        type: 'number',
        name: 'thresholds.gatePages',
        label: 'A gate stands before',
        unit: 'pages',
        empty: '10',
        low: 1,
        high: 10_000_000,
        hint: 'Or more.',
        whole: true,
      },
      {
        type: 'number',
        name: 'thresholds.thinWords',
        label: 'Hardly any words is less than',
        unit: 'words',
        empty: '50',
        low: 0,
        high: 100_000,
        hint: 'In the main part of a page.',
        whole: true,
      },
    ],
  },
];

export const allFields = fieldGroups.flatMap(({ fields }) => fields);

/** What stands in the fields, by name. */
export type Typed = Record<string, string>;
/** What is wrong, by field. */
export type Faults = Record<string, string>;

type Nested = Record<string, unknown>;
function valueOf(settings: Nested, name: string): unknown {
  return name.split('.').reduce<unknown>((at, part) => (at as Nested)[part], settings);
}
function setValue(settings: Nested, name: string, value: unknown): void {
  const path = name.split('.');
  const last = path.pop()!;
  let at = settings;
  for (const part of path) at = (at[part] ??= {}) as Nested;
  at[last] = value;
}

/** Settings as they stand in the fields. */
export function typedOf(settings: CrawlSettings): Typed {
  const typed: Typed = { start: settings.start };
  for (const field of allFields) {
    const value = valueOf(settings as unknown as Nested, field.name);
    if (field.type === 'flag') typed[field.name] = value ? 'on' : '';
    else if (field.type === 'lines')
      typed[field.name] = (value as never[]).map((one) => (field.write ? field.write(one) : String(one))).join('\n');
    else typed[field.name] = value === null ? '' : String(value);
  }
  return typed;
}

function readField(field: Field, text: string, faults: Faults): unknown {
  if (field.type === 'flag') return text === 'on';
  if (field.type === 'lines')
    return text
      .split('\n')
      .map((line) => line.trim())
      .filter(Boolean)
      .flatMap((line) => {
        const read = field.read(line);
        if (typeof read !== 'string') return [read.value];
        faults[field.name] ??= read;
        return [];
      });
  if (field.type !== 'number') return text || undefined;
  // Left empty, a number has its default.
  if (text === '') return undefined;
  const value = Number(text.replaceAll(/[\s,]/g, ''));
  if (value >= field.low && value <= field.high && (!field.whole || Number.isInteger(value))) return value;
  faults[field.name] =
    `Give a ${field.whole ? 'whole ' : ''}number from ${field.low.toLocaleString('en')} to ${field.high.toLocaleString('en')}.`;
  return undefined;
}

/** A folder as settings have it: `/…/`, or '' for the whole site. */
export function folderOf(typed: string): string {
  const folder = `/${typed.trim()}/`.replace(/\/+/g, '/');
  return folder === '/' ? '' : folder;
}

export type ReadSettings = { ok: true; settings: CrawlSettings } | { ok: false; faults: Faults; typed: Typed };

/**
 * Reads the fields of a form; what is wrong is said field by field, and what was typed is kept.
 * @param parse fills in defaults and checks what fields cannot
 */
export function readSettingsForm(form: FormData, parse: (given: unknown) => ParsedSettings): ReadSettings {
  const text = (name: string) => String(form.get(name) ?? '').trim();
  const typed: Typed = { start: text('start') };
  const faults: Faults = {};
  const given: Nested = {};
  const start = readStartAddress(typed.start);
  if (start.ok) given.start = start.address;
  else faults.start = start.message;
  for (const field of allFields) {
    typed[field.name] = text(field.name);
    setValue(given, field.name, readField(field, typed[field.name], faults));
  }
  const folder = folderOf(typed.folder);
  given.folder = folder;
  if (start.ok && folder && !new URL(start.address).pathname.startsWith(folder))
    faults.folder = `The start address is not under ${folder}.`;
  if (Object.keys(faults).length) return { ok: false, faults, typed };
  const parsed = parse(given);
  if (parsed.success) return { ok: true, settings: parsed.data };
  for (const { path, message } of parsed.error.issues) faults[fieldOfPath(path)] ??= `It ${message}.`;
  return { ok: false, faults, typed };
}

/** What Zod's safeParse answers, as far as it is needed here; the browser need not load Zod for that. */
export type ParsedSettings =
  | { success: true; data: CrawlSettings }
  | { success: false; error: { issues: { path: PropertyKey[]; message: string }[] } };

function fieldOfPath(path: readonly PropertyKey[]): string {
  const names = path.map(String);
  return allFields.find(({ name }) => name === names.slice(0, name.split('.').length).join('.'))?.name ?? 'start';
}
