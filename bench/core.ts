/**
 * The graph core on a generated site of PAGES pages with LINKS links each, whose targets are skewed: from packed rows to
 * every measure and selection. Writes the pairs and the results to a folder, for bench/core.py to compare.
 */
import { writeFileSync } from 'node:fs';
import { packLinks } from '../src/core/links';
import {
  clickDepths,
  dominators,
  gatesOf,
  incomingPages,
  islandNumbers,
  pageGraph,
  strongGroups,
} from '../src/core/reach';
import { evaluate, firstInOrder, parseSelection } from '../src/core/selection';
import { evenWeights, pageRank, plainShare } from '../src/core/share';
import { nothingFound, pageRecord, snapshotBuilder, visitorGraph } from '../src/core/snapshot';
import type { FactName, FoundFacts, PageRecord } from '../src/core/snapshot';

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
  words: (page * 13) % 2000,
});
const records: PageRecord[] = Array.from({ length: count }, (_, page) =>
  pageRecord({ number: page + 1, address: addressOf(page), unvisited: null, linkCount: 0 }, found(page)),
);

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
  path: 2,
  fragment: 0,
  column: 1,
} as const;
const pack = (page: number) =>
  packLinks(
    targetsOf(page).map((to, i) => ({ ...link, target: to + 1, line: i + 1 })),
    (n) => n,
    (n) => n,
  );
// Counts stand at the head of packed rows; here they are known.
const beforeCounting = seed;
for (let page = 0; page < count; page++) records[page].linkCount = targetsOf(page).length;
seed = beforeCounting;

const builder = timed('order pages', () => snapshotBuilder(records));
results['lay out links'] = 0;
for (let from = 0; from < count; from += BATCH) {
  const packed = Array.from({ length: Math.min(BATCH, count - from) }, (_, i) => pack(from + i));
  const start = performance.now();
  packed.forEach((row, i) => builder.addLinks(from + i + 1, row));
  results['lay out links'] += performance.now() - start;
  note();
}
const snapshot = timed('all measures', () =>
  builder.finish({
    starts: [addressOf(0)],
    listed: [],
    checks: new Map(),
    outside: new Map(),
    phrases: new Map([
      [0, ''],
      [1, 'Trams and buses'],
      [2, 'body>main'],
    ]),
    listings: [],
    files: { robots: [], sitemaps: [] },
    reading: { sections: [], nearTolerance: 3, weights: evenWeights },
  }),
);
records.length = 0;

const links = visitorGraph(count, snapshot.links);
const graph = timed('graph of pairs', () => pageGraph(links));
const incoming = timed('pairs by target', () => incomingPages(graph));
const [start] = snapshot.starts;
const best = <T>(name: string, run: () => T): T => {
  const values = [1, 2, 3].map(() => [timed(name, run), results[name]] as const);
  results[name] = Math.min(...values.map(([, ms]) => ms));
  return values[0][0];
};
const depths = best('reach', () => clickDepths(graph, [start]));
best('islands', () => islandNumbers(links, depths.depth));
const groups = best('strong groups', () => strongGroups(graph));
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
timed('share from links', () => plainShare(snapshot));

const first = (text: string, sort: FactName, descending: boolean) => {
  const parsed = parseSelection(text);
  if (!parsed.ok) throw new Error(parsed.fault.message);
  return firstInOrder(evaluate(snapshot, parsed.selection), snapshot.columns[sort], descending, 200);
};
const plain: [string, FactName, boolean][] = [
  ['indexable', 'url', false],
  ['indexable and depth > 3', 'share', true],
  ['section = "fr" or section = "shop"', 'title', true],
  ['title has "DEPOT"', 'bytes', true],
  ['url has "0042"', 'title', false],
  ['url matches "/(shop|fr)/0+4\\d*2$"', 'share', true],
  ['words < 50 and not (noindex or broken)', 'words', false],
  ['not reached', 'links_in', true],
];
const steps = [
  'linked from (section = "fr" and depth < 4)',
  'links to (noindex)',
  'within 2 of (section = "visit" and depth < 3)',
  'only through (title has "bell of 7")',
];
// Walking needs the pairs and who links whom, which a screen that asks has.
first(steps[2], 'url', false);
for (const [text, sort, down] of plain) best(`select ${text} | ${sort}`, () => first(text, sort, down));
for (const text of steps) best(`step ${text}`, () => first(text, 'share', true));

clearInterval(watching);
const put = (name: string, array: ArrayBufferView) =>
  writeFileSync(`${folder}/${name}`, new Uint8Array(array.buffer, array.byteOffset, array.byteLength));
put('offsets', graph.offsets);
put('targets', graph.targets);
put('depth', depths.depth);
put('groups', groups);
put('dominator', dominator);
put('share', share);
put(
  'nodes',
  Uint8Array.from(share, (own) => Number(own >= 0)),
);
writeFileSync(
  `${folder}/results.json`,
  JSON.stringify({ count, links: snapshot.links.target.length, pairs: graph.targets.length, start, most, results }),
);
