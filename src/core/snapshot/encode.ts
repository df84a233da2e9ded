/**
 * The binary form of a base and of a snapshot: named parts, each a column. Numbers are little-endian. A list of texts
 * is a count, that many byte lengths (each 32 bits), and the texts in UTF-8. The part `head` is JSON and names the
 * version.
 */
import { EdgeMapError } from '../errors';
import { baseFacts, derivedFacts, factOf, keepsText } from '../facts';
import type { ColumnName } from '../facts';
import { linkFieldNames } from '../links';
import { isText } from './column';
import type { Column } from './column';
import { analysedBase, columnReader, once } from './layers';
import { linkFieldAt, linkFieldColumns } from './linkColumns';
import type { BaseLinks } from './linkColumns';
import { derivedOf } from './snapshot';
import type { Base, Check, Derived, ListedAlternate, SiteFiles, Snapshot } from './snapshot';

export const SNAPSHOT_VERSION = 14;
export type SnapshotParts = Map<string, Uint8Array>;

const newerOrOlder = (version: number) =>
  new EdgeMapError(
    'snapshot_version',
    `The stored snapshot has version ${version}; this program reads ${SNAPSHOT_VERSION}.`,
    { version },
  );

/**
 * What is read together: what is known of pages; the links with their texts, which are most of a snapshot; and which
 * words pages have, which only an analysis reads.
 */
export type PartGroup = 'facts' | 'links' | 'words';
const withLinks = new Set(['phrases', 'outside', 'checks']);
/** The report (src/core/report) and the findings of each page, which are stored with the snapshot. */
export const REPORT_PART = 'report';
export const FINDINGS_PART = 'report.pages';
export const groupOfPart = (name: string): PartGroup => {
  if (name.startsWith('words.')) return 'words';
  return name.startsWith('links.') || withLinks.has(name) ? 'links' : 'facts';
};

interface Head {
  version: number;
  count: number;
  starts: number[];
  listed: number[];
  sitemaps: string[];
}

const baseLinkNames = ['offsets', ...linkFieldNames] as const;

export const partsOfLinks: readonly string[] = baseLinkNames.map((name) => `links.${name}`);

const bytesOf = (array: ArrayBufferView) => new Uint8Array(array.buffer, array.byteOffset, array.byteLength);

function encodeTexts(texts: readonly string[]): Uint8Array {
  const encoder = new TextEncoder();
  // No text takes more than three bytes for each of its units.
  const most = texts.reduce((sum, { length }) => sum + length, 0) * 3;
  const lengths = new Uint32Array(1 + texts.length);
  lengths[0] = texts.length;
  const out = new Uint8Array(lengths.byteLength + most);
  let at = lengths.byteLength;
  texts.forEach((text, i) => {
    const { written } = encoder.encodeInto(text, out.subarray(at));
    lengths[i + 1] = written;
    at += written;
  });
  out.set(bytesOf(lengths));
  return out.slice(0, at);
}

/** Texts that are decoded together. */
const TEXT_BLOCK = 1024;

function decodeTexts(bytes: Uint8Array): string[] {
  const decoder = new TextDecoder('utf-8', { ignoreBOM: true });
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const count = view.getUint32(0, true);
  const ends = new Uint32Array(1 + count);
  ends[0] = 4 + count * 4;
  for (let i = 0; i < count; i++) ends[i + 1] = ends[i] + view.getUint32(4 + i * 4, true);
  const texts: string[] = new Array(count);
  for (let from = 0; from < count; from += TEXT_BLOCK) {
    const to = Math.min(from + TEXT_BLOCK, count);
    const block = decoder.decode(bytes.subarray(ends[from], ends[to]));
    // In ASCII a character is a byte, and texts cut out of the block take a quarter of the time.
    const isAscii = block.length === ends[to] - ends[from];
    for (let i = from; i < to; i++)
      texts[i] = isAscii
        ? block.slice(ends[i] - ends[from], ends[i + 1] - ends[from])
        : decoder.decode(bytes.subarray(ends[i], ends[i + 1]));
  }
  return texts;
}

const encodeJson = (value: unknown) => new TextEncoder().encode(JSON.stringify(value));

function putColumn(parts: SnapshotParts, name: ColumnName, column: Column) {
  if (isText(column)) {
    parts.set(`fact.${name}.codes`, bytesOf(column.codes));
    parts.set(`fact.${name}.values`, encodeTexts(column.values));
    parts.set(`fact.${name}.common`, bytesOf(column.common));
  } else parts.set(`fact.${name}`, bytesOf(column));
}

