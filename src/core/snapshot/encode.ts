/**
 * The binary form of a snapshot: named parts, each a column. Numbers are little-endian. A list of texts is a count,
 * that many byte lengths (each 32 bits), and the texts in UTF-8. The part `head` is JSON and names the version.
 */
import type { Check } from './build';
import { isText } from './column';
import type { Column } from './column';
import { factNames, factOf } from './facts';
import type { FactName } from './facts';
import type { LinkColumns, Snapshot } from './snapshot';

export const SNAPSHOT_VERSION = 2;
export type SnapshotParts = Map<string, Uint8Array>;

/** A stored snapshot has another form than this program reads. */
export class SnapshotVersionError extends Error {
  constructor(readonly version: number) {
    super(`The stored snapshot has version ${version}; this program reads ${SNAPSHOT_VERSION}.`);
  }
}

interface Head {
  version: number;
  count: number;
  starts: number[];
  sitemaps: string[];
}

const wide = ['offsets', 'target', 'anchor', 'rel', 'path', 'line', 'column', 'fragment'] as const;
const narrow = ['kind', 'element', 'landmark', 'lost'] as const;

const bytesOf = (array: Uint32Array | Int32Array | Uint8Array) =>
  new Uint8Array(array.buffer, array.byteOffset, array.byteLength);

function encodeTexts(texts: readonly string[]): Uint8Array {
  const encoder = new TextEncoder();
  const encoded = texts.map((text) => encoder.encode(text));
  const lengths = Uint32Array.from([texts.length, ...encoded.map(({ length }) => length)]);
  const out = new Uint8Array(lengths.byteLength + encoded.reduce((sum, { length }) => sum + length, 0));
  out.set(bytesOf(lengths));
  let at = lengths.byteLength;
  for (const bytes of encoded) {
    out.set(bytes, at);
    at += bytes.length;
  }
  return out;
}

function decodeTexts(bytes: Uint8Array): string[] {
  const decoder = new TextDecoder('utf-8', { ignoreBOM: true });
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const texts: string[] = new Array(view.getUint32(0, true));
  let at = 4 + texts.length * 4;
  for (let i = 0; i < texts.length; i++) {
    const length = view.getUint32(4 + i * 4, true);
    texts[i] = decoder.decode(bytes.subarray(at, at + length));
    at += length;
  }
  return texts;
}

/** Takes a snapshot apart into the parts in which it is stored and sent. */
export function encodeSnapshot(snapshot: Snapshot): SnapshotParts {
  const { count, starts, columns, links, outside, checks, phrases, listings } = snapshot;
  const sitemaps = [...new Set(listings.map(({ sitemap }) => sitemap))];
  const head: Head = { version: SNAPSHOT_VERSION, count, starts, sitemaps };
  const parts: SnapshotParts = new Map([
    ['head', new TextEncoder().encode(JSON.stringify(head))],
    ['outside', encodeTexts(outside)],
    ['checks', new TextEncoder().encode(JSON.stringify(checks.some(Boolean) ? checks : []))],
    ['phrases', encodeTexts(phrases)],
    [
      'listings',
      bytesOf(Uint32Array.from(listings.flatMap(({ page, sitemap, line }) => [page, sitemaps.indexOf(sitemap), line]))),
    ],
  ]);
  for (const name of factNames) {
    const column = columns[name];
    if (isText(column)) {
      parts.set(`fact.${name}.codes`, bytesOf(column.codes));
      parts.set(`fact.${name}.values`, encodeTexts(column.values));
    } else parts.set(`fact.${name}`, bytesOf(column));
  }
  for (const name of [...wide, ...narrow]) parts.set(`links.${name}`, bytesOf(links[name]));
  return parts;
}

/**
 * Puts a snapshot together again.
 * @throws SnapshotVersionError when it was written by another version; Error when a part is missing
 */
export function decodeSnapshot(parts: SnapshotParts): Snapshot {
  const part = (name: string) => {
    const bytes = parts.get(name);
    if (!bytes) throw new Error(`The stored snapshot lacks its part “${name}”. Crawl the site again.`);
    return bytes;
  };
  const head = JSON.parse(new TextDecoder().decode(part('head'))) as Head;
  if (head.version !== SNAPSHOT_VERSION) throw new SnapshotVersionError(head.version);
  // Copied, because a typed array must begin at a multiple of its width. (A Buffer's slice would not copy.)
  const aligned = (name: string) => new Uint8Array(part(name)).buffer;
  const u32 = (name: string) => new Uint32Array(aligned(name));
  const column = (name: FactName): Column =>
    factOf(name).type === 'text'
      ? { codes: u32(`fact.${name}.codes`), values: decodeTexts(part(`fact.${name}.values`)) }
      : new Int32Array(aligned(`fact.${name}`));
  const listings = u32('listings');
  const outside = decodeTexts(part('outside'));
  const checks = JSON.parse(new TextDecoder().decode(part('checks'))) as (Check | null)[];
  const links = Object.fromEntries([
    ...wide.map((name) => [name, u32(`links.${name}`)]),
    ...narrow.map((name) => [name, new Uint8Array(aligned(`links.${name}`))]),
  ]) as unknown as LinkColumns;
  return {
    count: head.count,
    starts: head.starts,
    columns: Object.fromEntries(factNames.map((name) => [name, column(name)])) as Record<FactName, Column>,
    links,
    outside,
    checks: outside.map((_, i) => checks[i] ?? null),
    phrases: decodeTexts(part('phrases')),
    listings: Array.from({ length: listings.length / 3 }, (_, i) => ({
      page: listings[i * 3],
      sitemap: head.sitemaps[listings[i * 3 + 1]],
      line: listings[i * 3 + 2],
    })),
  };
}
