/** Imports a file: reads it as it comes, and stores all of it or nothing. */
import { createHash } from 'node:crypto';
import { BlockList, isIP } from 'node:net';
import type { ImportKind } from '$core/imports';
import { scopeOf } from '$core/scope';
import type { ScopeSettings } from '$core/scope';
import { pagesOfAddresses } from '$core/snapshot';
import type { Database } from '../database';
import { requestAnalysis } from '../jobs';
import { readFacts } from '../snapshots';
import { importOfFile, newestEnded, saveImport } from './imports';
import type { Reject, UrlImport } from './imports';
import { decompressed } from './lines';
import { previewList, readList } from './readList';
import type { ListPreview } from './readList';
import { readLog } from './readLog';
import type { ListChoices, Reading } from './reading';
import { failure, isError } from '$core/errors';

/** Rejected lines that are stored; all of them can be written as they come. */
const MAX_REJECTS = 10_000;
const MAX_TEXT = 200;

const hostFirst = /^[a-z0-9-]+(\.[a-z0-9-]+)+(:\d+)?(\/|$)/i;

/** Resolves what a file names against the site: whole addresses, paths, and hosts without scheme. */
function resolver(settings: ScopeSettings): Reading['resolve'] {
  const { inside, identify: identified } = scopeOf(settings);
  const { protocol } = new URL(settings.start);
  return (href) => {
    const whole = hostFirst.test(href) ? identified(`${protocol}//${href}`)?.address : undefined;
    const address = whole && inside(whole) ? whole : identified(href, settings.start)?.address;
    if (!address) return { code: 'not_an_address', text: href.slice(0, MAX_TEXT) };
    return inside(address) ? { address } : { code: 'outside_site', address: address.slice(0, MAX_TEXT) };
  };
}

export interface FileToImport {
  kind: ImportKind;
  /** What the source is called. */
  name: string;
  /** The name of the file. */
  file: string;
  bytes: AsyncIterable<Uint8Array>;
  list: ListChoices;
  /** Addresses and subnets of search crawlers, as `192.0.2.0/24`; null when only the user agent tells. */
  crawlerAddresses: readonly string[] | null;
  /** Told how many lines have been read, now and then. */
  onProgress?: (lines: number) => void;
  /** Told of each line that is left out. */
  onReject?: (reject: Reject) => void;
  signal?: AbortSignal;
}

export interface ImportOutcome {
  id: number;
  lines: number;
  /** Distinct addresses of the site. */
  addresses: number;
  /** How many of them the newest crawl knows, and how many it does not. */
  matched: number;
  fresh: number;
  rejected: number;
  /** The import of the same file that there was; when it has the number `id`, nothing has changed. */
  before: UrlImport | null;
}

const PROGRESS_LINES = 20_000;

/** @throws import when a line is no address or subnet */
export function addressTest(lines: readonly string[]): (client: string) => boolean {
  const list = new BlockList();
  for (const line of lines) {
    const [address, bits] = line.trim().split('/');
    const family = isIP(address);
    const most = family === 4 ? 32 : 128;
    const length = bits === undefined ? most : Number(bits);
    if (!family || !(length >= 0 && length <= most))
      throw failure('import', `“${line.trim()}” is no IP address or subnet, such as 192.0.2.0/24.`);
    list.addSubnet(address, length, family === 4 ? 'ipv4' : 'ipv6');
  }
  return (client) => {
    const family = isIP(client);
    return family > 0 && list.check(client, family === 4 ? 'ipv4' : 'ipv6');
  };
}

/** Hashes a stream as it passes, and ends it when the signal comes. */
async function* watched(bytes: AsyncIterable<Uint8Array>, take: (piece: Uint8Array) => void, signal?: AbortSignal) {
  for await (const piece of bytes) {
    signal?.throwIfAborted();
    take(piece);
    yield piece;
  }
}

/** How many of some addresses the newest crawl of a site knows. */
async function countMatched(db: Database, siteId: number, addresses: readonly string[]): Promise<number> {
  const newest = await newestEnded(db, siteId);
  if (!newest) return 0;
  const snapshot = await readFacts(db, newest).catch(async (error: unknown) => {
    if (!isError(error, 'snapshot_version')) throw error;
    await requestAnalysis(db, newest.id);
    throw failure(
      'import',
      `Crawl ${newest.id} was analysed by another version of Edge Map and is analysed anew. Import the file when that is done; nothing was imported.`,
    );
  });
  return snapshot ? pagesOfAddresses(snapshot, addresses).reduce((n, page) => n + Number(page >= 0), 0) : 0;
}

/**
 * Imports a list or an access log into a site. It counts for the newest crawl at once, and for later ones.
 * @throws import when the file cannot be read; whatever ends the stream; then nothing is stored
 */
export async function importFile(
  db: Database,
  site: { id: number; settings: ScopeSettings },
  { kind, name, file, bytes, list, crawlerAddresses, onProgress, onReject, signal }: FileToImport,
): Promise<ImportOutcome> {
  const hash = createHash('sha256');
  const rejects: Reject[] = [];
  let [lines, rejected] = [0, 0];
  const reading: Reading = {
    start: site.settings.start,
    resolve: resolver(site.settings),
    count: () => {
      if (++lines % PROGRESS_LINES === 0) onProgress?.(lines);
    },
    reject: (line, reason) => {
      rejected++;
      if (rejects.length < MAX_REJECTS) rejects.push({ line, reason });
      onReject?.({ line, reason });
    },
  };
  const isTheirs = crawlerAddresses && addressTest(crawlerAddresses);
  const content = decompressed(watched(bytes, (piece) => hash.update(piece), signal));
  const found = kind === 'log' ? await readLog(reading, content, isTheirs) : await readList(reading, content, list);
  signal?.throwIfAborted();
  if (lines === 0) throw failure('import', 'The file holds no lines. Nothing was imported.');
  if (found.addresses.length === 0)
    throw failure(
      'import',
      `None of the ${lines.toLocaleString('en')} lines names an address of the site${kind === 'log' ? '; is the file an access log of it?' : '.'} Nothing was imported.`,
    );
  // The same file, read in another way, is another source.
  hash.update(JSON.stringify([kind, list.column, crawlerAddresses]));
  const digest = hash.digest('hex').slice(0, 32);
  // Found out before anything is stored: a crawl that cannot be opened is told, and leaves nothing.
  const matched = await countMatched(db, site.id, found.addresses);
  const before = await importOfFile(db, site.id, digest);
  const isSame = before?.name === name && before.urls === found.addresses.length && before.rejected === rejected;
  const given = { ...found, kind, name, file: file.slice(0, 255), digest, lines, rejected, rejects };
  const id = isSame ? before.id : await saveImport(db, site.id, given, true);
  const addresses = found.addresses.length;
  return { id, lines, addresses, matched, fresh: addresses - matched, rejected, before };
}

/** Says how a list would be imported, by its beginning. @throws import */
export function previewFile(
  settings: ScopeSettings,
  bytes: AsyncIterable<Uint8Array>,
  choices: ListChoices,
): Promise<ListPreview> {
  const reading: Reading = { start: settings.start, resolve: resolver(settings), count: () => {}, reject: () => {} };
  return previewList(reading, decompressed(bytes), choices);
}
