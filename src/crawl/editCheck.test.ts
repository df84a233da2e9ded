/** From a plan to the website and back: edits are made from the hand-over, checked, and found by the next crawl. */
import { execFileSync } from 'node:child_process';
import { existsSync, mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import pino from 'pino';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { predictionOf } from '$core/answers';
import { comparePages } from '$core/compare';
import { addressesOf, draftOfCrawl, editOf } from '$core/draft';
import type { DraftEdit, Edit } from '$core/draft';
import { fileOf, unifiedDiff } from '$core/handOver';
import { planFor } from '$core/plan';

import { settingsSchema } from '$core/settings';
import { countBits, numbersOf } from '$core/selection';
import { addressAt, factAt, pageOf } from '$core/snapshot';
import { withComparison } from '$core/view';
import type { View } from '$core/view';
import {
  askLiveCheck,
  editedFiles,
  getCrawl,
  handOverPages,
  liveChecksOf,
  openSnapshot,
  selectPages,
} from '$server/index';
import { serveByHost } from '../../demo/server';
import { demoAnswer } from '../../demo/site';
import { certificate } from '../../tests/support/certificate';
import { testDatabase } from '../../tests/support/database';
import type { TestDatabase } from '../../tests/support/database';
import { crawling } from '../../tests/support/crawling';
import { standIn } from '../../tests/support/standIn';
import type { StandIn } from '../../tests/support/standIn';
import { runLiveChecks } from './liveChecks';

let test: TestDatabase;
let site: StandIn;
let folder: string;
const { crawl } = crawling(() => test.db);

const page = (title: string, ...paths: string[]) => `<!doctype html>
<html>
  <head><title>${title}</title></head>
  <body>
    <main>
      <h1>${title}</h1>
      <p>The museum shows ${title.toLowerCase()} of the coast.</p>
${paths.map((path) => `      <p><a href="${path}">${path.slice(1, -1)}</a></p>`).join('\n')}
    </main>
    <footer><a href="/shop/">Shop</a></footer>
  </body>
</html>
`;
const museum: Record<string, string> = {
  '/': page('Museum', '/trams/', '/visit/'),
  '/trams/': page('Trams', '/trams/1908/'),
  '/trams/1908/': page('Open cars', '/trams/1911/'),
  '/trams/1911/': page('Closed cars'),
  '/visit/': page('Visit'),
  '/shop/': page('Shop'),
  '/depot/': page('Depot', '/depot/pit/'),
  '/depot/pit/': page('Pit'),
};
const listed = ['/depot/', '/depot/pit/'];
const ownFile = (path: string) => join(folder, `${path}index.html`);

beforeAll(async () => {
  test = await testDatabase();
  folder = mkdtempSync(join(tmpdir(), 'museum-'));
  for (const [path, body] of Object.entries(museum)) {
    mkdirSync(dirname(ownFile(path)), { recursive: true });
    writeFileSync(ownFile(path), body);
  }
  site = await standIn((path) => {
    if (path === '/sitemap.xml') {
      const urls = listed.map((one) => `<url><loc>${site.origin}${one}</loc></url>`).join('');
      return `<urlset xmlns="http://www.sitemaps.org/schemas/sitemap/0.9">${urls}</urlset>`;
    }
    return path.endsWith('/') && existsSync(ownFile(path)) ? readFileSync(ownFile(path), 'utf8') : undefined;
  });
});
afterAll(async () => {
  await site.close();
  rmSync(folder, { recursive: true });
  await test.drop();
});

/** What a check of edits finds now. */
async function check(siteId: number, view: View, edits: DraftEdit[], own = settings()) {
  const { start } = own;
  const asked = { edits, addresses: addressesOf(edits, view, own) };
  await askLiveCheck(test.db, siteId, 'edits', start, asked);
  const stop = new AbortController();
  const running = runLiveChecks({
    db: test.db,
    log: pino({ enabled: false }),
    allowPrivate: true,
    signal: stop.signal,
  });
  for (;;) {
    const found = (await liveChecksOf(test.db, siteId, 'edits', [start])).get(start)!;
    if (found.state === 'waiting' || found.state === 'running') continue;
    stop.abort();
    await running;
    return found.result!;
  }
}
const settings = () => settingsSchema.parse({ start: `${site.origin}/` });

it('a plan is handed over, made from its diff, checked at once and found by the next crawl as it was predicted', async () => {
  const first = await crawl(`${site.origin}/`);
  const row = (await getCrawl(test.db, first.crawlId))!;
  const view = (await openSnapshot(test.db, row, 'words'))!;
  const wanted = selectPages(view, 'indexable').pages;
  const planned = planFor(view, { goal: 'within', amount: 2, wanted }, settings()).proposals.map(({ edit }) => edit);
  expect(planned.length).toBeGreaterThan(1);
  const more: Edit[] = [
    editOf('remove_link', '*', { target: `${site.origin}/shop/`, placement: 'footer' }),
    editOf('add_link', `${site.origin}/visit/`, { target: `${site.origin}/shop/`, anchor: 'museum' }),
    editOf('noindex', `${site.origin}/depot/pit/`),
  ];
  const edits = [...planned, ...more].map((edit, i): DraftEdit => ({
    ...edit,
    id: String(i),
    at: new Date(),
    on: true,
    done: false,
    note: '',
  }));
  const drafted = draftOfCrawl({ view, settings: settings(), began: row.createdAt }, edits);
  expect(drafted.states.every(({ state }) => state === 'applied')).toBe(true);

  const handOver = { crawl: row, view, settings: settings(), edits };
  const pages = await handOverPages(test.db, {
    ...handOver,
    notes: new Map(),
    editing: 'https://cms.example/{path:([^/]*)/$}',
  });
  expect(pages.flatMap((one) => one.edits.map(({ placed }) => placed))).toEqual(edits.map(() => true));
  expect(pages.find(({ source }) => source.endsWith('/visit/'))).toMatchObject({
    editAt: 'https://cms.example/visit',
    edits: [{ after: { before: 'The ', words: 'museum', after: ' shows visit of the coast.' } }],
  });

  const outcomes = async () => Object.values((await check(row.siteId, view, edits)).outcomes).map(({ state }) => state);
  expect(await outcomes()).toEqual(edits.map(() => 'not_yet'));
  const diff = unifiedDiff((await editedFiles(test.db, handOver))!);
  execFileSync('git', ['apply', '-'], { cwd: folder, input: diff });
  expect(await outcomes()).toEqual(edits.map(() => 'live'));

  const second = await crawl(`${site.origin}/`);
  const after = draftOfCrawl({ view: second.snapshot, settings: settings(), began: new Date() }, edits);
  expect(after.states.map(({ state }) => state)).toEqual(edits.map(() => 'live'));
  const came = withComparison(second.snapshot, comparePages(drafted.view, second.snapshot));
  const { figures, otherwise } = predictionOf(view, came);
  expect(otherwise).toEqual([]);
  for (const { predicted, came: found } of figures) expect(found).toBe(predicted);
  expect(figures.find(({ figure }) => figure === 'no_route')).toMatchObject({ before: 2, predicted: 0, came: 0 });
});

it('on the demo website, a plan brings all indexable orphans within three clicks, as its diff makes it', async () => {
  const origin = 'https://www.larkfield.example';
  const files = (path: string) => join(folder, 'demo', fileOf(origin + path));
  const served = await serveByHost(0, certificate(), (host, secure, path) => {
    const answer = demoAnswer(host, secure, path, false);
    const isEdited = secure && host === 'www.larkfield.example' && answer.status === 200 && existsSync(files(path));
    return isEdited ? { ...answer, body: readFileSync(files(path)) } : answer;
  });
  try {
    const hosts = ['www.larkfield.example', 'larkfield.example'];
    const overrides = hosts.map((host) => ({ host, toHost: '127.0.0.1', toPort: served.port }));
    const given = { depth: 12, acceptCertificates: true, overrides };
    const demoSettings = settingsSchema.parse({ start: `${origin}/`, ...given });
    const first = await crawl(`${origin}/`, given);
    const row = (await getCrawl(test.db, first.crawlId))!;
    const view = (await openSnapshot(test.db, row, 'words'))!;
    const orphans = 'indexable and not reached';
    const call = { goal: 'within', amount: 3, wanted: selectPages(view, orphans).pages } as const;
    const plan = planFor(view, call, demoSettings);
    expect(plan).toMatchObject({ missed: 0 });
    expect(plan.short).toBeGreaterThan(10);
    const edits = plan.proposals.map(({ edit }, i): DraftEdit => ({
      ...edit,
      id: `demo${i}`,
      at: new Date(),
      on: true,
      done: false,
      note: '',
    }));
    const edited = (await editedFiles(test.db, { crawl: row, view, settings: demoSettings, edits }))!;
    for (const { address, before } of edited) {
      mkdirSync(dirname(files(new URL(address).pathname)), { recursive: true });
      writeFileSync(files(new URL(address).pathname), before);
    }
    execFileSync('git', ['apply', '-'], { cwd: join(folder, 'demo'), input: unifiedDiff(edited) });
    const { outcomes } = await check(row.siteId, view, edits, demoSettings);
    expect(Object.values(outcomes).map(({ state }) => state)).toEqual(edits.map(() => 'live'));
    const second = await crawl(`${origin}/`, given);
    const after = draftOfCrawl({ view: second.snapshot, settings: demoSettings, began: new Date() }, edits);
    expect(after.states.map(({ state }) => state)).toEqual(edits.map(() => 'live'));
    expect(countBits(selectPages(second.snapshot, orphans).pages)).toBe(0);
    const addresses = [...numbersOf(call.wanted)].map((page) => addressAt(view, page));
    const depths = addresses.map((address) => factAt(second.snapshot, 'depth', pageOf(second.snapshot, address)));
    expect(Math.max(...depths.map(Number))).toBeLessThanOrEqual(3);
  } finally {
    await served.close();
  }
});