/** Languages and addresses as one list of texts, and for each edition its page and two numbers of texts. */
function encodeAlternates(alternates: readonly ListedAlternate[]): [string, Uint8Array][] {
  const numbers = new Map<string, number>();
  const numberOf = (text: string) => {
    if (!numbers.has(text)) numbers.set(text, numbers.size);
    return numbers.get(text)!;
  };
  const rows = Uint32Array.from(
    alternates.flatMap(({ page, language, address }) => [page, numberOf(language), numberOf(address)]),
  );
  return [
    ['alternates', bytesOf(rows)],
    ['alternates.texts', encodeTexts([...numbers.keys()])],
  ];
}

/** Takes a base apart into the parts in which it is handed to whoever analyses it. */
export function encodeBase(base: Base): SnapshotParts {
  const {
    count,
    starts,
    listed,
    links,
    outside,
    checks,
    phrases,
    listings,
    alternates,
    files,
    fingerprints,
    wordFilters,
  } = base;
  const sitemaps = [...new Set(listings.map(({ sitemap }) => sitemap))];
  const sitemapNumbers = new Map(sitemaps.map((sitemap, number) => [sitemap, number]));
  const rows = Uint32Array.from(
    listings.flatMap(({ page, sitemap, line }) => [page, sitemapNumbers.get(sitemap)!, line]),
  );
  const head: Head = { version: SNAPSHOT_VERSION, count, starts, listed, sitemaps };
  const parts: SnapshotParts = new Map([
    ['head', encodeJson(head)],
    ['outside', encodeTexts(outside)],
    ['checks', encodeJson(checks.some(Boolean) ? checks : [])],
    ['phrases', encodeTexts(phrases)],
    ['files', encodeJson(files)],
    ['listings', bytesOf(rows)],
    ...encodeAlternates(alternates),
    ['fingerprints', bytesOf(fingerprints)],
    ['words.offsets', bytesOf(wordFilters.offsets)],
    ['words.filters', bytesOf(wordFilters.bytes)],
  ]);
  for (const name of baseFacts) putColumn(parts, name, base.column(name));
  for (const name of baseLinkNames) parts.set(`links.${name}`, bytesOf(links[name]));
  return parts;
}

/** The parts that an analysis adds to those of its base. */
export function encodeDerived({ columns, faults }: Derived): SnapshotParts {
  const parts: SnapshotParts = new Map();
  for (const name of derivedFacts) if (columns[name]) putColumn(parts, name, columns[name]);
  if (faults) parts.set('links.faults', bytesOf(faults));
  return parts;
}

/** Takes a snapshot apart into the parts in which it is stored and sent. */
export const encodeSnapshot = (snapshot: Snapshot): SnapshotParts =>
  new Map([...encodeBase(snapshot), ...encodeDerived(derivedOf(snapshot))]);

/** Some facts of a snapshot, whatever layers it has, as parts that {@link decodeSnapshot} reads. */
export function encodeSome(snapshot: Snapshot, facts: readonly ColumnName[]): SnapshotParts {
  const head: Head = {
    version: SNAPSHOT_VERSION,
    count: snapshot.count,
    starts: snapshot.starts,
    listed: [],
    sitemaps: [],
  };
  const parts: SnapshotParts = new Map([['head', encodeJson(head)]]);
  for (const name of facts) putColumn(parts, name, snapshot.column(name));
  return parts;
}

/** The parts in which a column is stored. */
export const partsOfColumn = (name: ColumnName): string[] =>
  (keepsText(factOf(name).type) ? ['.codes', '.values', '.common'] : ['']).map((end) => `fact.${name}${end}`);

/**
 * Reads stored parts by their names.
 * @param onText told the bytes of texts that are decoded, which take memory besides
 */
function partReader(parts: SnapshotParts, onText: (bytes: number) => void) {
  const part = (name: string) => {
    const bytes = parts.get(name);
    if (!bytes) throw new Error(`The part “${name}” of the snapshot has not been read.`);
    return bytes;
  };
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
  const texts = (name: string) => {
    onText(part(name).length);
    return decodeTexts(part(name));
  };
  return {
    bytes: part,
    json: <T>(name: string) => JSON.parse(new TextDecoder().decode(part(name))) as T,
    aligned,
    u32,
    texts,
    column(name: ColumnName): Column {
      const { type } = factOf(name);
      if (keepsText(type))
        return {
          codes: u32(`fact.${name}.codes`),
          values: texts(`fact.${name}.values`),
          common: new Uint8Array(...aligned(`fact.${name}.common`)),
        };
      const [buffer, from, length] = aligned(`fact.${name}`);
      return type === 'ratio' ? new Float64Array(buffer, from, length / 8) : new Int32Array(buffer, from, length / 4);
    },
  };
}

