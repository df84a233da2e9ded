/**
 * The matcher of robots.txt and the bench on which drafts are judged: a million random files and addresses against the
 * slow reference, decisions a second with 500 rules against one regular expression a rule, and a keystroke with 100,000
 * and a million addresses, through what the worker of the browser calls.
 */
import { parseRobots, robotsMatcher } from '../src/core/robots';
import { robotsBench } from '../src/core/robotsEffect';
import { columnReader, textColumn, unknownColumn } from '../src/core/snapshot';
import type { ColumnName } from '../src/core/facts';
import type { Column, Snapshot } from '../src/core/snapshot';
import { referenceAllows } from '../src/core/testing/robotsReference';

const ORIGIN = 'https://www.larkfield.example';
let seed = 20_261_127;
const random = () => (seed = (Math.imul(seed, 1664525) + 1013904223) >>> 0) / 4294967296;
const below = (n: number) => Math.floor(random() * n);
const oneOf = <T>(values: readonly T[]): T => values[below(values.length)];

const fileUnits = ['/', 'a', 'b', 'A', '*', '$', '%62', '%2F', 'ü', '?'];
const pathUnits = ['/', 'a', 'b', 'A', '%2F', '%C3%BC', '?', 'c'];
const text = (units: readonly string[], most: number) =>
  `/${Array.from({ length: below(most) }, () => oneOf(units)).join('')}`;
const line = () =>
  random() < 0.3
    ? oneOf(['User-agent: *', 'user-agent: bot', 'User-agent: other', '', '# remark', 'Crawl-delay: 1'])
    : `${oneOf(['Allow: ', 'disallow:', 'Disallow: '])}${random() < 0.1 ? '' : text(fileUnits, 7)}`;

const sections = ['visit', 'collections', 'stories', 'learn', 'events', 'shop', 'press', 'fr'];
const addresses = (count: number) =>
  Array.from(
    { length: count },
    (_, i) => `${ORIGIN}/${sections[i % 8]}/${i % 97}/page-${i}${i % 11 ? '' : `?sort=${i % 5}`}`,
  ).sort();
const RULES = 500;
const rules = Array.from({ length: RULES }, (_, i) => {
  const folder = `/${sections[i % 8]}/${i % 97}/`;
  return [
    `Disallow: ${folder}page-${i * 7}`,
    `Disallow: /*?sort=${i}`,
    `Allow: ${folder}page-${i}$`,
    `Disallow: ${folder}*page-${i * 3}*x`,
  ][i % 4];
});
const file = `User-agent: *\n${rules.join('\n')}`;

const best = (run: () => void): number => {
  let least = Infinity;
  for (let round = 0; round < 3; round++) {
    const began = performance.now();
    run();
    least = Math.min(least, performance.now() - began);
  }
  return least;
};

const some = addresses(200_000);
const matcher = robotsMatcher(parseRobots(file), 'bot');
const ours = best(() => some.forEach((address) => matcher(address)));
const expressions = rules.map((rule) => {
  const [, path] = /: (.*)$/.exec(rule)!;
  const ends = path.endsWith('$');
  const source = path
    .replace(/\$$/, '')
    .replace(/[\\^$.+?()[\]{}|/]/g, '\\$&')
    .replaceAll('*', '.*');
  return new RegExp(`^${source}${ends ? '$' : ''}`);
});
const few = some.slice(0, 5000).map((address) => address.slice(ORIGIN.length));
const theirs =
  best(() => few.forEach((path) => expressions.filter((expression) => expression.test(path)))) / few.length;
const perSecond = (ms: number) => `${(1 / ms / 1000).toFixed(2)} million a second`;
console.log(`decisions, ${RULES} rules         ${perSecond(ours / some.length)}`);
console.log(
  `  one regular expression a rule ${perSecond(theirs)}: ${(theirs / (ours / some.length)).toFixed(0)}× the time`,
);

/** A snapshot of pages without links, of which the bench reads addresses, verdicts, sections and sources. */
function snapshotOf(count: number): Snapshot {
  const all = addresses(count);
  const columns: Partial<Record<ColumnName, Column>> = {
    url: textColumn(all),
    section: textColumn(all.map((address) => address.split('/')[3])),
    verdict: new Int32Array(count),
    seen_in: new Int32Array(count),
    robots_rule: unknownColumn('robots_rule', count),
  };
  const column = columnReader((name) => columns[name] ?? unknownColumn(name, count));
  return { count, column, outside: [] } as unknown as Snapshot;
}

for (const count of [100_000, 1_000_000]) {
  const bench = robotsBench(snapshotOf(count), ORIGIN, file);
  bench.judge(file, 'bot');
  let keystroke = 0;
  const said = (what: string, ms: number) =>
    console.log(`${what}, ${count.toLocaleString('en').padStart(9)} addresses  ${ms.toFixed(0)} ms in the worker`);
  const narrow = () => void bench.judge(`${file}\nDisallow: /visit/${++keystroke}`, 'bot');
  said('a keystroke', best(narrow));
  // Rules that decide about a quarter of all, each another one.
  const wide = () => void bench.judge(`${file}\nDisallow: /s${'*'.repeat(++keystroke % 5)}`, 'bot');
  said('  that opens and closes a quarter', best(wide));
}

// Last: a million small automata leave the program in another state than a page of a browser is in.
const FILES = Number(process.env.FILES ?? 1_000_000);
let differing = 0;
for (let i = 0; i < FILES; i++) {
  const file = Array.from({ length: below(9) }, line).join('\n');
  const path = text(pathUnits, 8);
  const { allowed } = robotsMatcher(parseRobots(file), 'bot')(ORIGIN + path);
  if (allowed !== referenceAllows(file, 'bot', path) && ++differing <= 5) console.log({ file, path, allowed });
}
console.log(`random files and addresses   ${FILES.toLocaleString('en')}, ${differing} judged unlike the reference`);
