/**
 * The generated site of the measurement of the core, laid out in a thread of its own as a crawl is read: what is not
 * needed any more is given back when it ends.
 */
import { packLinks } from '../src/core/links';
import { baseBuilder, encodeBase, nothingFound } from '../src/core/snapshot';
import type { FoundFacts, SnapshotParts } from '../src/core/snapshot';
import { shareParts } from '../src/crawl/transfer';

const FANOUT = 10;

let seed = 12345;
const random = () => (seed = (Math.imul(seed, 1664525) + 1013904223) >>> 0) / 4294967296;

const sections = ['visit', 'collections', 'stories', 'learn', 'events', 'shop', 'press', 'fr'];
export const addressOf = (page: number) =>
  page === 0
    ? 'https://www.larkfield.example/'
    : `https://www.larkfield.example/${sections[page % 8]}/${String(page).padStart(8, '0')}`;
const words = ['tram', 'bus', 'depot', 'bell', 'wire', 'ticket'];

/** Scatters the bits of a number, as a hash does. */
export function mixed(number: number): number {
  let bits = Math.imul(number ^ (number >>> 16), 0x85ebca6b);
  bits = Math.imul(bits ^ (bits >>> 13), 0xc2b2ae35);
  return (bits ^ (bits >>> 16)) >>> 0;
}

/** Every hundredth page has almost the words of every other such page, as pages of one template have. */
function fingerprintOf(page: number): Uint8Array {
  const bytes = new Uint8Array(8);
  const view = new DataView(bytes.buffer);
  const isOfTemplate = page % 100 === 0;
  const group = isOfTemplate ? 0 : page;
  view.setUint32(0, mixed(2 * group + 1));
  view.setUint32(4, mixed(2 * group + 2) ^ (isOfTemplate ? 1 << ((page / 100) % 13) : 0));
  return bytes;
}

const found = (page: number): FoundFacts => ({
  ...nothingFound,
  status: 200,
  html: true,
  contentType: 'text/html',
  bytes: 5000 + ((page * 37) % 90_000),
  responseMs: page % 900,
  title: `The ${words[page % 6]} of ${page % 5000}`,
  h1: words[page % 6],
  language: page % 8 === 7 ? 'fr' : 'en',
  noindex: page % 40 === 0,
  pageNofollow: false,
  wordCount: 30 + ((page * 13) % 2000),
  contentHash: page.toString(16).padStart(32, '0'),
  fingerprint: fingerprintOf(page),
  fetchedAt: new Date(1_790_000_000_000 + page * 50),
});

export interface SiteSize {
  count: number;
  perPage: number;
}

function targetsOf(page: number, { count, perPage }: SiteSize): number[] {
  /** The last hundredth is linked from itself only. */
  const main = Math.floor(count * 0.99);
  const targets: number[] = [];
  const inMain = page < main;
  for (let child = page * FANOUT + 1; inMain && child <= page * FANOUT + FANOUT && child < main; child++)
    targets.push(child);
  while (targets.length < perPage) {
    const skew = random() ** 3;
    targets.push(inMain ? Math.floor(main * skew) : main + Math.floor((count - main) * 0.9 * skew));
  }
  return targets;
}

const BATCH = 20_000;
const link = {
  kind: 'click',
  element: 'a',
  placement: 'main',
  anchor: 1,
  rel: 0,
  above: 2,
  fragment: 0,
  column: 1,
} as const;
const pack = (page: number, size: SiteSize) =>
  packLinks(
    targetsOf(page, size).map((to, i) => ({ ...link, target: to + 1, line: i + 1 })),
    (n) => n,
    (n) => n,
  );

export interface BuiltSite {
  parts: SnapshotParts;
  /** What took how many ms. */
  took: Record<string, number>;
}

/** Builds the base of the site as it is read from rows. */
export function build(size: SiteSize): BuiltSite {
  const { count } = size;
  const took: Record<string, number> = {};
  const timed = <T>(name: string, run: () => T): T => {
    const start = performance.now();
    const value = run();
    took[name] = performance.now() - start;
    return value;
  };
  // Counts stand at the head of packed rows; here they are known.
  const beforeCounting = seed;
  const builder = baseBuilder();
  took['read pages'] = 0;
  for (let page = 0; page < count; page++) {
    const record = {
      number: page + 1,
      address: addressOf(page),
      unvisitedReason: null,
      linkCount: targetsOf(page, size).length,
      found: found(page),
    };
    const start = performance.now();
    builder.addPage(record);
    took['read pages'] += performance.now() - start;
  }
  seed = beforeCounting;

  const layout = timed('order pages', () => builder.layOut());
  took['lay out links'] = 0;
  for (let from = 0; from < count; from += BATCH) {
    const packed = Array.from({ length: Math.min(BATCH, count - from) }, (_, i) => pack(from + i, size));
    const start = performance.now();
    packed.forEach((row, i) => layout.addLinks(from + i + 1, row));
    took['lay out links'] += performance.now() - start;
  }
  const built = timed('finish base', () =>
    layout.finish({
      starts: [addressOf(0)],
      listed: new Set(),
      checks: new Map(),
      outside: new Map(),
      phrases: new Map([
        [0, ''],
        [1, 'Trams and buses'],
        [2, 'body>main'],
      ]),
      listings: [],
      files: { robots: [], sitemaps: [] },
    }),
  );
  return { parts: shareParts(timed('encode base', () => encodeBase(built))), took };
}