const partsOfBase = [
  ...['head', 'listings', 'alternates', 'alternates.texts', 'files', 'fingerprints', 'words.offsets', 'words.filters'],
  ...withLinks,
  ...partsOfLinks,
  ...baseFacts.flatMap(partsOfColumn),
];
const partsOfAnalysis = ['links.faults', ...derivedFacts.flatMap(partsOfColumn)];
/** The names of all parts of a snapshot. */
export const partsOfSnapshot: readonly string[] = [...partsOfBase, ...partsOfAnalysis];

/**
 * The base that is encoded in some parts. What it has is read from them when it is first asked for.
 * @param parts those that have been read; more may be added while the base is in use
 * @param stored names of all parts that are stored, when they are not all among `parts`
 * @param onText told the bytes of texts that are decoded on the way, which take memory besides their parts
 * @throws snapshot_version when it was written by another version; Error when a part is missing
 */
export function decodeBase(
  parts: SnapshotParts,
  stored: Iterable<string> = parts.keys(),
  onText: (bytes: number) => void = () => {},
): Base {
  const read = partReader(parts, onText);
  const names = new Set(stored);
  // What is missing is told at once, not when it is first asked for.
  expectParts(names, ['head']);
  const head = read.json<Head>('head');
  if (head.version !== SNAPSHOT_VERSION) throw newerOrOlder(head.version);
  expectParts(names, partsOfBase);
  const outside = once(() => read.texts('outside'));
  const phrases = once(() => read.texts('phrases'));
  const fingerprints = once(() => read.u32('fingerprints'));
  const wordFilters = once(() => ({ offsets: read.u32('words.offsets'), bytes: read.bytes('words.filters') }));
  const files = once(() => read.json<SiteFiles>('files'));
  const checks = once(() => {
    const known = read.json<(Check | null)[]>('checks');
    return outside().map((_, i) => known[i] ?? null);
  });
  const links = once((): BaseLinks => {
    const offsets = read.u32('links.offsets');
    const total = offsets[head.count];
    return { offsets, ...linkFieldColumns((name) => linkFieldAt(name, ...read.aligned(`links.${name}`), total)) };
  });
  const alternates = once(() => {
    const rows = read.u32('alternates');
    const named = read.texts('alternates.texts');
    return Array.from({ length: rows.length / 3 }, (_, i) => ({
      page: rows[i * 3],
      language: named[rows[i * 3 + 1]],
      address: named[rows[i * 3 + 2]],
    }));
  });
  const listings = once(() => {
    const rows = read.u32('listings');
    return Array.from({ length: rows.length / 3 }, (_, i) => ({
      page: rows[i * 3],
      sitemap: head.sitemaps[rows[i * 3 + 1]],
      line: rows[i * 3 + 2],
    }));
  });
  return {
    below: null,
    gives: () => true,
    count: head.count,
    starts: head.starts,
    listed: head.listed,
    column: columnReader(read.column),
    get links() {
      return links();
    },
    get outside() {
      return outside();
    },
    get phrases() {
      return phrases();
    },
    get checks() {
      return checks();
    },
    get files() {
      return files();
    },
    get fingerprints() {
      return fingerprints();
    },
    get wordFilters() {
      return wordFilters();
    },
    get alternates() {
      return alternates();
    },
    get listings() {
      return listings();
    },
  };
}

function expectParts(stored: ReadonlySet<string>, names: readonly string[]) {
  for (const name of names)
    if (!stored.has(name)) throw new Error(`The stored snapshot lacks its part “${name}”. Crawl the site again.`);
}

/** The snapshot that is encoded in some parts: parameters and errors as of {@link decodeBase}. */
export function decodeSnapshot(
  parts: SnapshotParts,
  stored: Iterable<string> = parts.keys(),
  onText: (bytes: number) => void = () => {},
): Snapshot {
  const names = new Set(stored);
  const base = decodeBase(parts, names, onText);
  expectParts(names, partsOfAnalysis);
  const read = partReader(parts, onText);
  const columns = Object.fromEntries(derivedFacts.map((name) => [name, () => read.column(name)]));
  return analysedBase(base, columns, () => {
    const [buffer, from, length] = read.aligned('links.faults');
    return new Uint16Array(buffer, from, length / 2);
  });
}
