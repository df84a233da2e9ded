import { parseArgs } from 'node:util';
import { parseOverride, settingsSchema } from '$core/settings';
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
  const settings = settingsSchema.safeParse({
    start: start.address,
    limit: wholeNumber('limit', values.limit),
    depth: wholeNumber('depth', values.depth),
    connections: wholeNumber('connections', values.connections),
    robots: values['look-past-robots'] ? 'look-past' : 'obey',
    sitemaps,
    overrides,
    acceptCertificates: values.insecure ?? false,
  });
  if (!settings.success) {
    const { path, message } = settings.error.issues[0];
    throw new UsageError(`--${path.join('.')}: ${message}`);
  }
  return { settings: settings.data, out: values.out ?? null };
}
