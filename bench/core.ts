/**
 * A generated site of PAGES pages with LINKS links each, whose targets are skewed: from packed rows to every derived fact,
 * and the first window of lists, through the functions that the worker and the screens call. Writes the pairs and the
 * results to a folder, for bench/core.py to compare.
 */
import { writeFileSync } from 'node:fs';
import { analyse } from '../src/core/analysis';
import { nearDuplicates } from '../src/core/duplicates';
import { pageFacts } from '../src/core/facts';
import { packLinks } from '../src/core/links';
import {
  clickDepths,
  dominators,
  gatesOf,
  incomingPages,
  islandNumbers,
  pageGraph,
  visitorGraph,
} from '../src/core/reach';
import { evenWeights, pageRank, plainShare } from '../src/core/share';
import { baseBuilder, decodeBase, encodeBase, nothingFound } from '../src/core/snapshot';
import type { FoundFacts } from '../src/core/snapshot';
import { listWindow } from '../src/server/lists';

const [folder, pagesText, linksText] = process.argv.slice(2);
const count = Number(pagesText);
const perPage = Number(linksText);
/** The last hundredth is linked from itself only. */
const main = Math.floor(count * 0.99);
const FANOUT = 10;

let seed = 12345;
const random = () => (seed = (Math.imul(seed, 1664525) + 1013904223) >>> 0) / 4294967296;
const results: Record<string, number> = {};
let most = 0;
const note = () => (most = Math.max(most, process.memoryUsage().rss));
const watching = setInterval(note, 100);

function timed<T>(name: string, run: () => T): T {
  const start = performance.now();
  const value = run();
  results[name] = performance.now() - start;
  note();
  console.error(
    `  ${name}: ${(results[name] / 1000).toFixed(2)} s, ${Math.round(process.memoryUsage().rss / 2 ** 20)} MiB`,
  );
  return value;
}

const sections = ['visit', 'collections', 'stories', 'learn', 'events', 'shop', 'press', 'fr'];
const addressOf = (page: number) =>
  page === 0
    ? 'https://www.larkfield.example/'
    : `https://www.larkfield.example/${sections[page % 8]}/${String(page).padStart(8, '0')}`;
const words = ['tram', 'bus', 'depot', 'bell', 'wire', 'ticket'];

