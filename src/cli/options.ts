import { parseArgs } from 'node:util';
import { readFileSync } from 'node:fs';
import { parseOverride, readSettingsFile, settingsSchema } from '$core/settings';
import type { CrawlSettings } from '$core/settings';
import { parseSelection } from '$core/selection';
import type { Selection, SelectionFault } from '$core/selection';
import { shareModels } from '$core/share';
import type { ShareModel } from '$core/share';
import { isFactName } from '$core/snapshot';
import type { FactName } from '$core/snapshot';
import { identify, readStartAddress } from '$core/url';

/** Something wrong with how the program was called; its message says what. */
export class UsageError extends Error {}

/** How a finished crawl is looked at. */
export interface View {
  select: Selection;
  /** Order of pages.csv; by address when absent. */
  sort: { fact: FactName; descending: boolean } | null;
  shareModel: ShareModel;
}

export interface CrawlCall {
  settings: CrawlSettings;
  /** Folder for pages.csv, links.csv and summary.json. */
  out: string | null;
  view: View;
}

export interface ExportCall {
  crawl: number;
  out: string;
  view: View;
}

export interface SelectCall {
  crawl: number;
  view: View;
}

const viewOptions = {
  select: { type: 'string' },
  sort: { type: 'string' },
  'share-model': { type: 'string' },
} as const;

/** Says where a selection is at fault, with a mark under the place. */
const pointAt = (text: string, { message, at, length }: SelectionFault) =>
  `${message}\n  ${text}\n  ${' '.repeat(at)}${'^'.repeat(Math.max(1, length))}`;

function readView(values: { select?: string; sort?: string; 'share-model'?: string }): View {
  const text = values.select ?? '';
  const parsed = parseSelection(text);
  if (!parsed.ok) throw new UsageError(`The selection cannot be read. ${pointAt(text, parsed.fault)}`);
  const [fact, direction, more] = (values.sort ?? '').split(':');
  const shareModel = values['share-model'] ?? 'site';
  if (!shareModels.includes(shareModel as ShareModel))
    throw new UsageError(`--share-model takes ${shareModels.join(' or ')}, not “${shareModel}”.`);
  if (
    values.sort !== undefined &&
    (!isFactName(fact) || more !== undefined || !['asc', 'desc', undefined].includes(direction))
  )
    throw new UsageError(`--sort takes a fact, as depth or share:desc, not “${values.sort}”.`);
  return {
    select: parsed.selection,
    sort: values.sort === undefined ? null : { fact: fact as FactName, descending: direction === 'desc' },
    shareModel: shareModel as ShareModel,
  };
}

/** What the parser of options says, in our words. */
const usageError = (error: unknown) =>
  new UsageError((error as Error).message.replaceAll("'", '').replace(/\. To specify.*$/s, '.'));

function crawlNumber(text: string | undefined): number {
  if (text === undefined || !/^\d+$/.test(text)) throw new UsageError('Give the number of a crawl.');
  return Number(text);
}

/** Reads the words after `edgemap export`. @throws UsageError */
export function readExportCall(words: string[]): ExportCall {
  let parsed;
  try {
    parsed = parseArgs({ args: words, allowPositionals: true, options: { ...viewOptions, out: { type: 'string' } } });
  } catch (error) {
    throw usageError(error);
  }
  const { values, positionals } = parsed;
  if (positionals.length > 1) throw new UsageError(`What is “${positionals[1]}”? A selection follows --select.`);
  const crawl = crawlNumber(positionals[0]);
  if (!values.out) throw new UsageError('Say where to: --out FOLDER.');
  return { crawl, out: values.out, view: readView(values) };
}

/** Reads the words after `edgemap select`. @throws UsageError */
export function readSelectCall(words: string[]): SelectCall {
  let parsed;
  try {
    const { sort, 'share-model': model } = viewOptions;
    parsed = parseArgs({ args: words, allowPositionals: true, options: { sort, 'share-model': model } });
  } catch (error) {
    throw usageError(error);
  }
  const { values, positionals } = parsed;
  const crawl = crawlNumber(positionals[0]);
  if (positionals.length > 2) throw new UsageError('Put the selection in quotes.');
  return { crawl, view: readView({ ...values, select: positionals[1] }) };
}

