/**
 * A generated site of PAGES pages with LINKS links each, whose targets are skewed: from packed rows to every derived
 * fact, and the first window of lists, through the functions that the worker and the screens call. Writes the pairs and
 * the results to a folder, for bench/core.py to compare.
 */
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { Piscina } from 'piscina';
import { analyse } from '../src/core/analysis';
import { nearDuplicates } from '../src/core/duplicates';
import { pageFacts } from '../src/core/facts';
import {
  clickDepths,
  dominators,
  gatesOf,
  incomingPages,
  islandNumbers,
  pageGraph,
  visitorGraph,
} from '../src/core/reach';
import { settingsSchema } from '../src/core/settings';
import { pageRank, plainShare } from '../src/core/share';
import { decodeBase, decodeSnapshot, derivedOf, encodeDerived } from '../src/core/snapshot';
import { analyseInThread } from '../src/crawl/analysisThreads';
import { viewOf } from '../src/core/view';
import { listWindow } from '../src/server/lists';
import { addressOf, mixed } from './coreSite';
import type { BuiltSite } from './coreSite';

const [folder, pagesText, linksText] = process.argv.slice(2);
const count = Number(pagesText);
const perPage = Number(linksText);
const results: Record<string, number> = {};
let most = 0;
const note = () => (most = Math.max(most, process.memoryUsage().rss));
const watching = setInterval(note, 100);

function record(name: string, start: number): void {
  results[name] = performance.now() - start;
  note();
  console.error(
    `  ${name}: ${(results[name] / 1000).toFixed(2)} s, ${Math.round(process.memoryUsage().rss / 2 ** 20)} MiB`,
  );
}
function timed<T>(name: string, run: () => T): T {
  const start = performance.now();
  const value = run();
  record(name, start);
  return value;
}

const builder = new Piscina({ filename: join(import.meta.dirname, 'coreSite.js'), maxThreads: 1 });
const { parts, took } = (await builder.run({ count, perPage }, { name: 'build' })) as BuiltSite;
await builder.destroy();
Object.assign(results, took);

const settings = settingsSchema.parse({ start: addressOf(0) });
const begun = performance.now();
let mostOfAnalysis = 0;
const analysed = await analyseInThread(
  { parts, settings },
  ({ step }) => {
    note();
    if (step !== 'report') return;
    record('all derived facts', begun);
    mostOfAnalysis = most;
  },
  { file: 'build-node/analysisThread.cjs' },
);
record('all derived facts and the report', begun);
const snapshot = viewOf(decodeSnapshot(new Map([...parts, ...analysed])));
const base = decodeBase(parts);

const steps: Record<string, number> = {};
let current: string | null = null;
let since = 0;
const noteStep = (step: string | null) => {
  const now = performance.now();
  if (current) steps[current] = now - since;
  [current, since] = [step, now];
  note();
};
const inOneThread = timed('all derived facts, in one thread', () => analyse(base, settings, noteStep));
noteStep(null);
const differing = [...encodeDerived(derivedOf(inOneThread))]
  .filter(([name, bytes]) => Buffer.compare(bytes, analysed.get(name) ?? Buffer.of()) !== 0)
  .map(([name]) => name);

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
const share = timed('share', () => pageRank({ ...graph, perEdge, kept: perEdge.map((part) => Number(part === 0)) }));
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

/**
 * The first window of a list as a screen asks for it. What was asked before is not asked again: the lists are not
 * cached.
 */
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
    differing,
    results,
    steps,
    windows,
  }),
);