/** Scatters the bits of a number, as a hash does. */
function mixed(number: number): number {
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

function targetsOf(page: number): number[] {
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
const pack = (page: number) =>
  packLinks(
    targetsOf(page).map((to, i) => ({ ...link, target: to + 1, line: i + 1 })),
    (n) => n,
    (n) => n,
  );

/** Builds the base as it is read from rows, in a function of its own as there: what is not needed any more is given back. */
function baseParts() {
  // Counts stand at the head of packed rows; here they are known.
  const beforeCounting = seed;
  const builder = baseBuilder();
  results['read pages'] = 0;
  for (let page = 0; page < count; page++) {
    const record = {
      number: page + 1,
      address: addressOf(page),
      unvisitedReason: null,
      linkCount: targetsOf(page).length,
      found: found(page),
    };
    const start = performance.now();
    builder.addPage(record);
    results['read pages'] += performance.now() - start;
  }
  seed = beforeCounting;

  const layout = timed('order pages', () => builder.layOut());
  results['lay out links'] = 0;
  for (let from = 0; from < count; from += BATCH) {
    const packed = Array.from({ length: Math.min(BATCH, count - from) }, (_, i) => pack(from + i));
    const start = performance.now();
    packed.forEach((row, i) => layout.addLinks(from + i + 1, row));
    results['lay out links'] += performance.now() - start;
    note();
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
  return timed('encode base', () => encodeBase(built));
}

// A thread is handed the base in parts.
const base = decodeBase(baseParts());

const steps: Record<string, number> = {};
let current: string | null = null;
let since = 0;
const noteStep = (step: string | null) => {
  const now = performance.now();
  if (current) steps[current] = now - since;
  [current, since] = [step, now];
  note();
};
const snapshot = timed('all derived facts', () =>
  analyse(base, { sections: [], nearTolerance: 3, weights: evenWeights }, noteStep),
);
noteStep(null);
// What comes from here on holds graphs for the peer as well.
const mostOfAnalysis = most;

const links = visitorGraph(base);
const graph = timed('graph of pairs', () => pageGraph(links));
const incoming = timed('pairs by target', () => incomingPages(graph));
const [start] = base.starts;
const best = <T>(name: string, run: () => T): T => {
  const values = [1, 2, 3].map(() => [timed(name, run), results[name]] as const);
  results[name] = Math.min(...values.map(([, ms]) => ms));
  return values[0][0];
};
const depths = best('reach', () => clickDepths(graph, [start]));
best('islands', () => islandNumbers(links, depths.depth));
const dominator = best('dominators', () => dominators(graph, incoming, depths, [start]));
results.gates =
  results.dominators + (timed('count gates', () => gatesOf(dominator, depths.depth)), results['count gates']);
const perEdge = Float64Array.from(
  { length: count },
  (_, page) => 1 / (graph.offsets[page + 1] - graph.offsets[page] || Infinity),
);
const share = timed('share', () =>
  pageRank({ count, incoming, perEdge, kept: perEdge.map((part) => Number(part === 0)) }),
);
timed('share from links', () => plainShare(base));

/** Pages of one template whose fingerprints differ in a bit or two, each with a content of its own. */
const ALIKE = 100_000;
const alikePrints = new Uint32Array(2 * ALIKE);
for (let page = 0; page < ALIKE; page++) {
  alikePrints[2 * page] = mixed(1) ^ (1 << (page % 32));
  alikePrints[2 * page + 1] = mixed(2) ^ (page % 3 === 0 ? 0 : 1 << (Math.floor(page / 32) % 32));
}
timed('near-equal pages', () =>
  nearDuplicates({ fingerprints: alikePrints, content: Uint32Array.from({ length: ALIKE }, (_, i) => i + 1) }, 3),
);

/** The first window of a list as a screen asks for it. What was asked before is not asked again: the lists are not cached. */
const columns = ['url', 'depth', 'verdict', 'share', 'title'];
const first = (list: 'pages' | 'links', select: string, sort: string) =>
  listWindow(
    snapshot,
    { list, select, sort, by: 'section' },
    list === 'pages' ? columns : ['source', 'target'],
    0,
    100,
  );
const windows: Record<string, number> = {};
/** Best of three. Spaces change nothing of a selection, but that it has not been asked before. */
const window = (name: string, list: 'pages' | 'links', select: string, sort: string) => {
  const times = [0, 1, 2].map((n) => (timed(name, () => first(list, select + ' '.repeat(n), sort)), results[name]));
  windows[name] = Math.min(...times);
};
first('pages', '', 'bytes');
first('pages', '', 'title:desc');
for (const [name, { sort }] of Object.entries(pageFacts))
  if (sort !== 'none' && name !== 'bytes')
    window(`sort by ${name}`, 'pages', '', sort === 'high' ? `${name}:desc` : name);
const plain: [string, string][] = [
  ['indexable', 'url'],
  ['indexable and depth > 3', 'share:desc'],
  ['section = "fr" or section = "shop"', 'title:desc'],
  ['title has "DEPOT"', 'bytes:desc'],
  ['url has "0042"', 'title'],
  ['url matches "/(shop|fr)/0+4\\d*2$"', 'share:desc'],
  ['word_count < 50 and not (noindex or broken)', 'word_count'],
  ['not reached', 'links_in:desc'],
];
// Walking needs the pairs and who links whom, which a screen that asks has.
first('pages', 'within 2 of (section = "visit" and depth < 2)', '');
for (const [text, sort] of plain) window(`select ${text} | ${sort}`, 'pages', text, sort);
for (const text of [
  'linked from (section = "fr" and depth < 4)',
  'links to (noindex)',
  'within 2 of (section = "visit" and depth < 3)',
  'only through (title has "bell of 7")',
])
  window(`step ${text}`, 'pages', text, 'share:desc');

clearInterval(watching);
const put = (name: string, array: ArrayBufferView) =>
  writeFileSync(`${folder}/${name}`, new Uint8Array(array.buffer, array.byteOffset, array.byteLength));
put('offsets', graph.offsets);
put('targets', graph.targets);
put('depth', depths.depth);
put('dominator', dominator);
put('share', share);
writeFileSync(
  `${folder}/results.json`,
  JSON.stringify({
    count,
    links: base.links.target.length,
    pairs: graph.targets.length,
    start,
    most: mostOfAnalysis,
    results,
    steps,
    windows,
  }),
);