function wholeNumber(name: string, text: string | undefined): number | undefined {
  if (text === undefined) return undefined;
  if (!/^\d+$/.test(text)) throw new UsageError(`--${name} takes a whole number, not “${text}”.`);
  return Number(text);
}

function positiveNumber(name: string, text: string | undefined): number | undefined {
  if (text === undefined) return undefined;
  if (!/^\d+(\.\d+)?$/.test(text) || Number(text) === 0)
    throw new UsageError(`--${name} takes a number above 0, not “${text}”.`);
  return Number(text);
}

/** The settings of a file that the settings screen has exported. */
function readFile(file: string): object {
  let text: string;
  try {
    text = readFileSync(file, 'utf8');
  } catch (error) {
    throw new UsageError(`--settings: ${(error as Error).message}`);
  }
  const read = readSettingsFile(text);
  if (!read.ok) throw new UsageError(`--settings: ${read.message}`);
  return read.settings;
}

/**
 * Reads the words after `edgemap crawl`.
 * @throws UsageError
 */
export function readCrawlCall(words: string[]): CrawlCall {
  let parsed;
  try {
    parsed = parseArgs({
      args: words,
      allowPositionals: true,
      options: {
        ...viewOptions,
        limit: { type: 'string' },
        depth: { type: 'string' },
        settings: { type: 'string' },
        rate: { type: 'string' },
        host: { type: 'string', multiple: true },
        include: { type: 'string', multiple: true },
        exclude: { type: 'string', multiple: true },
        connections: { type: 'string' },
        'obey-robots': { type: 'boolean' },
        'look-past-robots': { type: 'boolean' },
        sitemap: { type: 'string', multiple: true },
        override: { type: 'string', multiple: true },
        insecure: { type: 'boolean' },
        out: { type: 'string' },
      },
    });
  } catch (error) {
    throw usageError(error);
  }
  const { values, positionals } = parsed;
  if (positionals.length !== 1) throw new UsageError('Give one address to start from.');
  const start = readStartAddress(positionals[0]);
  if (!start.ok) throw new UsageError(start.message);
  if (values['obey-robots'] && values['look-past-robots'])
    throw new UsageError('--obey-robots and --look-past-robots exclude each other.');
  const sitemaps = (values.sitemap ?? []).map((text) => {
    const address = identify(text)?.address;
    if (!address) throw new UsageError(`--sitemap takes a URL, not “${text}”.`);
    return address;
  });
  const overrides = (values.override ?? []).map((text) => {
    const override = parseOverride(text);
    if (!override) throw new UsageError(`--override takes host=address:port, not “${text}”.`);
    return override;
  });
  const given = {
    start: start.address,
    limit: wholeNumber('limit', values.limit),
    depth: wholeNumber('depth', values.depth),
    connections: wholeNumber('connections', values.connections),
    rate: positiveNumber('rate', values.rate),
    hosts: values.host,
    include: values.include,
    exclude: values.exclude,
    robots: values['look-past-robots'] ? 'look-past' : values['obey-robots'] ? 'obey' : undefined,
    sitemaps: values.sitemap && sitemaps,
    overrides: values.override && overrides,
    acceptCertificates: values.insecure,
  };
  // Options go before what the file says; an option that is not given says nothing.
  const said = Object.fromEntries(Object.entries(given).filter(([, value]) => value !== undefined));
  const settings = settingsSchema.safeParse({ ...(values.settings ? readFile(values.settings) : {}), ...said });
  if (!settings.success) {
    const { path, message } = settings.error.issues[0];
    throw new UsageError(`--${path.join('.')}: ${message}`);
  }
  return { settings: settings.data, out: values.out ?? null, view: readView(values) };
}
