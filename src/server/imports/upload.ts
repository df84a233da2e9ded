/** What an upload holds, read from its bytes: the work of a thread, which nothing else waits for. */
import { createHash } from 'node:crypto';
import { BlockList, isIP } from 'node:net';
import { failure } from '$core/errors';
import type { ImportKind } from '$core/imports';
import { scopeOf } from '$core/scope';
import type { ScopeSettings } from '$core/scope';
import { inRuns } from '../database/runs';
import type { Reject } from './imports';
import { decompressed } from './lines';
import { packParts } from './pack';
import type { PackedPart } from './pack';
import { previewList, readList } from './readList';
import type { ListPreview } from './readList';
import { readLog } from './readLog';
import type { ListChoices, Reading } from './reading';

export type Bytes = AsyncIterable<Uint8Array>;

/** How an upload is to be read. */
export interface UploadTask {
  kind: ImportKind;
  settings: ScopeSettings;
  list: ListChoices;
  /** Addresses and subnets of search crawlers, as `192.0.2.0/24`; null when only the user agent tells. */
  crawlerAddresses: readonly string[] | null;
}

/** What is told while an upload is read. */
export interface UploadSink {
  /** How many lines have been read, now and then. */
  onProgress: (lines: number) => unknown;
  /** Lines that were left out. */
  onRejects: (rejects: readonly Reject[]) => unknown;
  /** The addresses of the site that it holds, ascending, some at a time. */
  onAddresses: (addresses: readonly string[]) => unknown;
}

export interface ReadUpload {
  /** Of its bytes and of how it was read. */
  digest: string;
  lines: number;
  rejected: number;
  /** The first lines that were left out. */
  rejects: Reject[];
  /** Distinct addresses of the site. */
  urls: number;
  parts: PackedPart[];
}

/** Rejected lines that are stored; all of them can be written as they come. */
const MAX_REJECTS = 10_000;
const MAX_TEXT = 200;
/** Addresses that are told together. */
const RUN = 10_000;
/** Rejects that are told together. */
const REJECTS_RUN = 1000;

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

/** Looks at each piece of a stream as it passes. */
async function* watched(bytes: Bytes, take: (piece: Uint8Array) => unknown): Bytes {
  for await (const piece of bytes) {
    await take(piece);
    yield piece;
  }
}

/** Reads an upload. @throws import when it cannot be read; whatever ends the stream */
export async function readUpload(
  { kind, settings, list, crawlerAddresses }: UploadTask,
  bytes: Bytes,
  { onProgress, onRejects, onAddresses }: UploadSink,
): Promise<ReadUpload> {
  const hash = createHash('sha256');
  const rejects: Reject[] = [];
  let untold: Reject[] = [];
  let [lines, rejected, told] = [0, 0, 0];
  const tell = async () => {
    const some = untold;
    untold = [];
    if (some.length) await onRejects(some);
    if (lines > told) await onProgress((told = lines));
  };
  const reading: Reading = {
    start: settings.start,
    resolve: resolver(settings),
    count: () => lines++,
    reject: (line, reason) => {
      rejected++;
      if (rejects.length < MAX_REJECTS) rejects.push({ line, reason });
      untold.push({ line, reason });
    },
  };
  const isTheirs = crawlerAddresses && addressTest(crawlerAddresses);
  const hashed = watched(bytes, (piece) => hash.update(piece));
  const content = watched(decompressed(hashed), () => (untold.length >= REJECTS_RUN || lines > told ? tell() : null));
  const found = kind === 'log' ? await readLog(reading, content, isTheirs) : await readList(reading, content, list);
  await tell();
  if (lines === 0) throw failure('import', 'The file holds no lines. Nothing was imported.');
  if (found.addresses.length === 0)
    throw failure(
      'import',
      `None of the ${lines.toLocaleString('en')} lines names an address of the site${kind === 'log' ? '; is the file an access log of it?' : '.'} Nothing was imported.`,
    );
  for (const run of inRuns(found.addresses, RUN)) await onAddresses(run);
  // The same file, read in another way, is another source.
  hash.update(JSON.stringify([kind, list.column, crawlerAddresses]));
  const digest = hash.digest('hex').slice(0, 32);
  return { digest, lines, rejected, rejects, urls: found.addresses.length, parts: await packParts(found) };
}

/** Says how a list would be imported, by its beginning. @throws import */
export function previewUpload({ settings, list }: UploadTask, bytes: Bytes): Promise<ListPreview> {
  const reading: Reading = { start: settings.start, resolve: resolver(settings), count: () => {}, reject: () => {} };
  return previewList(reading, decompressed(bytes), list);
}
