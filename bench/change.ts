/**
 * Two states of a generated site, and how long their comparison takes. `make FOLDER PAGES LINKS STATE` writes the
 * snapshot of state 0 or 1 in the parts in which it is stored; `compare OLD NEW` reads both as the server does,
 * compares their pages, links and findings, and answers what the screen asks when a stream is picked.
 */
import { mkdirSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { analyse } from '../src/core/analysis';
import { changeAnswer, changeCounts, changeFlow } from '../src/core/answers';
import { comparePages, linkChangesOf } from '../src/core/compare';
import { compareFindings } from '../src/core/findings';
import { packLinks } from '../src/core/links';
import { reportOf } from '../src/core/report';
import type { Report } from '../src/core/report';
import { settingsSchema } from '../src/core/settings';
import { evenWeights } from '../src/core/share';
import {
  baseBuilder,
  decodeSnapshot,
  encodeSnapshot,
  groupOfPart,
  nothingFound,
  REPORT_PART,
} from '../src/core/snapshot';
import { listWindow } from '../src/server/lists';
import { viewOf, withComparison } from '../src/core/view';

const ORIGIN = 'https://www.larkfield.example';
const settings = settingsSchema.parse({ start: `${ORIGIN}/` });
const sections = ['visit', 'collections', 'stories', 'learn', 'events', 'shop', 'press', 'fr'];

/** Pages to which a page leads that nothing else need lead to. */
const CHILDREN = 10;
/** Of so many pages one is another in the later state: gone, moved away, new, or with another title. */
const OTHER = 50;

function make(folder: string, count: number, perPage: number, state: number): void {
  /** Links of the template on every page; the last of them is gone in the later state. */
  const template = Math.min(20, perPage - CHILDREN - 2);
  let seed = 12345;
  const below = (n: number) => Math.floor(((seed = (Math.imul(seed, 1664525) + 1013904223) >>> 0) / 4294967296) * n);
  const isOther = (page: number) => page > 20 && page % OTHER === 0;
  const kindOf = (page: number) => (page / OTHER) % 4;
  const addressOf = (page: number) => {
    if (page === 0) return `${ORIGIN}/`;
    const renamed = isOther(page) && kindOf(page) === 1 && state === 1 ? 'new-' : '';
    return `${ORIGIN}/${sections[page % 8]}/${renamed}${String(page).padStart(8, '0')}`;
  };
  const targetsOf = (page: number) => [
    ...Array.from({ length: template - state }, (_, i) => i + 1),
    ...Array.from({ length: CHILDREN }, (_, i) => Math.min(count - 1, page * CHILDREN + i + 1)),
    ...Array.from({ length: perPage - template - CHILDREN }, () => below(count)),
  ];
  const builder = baseBuilder();
  const begin = seed;
  for (let page = 0; page < count; page++) {
    const isGone = isOther(page) && kindOf(page) === 0 && state === 1;
    const fingerprint = new Uint8Array(8);
    new DataView(fingerprint.buffer).setUint32(0, page + 1);
    builder.addPage({
      number: page + 1,
      address: addressOf(page),
      unvisitedReason: null,
      linkCount: targetsOf(page).length,
      found: {
        ...nothingFound,
        status: isGone ? 404 : 200,
        html: !isGone,
        contentType: 'text/html',
        title: `Page ${page}${isOther(page) && kindOf(page) === 2 && state === 1 ? ', anew' : ''}`,
        h1: `Page ${page}`,
        noindex: page % 40 === 0 || (isOther(page) && kindOf(page) === 3 && state === 1),
        wordCount: 30 + (page % 2000),
        contentHash: page.toString(16).padStart(32, '0'),
        fingerprint,
      },
    });
  }
  const layout = builder.layOut();
  seed = begin;
  const link = { kind: 'click', element: 'a', rel: 0, fragment: 0, column: 1 } as const;
  for (let page = 0; page < count; page++)
    layout.addLinks(
      page + 1,
      packLinks(
        targetsOf(page).map((to, i) => ({
          ...link,
          placement: i < template - state ? ('footer' as const) : ('main' as const),
          anchor: 1 + (to % 5000),
          above: 5001 + (i < template - state ? 0 : 1),
          target: to + 1,
          line: i + 1,
        })),
        (n) => n,
        (n) => n,
      ),
    );
  const phrases = new Map([
    [0, ''],
    ...Array.from({ length: 5000 }, (_, i): [number, string] => [i + 1, `Words ${i}`]),
  ]);
  phrases.set(5001, 'body>footer').set(5002, 'body>main');
  const base = layout.finish({
    starts: [addressOf(0)],
    listed: new Set(),
    checks: new Map(),
    outside: new Map(),
    phrases,
    listings: [],
    files: { robots: [], sitemaps: [] },
  });
  mkdirSync(folder, { recursive: true });
  const snapshot = analyse(base, { sections: [], nearTolerance: 3, weights: evenWeights });
  for (const [name, bytes] of encodeSnapshot(snapshot)) writeFileSync(join(folder, name), bytes);
  writeFileSync(join(folder, REPORT_PART), JSON.stringify(reportOf(viewOf(snapshot), settings).report));
}

function compare(before: string, after: string): void {
  const results: Record<string, number> = {};
  let most = 0;
  const timed = <T>(name: string, run: () => T): T => {
    const start = performance.now();
    const value = run();
    results[name] = (performance.now() - start) / 1000;
    const { rss } = process.memoryUsage();
    most = Math.max(most, rss);
    console.log(`  ${name}: ${results[name].toFixed(2)} s, ${Math.round(rss / 2 ** 20)} MiB`);
    return value;
  };
  const read = (folder: string) =>
    viewOf(
      decodeSnapshot(
        new Map(
          readdirSync(folder)
            .filter((name) => groupOfPart(name) !== null)
            .map((name) => [name, readFileSync(join(folder, name))]),
        ),
        readdirSync(folder),
      ),
    );
  const [old, fresh] = timed('read both', () => [read(before), read(after)]);
  const links = fresh.links.target.length;
  console.log(`  ${fresh.count.toLocaleString('en')} pages, ${links.toLocaleString('en')} links each`);
  const comparison = timed('pages', () => comparePages(old, fresh));
  const changed = timed('links', () => linkChangesOf(comparison));
  // What neither report tells of is not looked for, as on the server.
  const reported = new Set(
    [before, after].flatMap((folder) =>
      (JSON.parse(readFileSync(join(folder, REPORT_PART), 'utf8')) as Report).findings.map(({ id }) => id),
    ),
  );
  const findings = timed('findings', () => compareFindings(comparison, [settings, settings], (id) => reported.has(id)));
  const { classes } = timed('numbers', () => changeCounts(comparison));
  const whole = results.pages + results.links + results.findings + results.numbers;
  console.log(
    `  compared in ${whole.toFixed(2)} s, ${Math.round(most / 2 ** 20)} MiB: ${JSON.stringify(classes)}, ${changed.added.length} links added and ${changed.removed.length} removed by ${changed.edits} edits, ${findings.length} findings`,
  );
  const beside = withComparison(fresh, comparison);
  changeAnswer(beside, 'crawl 1');
  const flow = timed('flow', () => changeFlow(comparison, 'verdict', '', settings.thresholds));
  for (const { select, from, to, pages } of flow.streams.filter(({ from, to }) => from !== to).slice(0, 3))
    timed(`stream ${from} → ${to} of ${pages.toLocaleString('en')} pages, its list and first rows`, () =>
      listWindow(
        beside,
        { list: 'changes', select, sort: 'cost:desc', by: 'section' },
        ['url', 'title', 'change', 'changed_facts', 'was_verdict', 'verdict', 'share_change'],
        0,
        60,
      ),
    );
}

const [command, ...words] = process.argv.slice(2);
if (command === 'make') make(words[0], Number(words[1]), Number(words[2]), Number(words[3]));
else compare(words[0], words[1]);
