/**
 * Fifty readers who ask one thing after the other, of seventeen kinds, each what comes by chance.
 *
 * usage: load.mjs ADDRESS OF A CRAWL (…/sites/N/crawls/N) · NUMBER OF THE PROCESS · MINUTES
 */
import { readFileSync } from 'node:fs';

const [base, app, minutes] = [process.argv[2], process.argv[3], Number(process.argv[4])];
const READERS = 50;
const TOLD_SECONDS = 30;
const GOAL_MS = 1500;

const any = (list) => list[Math.floor(Math.random() * list.length)];
const upTo = (n) => Math.floor(Math.random() * n);
const query = (given) => new URLSearchParams(given).toString();
const facts = ['depth', 'share', 'links_in', 'links_out', 'word_count', 'bytes', 'title', 'url', 'verdict', 'section'];
const selection = () =>
  any([
    () => `depth >= ${upTo(6)}`,
    () => `links_in <= ${upTo(30)}`,
    () => `title has "${any(['tram', 'depot', 'bell', 'harbour'])}"`,
    () => `url has "/page/${upTo(999)}"`,
    () => `indexable and depth = ${upTo(6)}`,
    () => `word_count > ${upTo(1500)}`,
  ])();

const { rows } = await (
  await fetch(`${base}/rows?${query({ select: 'indexable', columns: 'url', size: 500 })}`)
).json();
const address = () => any(rows).cells.url;

/** By name, the path and query of a request. */
const kinds = {
  Overview: () => 'overview',
  Reach: () => `reach?${query({ select: selection() })}`,
  'Roll call': () => 'roll-call',
  Rules: () => 'rules',
  Flow: () => 'flow',
  Change: () => 'change',
  'rows in an order': () =>
    `rows?${query({ sort: `${any(facts)}${any(['', ':desc'])}`, from: upTo(9000), columns: facts })}`,
  'rows of a selection': () => `rows?${query({ select: selection(), sort: any(facts), columns: facts })}`,
  'rows of links': () => `rows?${query({ list: 'links', from: upTo(9000), columns: 'source,target,anchor' })}`,
  'changed rows': () => `rows?${query({ list: 'changes', columns: 'url' })}`,
  'number of rows': () => `rows?${query({ select: selection(), size: 0 })}`,
  summary: () => `summary?${query({ select: selection(), columns: facts })}`,
  'values of a fact': () => `values?${query({ fact: any(['title', 'section', 'content_type']) })}`,
  'dossier of a page': () => `dossier?${query({ page: address() })}`,
  'source of a page': () => `source?${query({ page: address() })}`,
  'page then and now': () => `page?${query({ page: address() })}`,
  'exported list': () => `export?${query({ format: 'csv', select: selection(), columns: 'url,title,depth' })}`,
};

const memory = () => Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${app}/status`, 'utf8'))[1]) / 1024;
const times = Object.fromEntries(Object.keys(kinds).map((name) => [name, []]));
const failures = new Map();
const until = performance.now() + minutes * 60_000;

async function read() {
  while (performance.now() < until) {
    const name = any(Object.keys(kinds));
    const began = performance.now();
    const path = kinds[name]();
    const status = await fetch(`${base}/${path}`)
      .then(async (response) => (await response.arrayBuffer(), response.status))
      .catch((error) => error.message);
    times[name].push(performance.now() - began);
    if (status !== 200) failures.set(`${name}: ${status}`, (failures.get(`${name}: ${status}`) ?? 0) + 1);
  }
}

const grown = [memory()];
const watching = setInterval(() => grown.push(memory()), TOLD_SECONDS * 1000);
await Promise.all(Array.from({ length: READERS }, read));
clearInterval(watching);

const at = (list, part) => list.sort((a, b) => a - b)[Math.min(list.length - 1, Math.floor(list.length * part))] ?? 0;
const ms = (value) => `${Math.round(value)} ms`.padStart(9);
console.log(`${'asked by fifty readers at once'.padEnd(34)}    often    median       95 %      slowest`);
for (const [name, list] of Object.entries({ ...times, all: Object.values(times).flat() }))
  console.log(
    `${name.padEnd(34)} ${String(list.length).padStart(8)} ${ms(at(list, 0.5))}  ${ms(at(list, 0.95))}    ${ms(at(list, 1))}`,
  );
const slow = at(Object.values(times).flat(), 0.95);
console.log(`\nMiB of the application, every ${TOLD_SECONDS} s: ${grown.map(Math.round).join(' ')}`);
for (const [what, n] of failures) console.log(`${n} × ${what}`);
console.log(
  failures.size || slow > GOAL_MS
    ? `${[...failures.values()].reduce((sum, n) => sum + n, 0)} answers failed; of twenty, one takes ${ms(slow).trim()} or more (aim: ${GOAL_MS} ms).`
    : `None failed, and nineteen of twenty came within ${ms(slow).trim()}.`,
);
process.exitCode = failures.size || slow > GOAL_MS ? 1 : 0;
