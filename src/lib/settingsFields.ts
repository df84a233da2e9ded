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
  const host = line.toLowerCase().replace(/^https?:\/\//, '').replace(/\/$/, ''); // prettier-ignore
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

const number = (name: string, label: string, unit: string, empty: string, low: number, high: number, hint: string, whole = true): Field => ({ type: 'number', name, label, unit, empty, low, high, hint, whole }); // prettier-ignore
const flag = (name: string, label: string, hint: string): Field => ({ type: 'flag', name, label, hint });
const lines = (name: string, label: string, read: LineReader, hint: string, example = ''): Field => ({ type: 'lines', name, label, read, hint, example }); // prettier-ignore

export const fieldGroups: FieldGroup[] = [
  {
    id: 'scope',
    title: 'What belongs to the site',
    about: 'Everything inside is a page of the model; everything else is outside and only linked to.',
    fields: [
      lines('starts', 'Further start addresses', anAddress, 'One a line. They count as depth 0, as the first does.'),
      lines('lists', 'Lists of URLs', anAddress, 'Addresses you know from elsewhere, one a line. They are fetched after the linked ones.'), // prettier-ignore
      lines('hosts', 'Further hosts', aHost, 'Hosts that belong to the site besides its own, one a line.', 'shop.example.org'), // prettier-ignore
      { type: 'text', name: 'folder', label: 'Only under the folder', example: '/fr/', hint: 'Pages elsewhere count as outside. Empty for the whole site.' }, // prettier-ignore
      lines('include', 'Fetch only', aPattern, 'Patterns, one a line: * for anything, $ for the end. Empty for everything.', '/visit/*'), // prettier-ignore
      lines('exclude', 'Leave out', aPattern, 'Matching addresses are known and not fetched. These go before the ones at the left.', '*sort=*'), // prettier-ignore
      lines('dropParameters', 'Parameters to drop', asIs, 'Query parameters that do not tell pages apart, one a line.', 'utm_source'), // prettier-ignore
      flag('subdomains', 'Subdomains are inside', 'Any host that ends with one of the hosts.'),
      flag('sortParameters', 'Order of parameters does not matter', 'Addresses that differ in it only are one page.'),
    ],
  },
  {
    id: 'limits',
    title: 'Where it ends',
    about: 'A crawl that meets a limit says so, and can go on with a higher one.',
    fields: [
      number('limit', 'At most', 'pages', '100,000', 1, 10_000_000, 'The crawl ends there.'),
      number('depth', 'No deeper than', 'clicks', 'any', 0, 10_000, 'What lies deeper is known, not fetched.'),
      number('minutes', 'No longer than', 'minutes', 'any', 1, 100_000, 'Pauses do not count.'),
      number('megabytes', 'No more than', 'MiB received', 'any', 1, 10_000_000, 'Of all answers together.'),
      number('bodyMegabytes', 'Read at most', 'MiB of a page', '20', 1, 100, 'Longer pages are read in part, and marked.'), // prettier-ignore
      number('trapLimit', 'Fetch at most', 'of a trap', '500', 10, 10_000_000, 'Of addresses like calendars, which never end.'), // prettier-ignore
    ],
  },
  {
    id: 'pace',
    title: 'How hard the site is hit',
    about: 'Rates hold for each host, across all workers.',
    fields: [
      number('connections', 'Connections', 'at once', '8', 1, 64, 'Fewer are kinder to the server.'),
      number('rate', 'No more than', 'requests a second', 'any', 0.01, 1000, 'To one host; 0.5 is one every two seconds.', false), // prettier-ignore
      number('retries', 'Try again', 'times', '2', 0, 10, 'After time-outs, broken connections, 429 and 5xx.'),
      flag('keepCrawlDelay', 'Keep to Crawl-delay', 'Wait between requests as robots.txt asks, when it is obeyed.'),
    ],
  },
  {
    id: 'reader',
    title: 'Who asks',
    about: 'Some sites answer readers differently; rules may name a crawler.',
    fields: [
      { type: 'choice', name: 'robots', label: 'robots.txt', hint: 'Closed pages are known and not fetched; or fetched too, and reported as closed.', options: [{ value: 'obey', label: 'Obey it' }, { value: 'look-past', label: 'Look past it, and report' }] }, // prettier-ignore
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
      flag('keepCookies', 'Keep cookies', 'Send back what the site sets, within one crawl.'),
    ],
  },
  {
    id: 'links',
    title: 'What is followed and checked',
    about: 'Click links are always followed. What is not followed stays known.',
    fields: [
      flag('follow.nofollow', 'Links with nofollow', 'Also sponsored and ugc, and pages with nofollow.'),
      flag('follow.refresh', 'Meta refresh', 'Costs no click, as redirects do.'),
      flag('follow.canonical', 'Canonical', 'Pages that only a canonical names.'),
      flag('follow.hreflang', 'hreflang', 'Pages that only an hreflang names.'),
      flag('follow.paging', 'next and prev', 'From the head of the page.'),
      flag('follow.amphtml', 'amphtml', 'Editions for mobile readers.'),
      flag('follow.iframe', 'iframe', 'Framed pages of the site.'),
      flag('fragments', 'Check fragments', 'Whether #… names something on its page.'),
      flag('check.image', 'Check images', 'Ask whether each answers.'),
      flag('check.script', 'Check scripts', 'Ask whether each answers.'),
      flag('check.style', 'Check styles', 'Ask whether each answers.'),
      flag('check.other', 'Check other files', 'Video, audio, icons, embedded files.'),
      { type: 'choice', name: 'external', label: 'Links outside', hint: 'Checking asks each address once, by HEAD and if need be by GET.', options: [{ value: 'record', label: 'Record them' }, { value: 'check', label: 'Check whether they answer' }] }, // prettier-ignore
      number('externalLimit', 'Check at most', 'outside', '1,000', 1, 10_000_000, 'Only when they are checked.'),
    ],
  },
  {
    id: 'sitemaps',
    title: 'Sitemaps',
    about: 'What they list is compared with what links reach.',
    fields: [
      flag('sitemapsFromRobots', 'Those robots.txt names', 'Read with the indexes they belong to.'),
      flag('usualSitemaps', 'The usual places', '/sitemap.xml and its like, when none is named.'),
      lines('sitemaps', 'Further sitemaps', anAddress, 'One URL a line.'),
    ],
  },
  {
    id: 'network',
    title: 'The network',
    about: 'To map a copy of a site under its final name.',
    fields: [
      { ...lines('overrides', 'Address overrides', anOverride, 'host=address:port, one a line, as a hosts file would.', 'www.example.org=127.0.0.1:8080'), write: formatOverride } as Field, // prettier-ignore
      flag('acceptCertificates', 'Accept certificates that cannot be checked', 'Self-made ones of a staging copy.'),
    ],
  },
  {
    id: 'reading',
    title: 'How it is read',
    about: 'What the model makes of what was found. A change holds from the next crawl on.',
    fields: [
      { type: 'lines', name: 'sections', label: 'Sections', read: aSection, write: (({ pattern, name }: { pattern: string; name: string }) => `${pattern} = ${name}`) as (value: never) => string, hint: 'Pattern = name, one a line; the first that matches. Else the first part of the path is the section.', example: '/shop/* = Shop' }, // prettier-ignore
      number('nearTolerance', 'Near-duplicates differ in', 'of 64 bits', '3', 0, 6, 'Of their fingerprints. 0 finds pages that are alike word by word only.'), // prettier-ignore
      number('weights.header', 'A link in a header weighs', 'times', '1', 0, 100, 'In share, where a link in the main part weighs 1.', false), // prettier-ignore
      number('weights.nav', 'A link in a navigation weighs', 'times', '1', 0, 100, 'Menus repeat on every page; less makes room for the others.', false), // prettier-ignore
      number('weights.aside', 'A link in an aside weighs', 'times', '1', 0, 100, 'Related pages, teasers.', false),
      number(
        'weights.footer',
        'A link in a footer weighs',
        'times',
        '1',
        0,
        100,
        'Imprint, contact, social media.',
        false,
      ),
      number('thresholds.deepClicks', 'Far from the start is more than', 'clicks', '3', 1, 10_000, 'Where the finding begins.'), // prettier-ignore
      number(
        'thresholds.starvingShare',
        'Starving is a share below',
        'times',
        '0.3',
        0,
        1000,
        'Of an even split.',
        false,
      ),
      number('thresholds.crowdedLinks', 'Crowded is more than', 'pages linked', '150', 1, 1_000_000, 'From one page.'),
      number('thresholds.gatePages', 'A gate stands before', 'pages', '10', 1, 10_000_000, 'Or more.'),
      number('thresholds.thinWords', 'Hardly any words is less than', 'words', '50', 0, 100_000, 'In the main part of a page.'), // prettier-ignore
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
  faults[field.name] = `Give a ${field.whole ? 'whole ' : ''}number from ${field.low.toLocaleString('en')} to ${field.high.toLocaleString('en')}.`; // prettier-ignore
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
