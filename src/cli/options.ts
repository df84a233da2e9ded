import { parseArgs } from 'node:util';
import { readFileSync } from 'node:fs';
import { parseOverride, readSettingsFile, settingsSchema } from '$core/settings';
import type { CrawlSettings } from '$core/settings';
import { identify, readStartAddress } from '$core/url';

/** Something wrong with how the program was called; its message says what. */
export class UsageError extends Error {}

export interface CrawlCall {
  settings: CrawlSettings;
  /** Folder for pages.csv, links.csv and summary.json. */
  out: string | null;
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
    throw new UsageError((error as Error).message.replaceAll("'", '').replace(/\. To specify.*$/s, '.'));
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
  return { settings: settings.data, out: values.out ?? null };
}
