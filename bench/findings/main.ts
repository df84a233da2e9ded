/**
 * `./edgemap bench findings`: how many of the findings that a person has judged are right.
 *
 *     node findings.js KEYFILE CERTFILE [--docs NAME=ADDRESS]… [--only SITE] [--accept] [--draw N]
 *
 * `--accept` writes down what is reported now; `--draw` prints occurrences that nobody has judged yet, N of each
 * finding.
 */
import { readFileSync } from 'node:fs';
import { parseArgs } from 'node:util';
import { findings, sampleOf } from '../../src/core/findings';
import type { Occurrence } from '../../src/core/findings';
import { sentence } from '../../src/core/messages';
import { settingsSchema } from '../../src/core/settings';
import { appDatabase, closeDatabase } from '../../src/server';
import { crawlSite, generatedSites } from './crawl';
import type { CrawledSite } from './crawl';
import { compareJudged, readJudged, reportedTest, shortOf, writeJudged } from './judged';
import type { Judged, Precision } from './judged';

const { values, positionals } = parseArgs({
  allowPositionals: true,
  options: {
    docs: { type: 'string', multiple: true, default: [] },
    only: { type: 'string' },
    accept: { type: 'boolean', default: false },
    draw: { type: 'string' },
  },
});
const [key, cert] = positionals.map((file) => readFileSync(file, 'utf8'));

const placeOf = (one: Occurrence) =>
  one.over === 'links' ? `${one.line}:${one.column}` : one.over === 'files' ? String(one.line ?? '') : '';

/** What a judge needs to see of an occurrence, on one line. */
function told(one: Occurrence, start: string): string {
  if (one.over === 'files') return sentence(one.evidence);
  if (one.over === 'pages')
    return Object.entries({ ...one.facts, ...one.evidence })
      .filter(([, value]) => value !== null)
      .map(([name, value]) => `${name}=${String(value)}`)
      .join(' ');
  const { words, target, fragment, title, placement, above, reason } = one;
  return `“${words}” → ${shortOf(target, start)}${fragment && `#${fragment}`} [${title ?? ''}] ${placement} ${above.split('>').slice(-4).join('>')}${reason ? ` | ${sentence(reason)}` : ''}`;
}

function draw({ name, start, snapshot, settings }: CrawledSite, n: number, judged: readonly Judged[]): void {
  for (const { id } of findings) {
    const sample = sampleOf(snapshot, id, settings, n, 1);
    if (!sample?.all) continue;
    console.log(`\n## ${name} ${id}: ${sample.all}`);
    sample.occurrences.forEach((one, i) => {
      const [address, place] = [shortOf(one.address, start), placeOf(one)];
      const known = judged.find((row) => row.finding === id && row.address === address && row.place === place);
      console.log(`${i + 1}\t${known?.verdict ?? ''}\t${address}\t${place}\t${told(one, start)}`);
    });
  }
}

const db = appDatabase();
const sites = generatedSites(db, { key, cert });
for (const named of values.docs) {
  const [name, start] = [named.slice(0, named.indexOf('=')), named.slice(named.indexOf('=') + 1)];
  sites.set(name, () => crawlSite(db, name, settingsSchema.parse({ start })));
}

const judged = readJudged();
const totals = new Map<string, Map<string, Precision>>();
let changes = 0;
for (const [name, crawl] of sites) {
  if (values.only && values.only !== name) continue;
  const site = await crawl();
  const cases = judged.get(name) ?? [];
  if (values.draw) draw(site, Number(values.draw), cases);
  const isReported = reportedTest(site.snapshot, site.start, site.settings);
  const { byFinding, changed } = compareJudged(cases, isReported);
  for (const [finding, precision] of byFinding)
    totals.set(finding, (totals.get(finding) ?? new Map<string, Precision>()).set(name, precision));
  for (const { finding, address, place, verdict, reported } of changed)
    console.log(
      `${name}: ${finding} at ${address} ${place}, judged ${verdict}, is ${reported === 'yes' ? 'no longer' : 'now'} reported`,
    );
  changes += changed.length;
  if (values.accept && cases.length)
    writeJudged(
      name,
      cases.map((one) => ({ ...one, reported: isReported(one) ? 'yes' : 'no' })),
    );
}
await closeDatabase(db);

if (!values.draw) {
  const names = [...sites.keys()].filter((name) => judged.has(name) && (!values.only || values.only === name));
  console.log(`\nRight of those judged that are reported, by finding and site; − where a right one is missed`);
  console.log(['finding', ...names, 'all', 'precision'].join('\t'));
  for (const { id, worthALook } of findings) {
    const own = totals.get(id);
    if (!own) continue;
    const sum = { right: 0, wrong: 0 };
    const cells = names.map((name) => {
      const { right = 0, wrong = 0, missed = 0 } = own.get(name) ?? {};
      sum.right += right;
      sum.wrong += wrong;
      return right + wrong + missed ? `${right}/${right + wrong}${missed ? ` −${missed}` : ''}` : '';
    });
    const all = sum.right + sum.wrong;
    console.log(
      [
        id,
        ...cells,
        `${sum.right}/${all}`,
        `${all ? (sum.right / all).toFixed(2) : '—'}${worthALook ? ', worth a look' : ''}`,
      ].join('\t'),
    );
  }
}
if (changes && !values.accept && !values.draw) {
  console.error(
    `\nThe answer to ${changes} judged cases has changed. Look at them; --accept writes down what is reported now.`,
  );
  process.exitCode = 1;
}
