/** How the words of the command line are read: each option by a function that says what is wrong with it. */
import { readFileSync } from 'node:fs';
import { InvalidArgumentError } from 'commander';
import { readMapRules } from '$core/compare';
import type { MapRule } from '$core/compare';
import { isColumnName } from '$core/facts';
import type { ColumnName } from '$core/facts';
import { parseSelection } from '$core/selection';
import type { Selection, SelectionFault } from '$core/selection';
import { parseOverride, readSettingsFile, settingsSchema } from '$core/settings';
import type { AddressOverride, CrawlSettings } from '$core/settings';
import type { ShareModel } from '$core/share';
import { identify, originOf, readStartAddress } from '$core/url';
import { failure } from '$core/errors';

/** How a finished crawl is looked at. */
export interface ViewOptions {
  select: Selection;
  /** Order of pages.csv; by address when absent. */
  sort: { fact: ColumnName; descending: boolean } | null;
  shareModel: ShareModel;
}
export const wholeView: ViewOptions = { select: { op: 'all' }, sort: null, shareModel: 'site' };

/** Gathers the values of an option that may be given several times. */
export const gathered =
  <T>(read: (text: string) => T) =>
  (text: string, before: T[] = []): T[] => [...before, read(text)];

const refuse = (message: string): never => {
  throw new InvalidArgumentError(message);
};

export const asWholeNumber = (text: string): number =>
  /^\d+$/.test(text) ? Number(text) : refuse(`It takes a whole number, not “${text}”.`);

export const asAtLeastOne = (text: string): number =>
  asWholeNumber(text) || refuse('It takes a whole number from 1 on.');

export const asRate = (text: string): number =>
  /^\d+(\.\d+)?$/.test(text) && Number(text) > 0 ? Number(text) : refuse(`It takes a number above 0, not “${text}”.`);

export const asScore = (text: string): number =>
  /^(0|1|0?\.\d+)$/.test(text) ? Number(text) : refuse(`It takes a number from 0 to 1, not “${text}”.`);

export const asCrawlNumber = (text: string): number =>
  /^\d+$/.test(text) ? Number(text) : refuse(`Give the number of a crawl, not “${text}”.`);

export const asUrl = (text: string): string => identify(text)?.address ?? refuse(`It takes a URL, not “${text}”.`);

/** Scheme, host and port of an address. */
export const asOrigin = (text: string): string => originOf(asUrl(text));

export const asOverride = (text: string): AddressOverride =>
  parseOverride(text) ?? refuse(`It takes host=address:port, not “${text}”.`);

/** Two hosts, the one and what it counts as. */
export function asMapRule(text: string): MapRule {
  const { rules, fault } = readMapRules(text);
  return rules.length === 1 && fault === null ? rules[0] : refuse(`It takes host=host, not “${text}”.`);
}

export function asStart(text: string): string {
  const start = readStartAddress(text);
  return start.ok ? start.address : refuse(start.message);
}

/** Says where a selection is at fault, with a mark under the place. */
const pointAt = (text: string, { message, at, length }: SelectionFault) =>
  `${message}\n  ${text}\n  ${' '.repeat(at)}${'^'.repeat(Math.max(1, length))}`;

export function asSelection(text: string): Selection {
  const parsed = parseSelection(text);
  return parsed.ok ? parsed.selection : refuse(`The selection cannot be read. ${pointAt(text, parsed.fault)}`);
}

export function asSort(text: string): NonNullable<ViewOptions['sort']> {
  const [fact, direction = 'asc', more] = text.split(':');
  if (!isColumnName(fact) || more !== undefined || !['asc', 'desc'].includes(direction))
    return refuse(`It takes a fact, as depth or share:desc, not “${text}”.`);
  return { fact, descending: direction === 'desc' };
}

/** A file that the settings screen has exported: settings, and the lists that files of earlier versions hold. */
export interface SettingsFile {
  settings: CrawlSettings | null;
  lists: string[];
}

export function asSettingsFile(file: string): SettingsFile {
  let text = '';
  try {
    text = readFileSync(file, 'utf8');
  } catch (error) {
    refuse((error as Error).message);
  }
  const read = readSettingsFile(text);
  return read.ok ? { settings: read.settings, lists: read.lists } : refuse(read.message);
}

/** The options of `edgemap crawl` that are settings, as commander gathers them. */
export interface CrawlOptions {
  settings?: SettingsFile;
  limit?: number;
  depth?: number;
  connections?: number;
  rate?: number;
  host?: string[];
  include?: string[];
  exclude?: string[];
  obeyRobots?: true;
  ignoreRobots?: true;
  sitemap?: string[];
  override?: AddressOverride[];
  insecure?: true;
}

/**
 * The settings of a crawl: options go before what a file says; an option that is not given says nothing.
 * @throws usage
 */
export function crawlSettings(start: string, options: CrawlOptions): CrawlSettings {
  const given = {
    start,
    limit: options.limit,
    depth: options.depth,
    connections: options.connections,
    rate: options.rate,
    hosts: options.host,
    include: options.include,
    exclude: options.exclude,
    robots: options.ignoreRobots ? 'look-past' : options.obeyRobots ? 'obey' : undefined,
    sitemaps: options.sitemap,
    overrides: options.override,
    acceptCertificates: options.insecure,
  };
  const said = Object.fromEntries(Object.entries(given).filter(([, value]) => value !== undefined));
  const settings = settingsSchema.safeParse({ ...options.settings?.settings, ...said });
  if (settings.success) return settings.data;
  const { path, message } = settings.error.issues[0];
  throw failure('usage', `--${path.join('.')}: ${message}`);
}
