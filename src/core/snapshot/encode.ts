/**
 * The binary form of a snapshot: named parts, each a column. Numbers are little-endian. A list of texts is a count,
 * that many byte lengths (each 32 bits), and the texts in UTF-8. The part `head` is JSON and names the version.
 */
import type { Check } from './build';
import { isText } from './column';
import type { Column } from './column';
import { factNames, factOf } from './facts';
import type { FactName } from './facts';
import type { SiteFiles, Snapshot } from './snapshot';

export const SNAPSHOT_VERSION = 6;
export type SnapshotParts = Map<string, Uint8Array>;

/** A stored snapshot has another form than this program reads. */
export class SnapshotVersionError extends Error {
  constructor(readonly version: number) {
    super(`The stored snapshot has version ${version}; this program reads ${SNAPSHOT_VERSION}.`);
  }
}

/** What is read together: what is known of pages, and the links with their texts, which are most of a snapshot. */
export type PartGroup = 'facts' | 'links';
const withLinks = new Set(['phrases', 'outside', 'checks']);
/** The report (src/core/report) and the findings of each page are stored beside the snapshot, and read by themselves. */
export const REPORT_PART = 'report';
export const FINDINGS_PART = 'report.pages';
export const groupOfPart = (name: string): PartGroup | null =>
  name === REPORT_PART || name === FINDINGS_PART
    ? null
    : name.startsWith('links.') || withLinks.has(name)
      ? 'links'
      : 'facts';

interface Head {
  version: number;
  count: number;
  starts: number[];
  sitemaps: string[];
}

const wide = ['offsets', 'target', 'anchor', 'rel', 'path', 'line', 'column', 'fragment'] as const;
const narrow = ['kind', 'element', 'landmark', 'marks'] as const;

const bytesOf = (array: ArrayBufferView) => new Uint8Array(array.buffer, array.byteOffset, array.byteLength);

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
  const { count, starts, columns, links, outside, checks, phrases, listings, files } = snapshot;
  const sitemaps = [...new Set(listings.map(({ sitemap }) => sitemap))];
  const head: Head = { version: SNAPSHOT_VERSION, count, starts, sitemaps };
  const parts: SnapshotParts = new Map([
    ['head', new TextEncoder().encode(JSON.stringify(head))],
    ['outside', encodeTexts(outside)],
    ['checks', new TextEncoder().encode(JSON.stringify(checks.some(Boolean) ? checks : []))],
    ['phrases', encodeTexts(phrases)],
    ['files', new TextEncoder().encode(JSON.stringify(files))],
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
      parts.set(`fact.${name}.common`, bytesOf(column.common));
    } else parts.set(`fact.${name}`, bytesOf(column));
  }
  for (const name of [...wide, ...narrow, 'faults'] as const) parts.set(`links.${name}`, bytesOf(links[name]));
  return parts;
}

/** An object whose members are read when they are first asked for, and kept. */
function lazily<Name extends string, Value>(names: readonly Name[], read: (name: Name) => Value): Record<Name, Value> {
  const object = {} as Record<Name, Value>;
  for (const name of names)
    Object.defineProperty(object, name, {
      configurable: true,
      enumerable: true,
      get() {
        const value = read(name);
        Object.defineProperty(object, name, { value, enumerable: true, writable: true, configurable: true });
        return value;
      },
    });
  return object;
}

/**
 * Puts a snapshot together again. Columns are read from their parts when they are first asked for.
 * @param parts those that have been read; more may be added while the snapshot is in use
 * @param stored names of all parts that are stored, when they are not all among `parts`
 * @throws SnapshotVersionError when it was written by another version; Error when a part is missing
 */
export function decodeSnapshot(parts: SnapshotParts, stored: Iterable<string> = parts.keys()): Snapshot {
  const part = (name: string) => {
    const bytes = parts.get(name);
    if (!bytes) throw new Error(`The part “${name}” of the snapshot has not been read.`);
    return bytes;
  };
  const names = new Set(stored);
  const expect = (name: string) => {
    if (!names.has(name)) throw new Error(`The stored snapshot lacks its part “${name}”. Crawl the site again.`);
  };
  expect('head');
  const json = (name: string) => JSON.parse(new TextDecoder().decode(part(name))) as unknown;
  const head = json('head') as Head;
  if (head.version !== SNAPSHOT_VERSION) throw new SnapshotVersionError(head.version);
  // What is missing is told at once, not when it is first asked for.
  for (const name of factNames)
    for (const end of factOf(name).type === 'text' ? ['.codes', '.values', '.common'] : [''])
      expect(`fact.${name}${end}`);
  for (const name of [...wide, ...narrow, 'faults']) expect(`links.${name}`);
  for (const name of ['listings', 'files', ...withLinks]) expect(name);
  // As it lies in memory, or copied where a typed array could not begin: at no multiple of its width.
  const aligned = (name: string): [ArrayBuffer, number, number] => {
    const bytes = part(name);
    const { buffer, byteOffset, length } = bytes.byteOffset % 8 === 0 ? bytes : new Uint8Array(bytes);
    return [buffer as ArrayBuffer, byteOffset, length];
  };
  const u32 = (name: string) => {
    const [buffer, from, length] = aligned(name);
    return new Uint32Array(buffer, from, length / 4);
  };
  const read = (name: FactName): Column => {
    const { type } = factOf(name);
    if (type === 'text')
      return {
        codes: u32(`fact.${name}.codes`),
        values: decodeTexts(part(`fact.${name}.values`)),
        common: new Uint8Array(...aligned(`fact.${name}.common`)),
      };
    const [buffer, from, length] = aligned(`fact.${name}`);
    return type === 'ratio' ? new Float64Array(buffer, from, length / 8) : new Int32Array(buffer, from, length / 4);
  };
  const column = {} as Record<string, () => unknown>;
  for (const name of wide) column[name] = () => u32(`links.${name}`);
  for (const name of narrow) column[name] = () => new Uint8Array(...aligned(`links.${name}`));
  column.faults = () => {
    const [buffer, from, length] = aligned('links.faults');
    return new Uint16Array(buffer, from, length / 2);
  };
  const rest = lazily(['outside', 'checks', 'phrases', 'listings', 'files'], (name): unknown => {
    if (name === 'checks') {
      const checks = json('checks') as (Check | null)[];
      return rest.outside.map((_, i) => checks[i] ?? null);
    }
    if (name === 'files') return json('files') as SiteFiles;
    if (name !== 'listings') return decodeTexts(part(name));
    const listings = u32('listings');
    return Array.from({ length: listings.length / 3 }, (_, i) => ({
      page: listings[i * 3],
      sitemap: head.sitemaps[listings[i * 3 + 1]],
      line: listings[i * 3 + 2],
    }));
  }) as Pick<Snapshot, 'outside' | 'checks' | 'phrases' | 'listings' | 'files'>;
  return Object.defineProperties(rest, {
    count: { value: head.count, enumerable: true },
    starts: { value: head.starts, enumerable: true },
    columns: { value: lazily(factNames, read), enumerable: true },
    links: { value: lazily([...wide, ...narrow, 'faults'], (name) => column[name]()), enumerable: true },
  }) as Snapshot;
}
