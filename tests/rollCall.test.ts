/** Roll call in a browser: a log is imported, the gap is named, and what only the log knows is fetched. */
import { writeFileSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import pino from 'pino';
import { afterAll, describe, expect, it } from 'vitest';
import type { ElementHandle } from 'puppeteer-core';
import { sayAlive } from '$server/index';
import { runLiveChecks } from '../src/crawl/liveChecks';
import { appOnSite } from './support/appOnSite';
import type { Opened } from './support/appOnSite';
import { clickText, shows } from './support/browser';
import { linking } from './support/standIn';

const folder = mkdtempSync(join(tmpdir(), 'edgemap-imports-'));
afterAll(() => rmSync(folder, { recursive: true, force: true }));
let { site, app, page, faults, database } = {} as Opened;
let earlier: number;
let crawl: number;
const namespace = 'http://www.sitemaps.org/schemas/sitemap/0.9';
const sitemap = `<urlset xmlns="${namespace}">\n<url>\n<loc>/relative</loc></url></urlset>`;
appOnSite(
  (path) => {
    if (path === '/sitemap.xml') return sitemap;
    if (path === '/') return linking('Home', '/a', '/b');
    return /^\/([ab]|old\/\d)$/.test(path) ? linking(`Page ${path}`, '/') : undefined;
  },
  async (crawlOnce) => {
    earlier = await crawlOnce();
    crawl = await crawlOnce();
  },
  (opened) => ({ site, app, page, faults, database } = opened),
);

const open = async (query = '') => {
  await page.goto(`${app.address}sites/1/crawls/${crawl}/roll-call${query}`);
  await page.waitForSelector('html[data-ready]');
};
const give = async (name: string, content: string) => {
  writeFileSync(join(folder, name), content);
  const picker = (await page.$('input[type=file]')) as ElementHandle<HTMLInputElement>;
  await picker.uploadFile(join(folder, name));
};
const hit = (path: string, status = 200) =>
  `203.0.113.9 - - [10/Oct/2026:13:55:36 +0000] "GET ${path} HTTP/1.1" ${status} 9 "-" "-"\n`;

describe('Roll call', () => {
  it('asks for other sources while there are none', async () => {
    await open();
    await shows(page, 'Links reach 3 pages. No other source is known');
  });
  it('names the gap that an imported log shows, and selects it', async () => {
    await open();
    await give('access.log', hit('/a') + hit('/old/1') + hit('/old/2') + hit('/probe', 404) + 'nothing\n');
    await shows(page, 'Import access.log');
    expect(await page.$eval('dialog input[value=log]', (input) => (input as HTMLInputElement).checked)).toBe(true);
    await clickText(page, 'dialog button', 'Import');
    await shows(page, 'access: 4 addresses, 1 of them in this crawl, 3 new; 1 line left out.');
    await shows(page, 'the access log knows 3. 2 addresses get visits and have no route, all under /old/.');
    await page.click('[aria-label^="1 address: linked"]');
    await page.waitForFunction(() => location.search.includes('log%28%22access%22%29'));
    await shows(page, '1 page');
  });
  it('previews a list, and lets another column be chosen', async () => {
    await open();
    await give('links.csv', 'From;To;Weight\n/a;/b;1,5\n/b;/a;2,5\n');
    await shows(page, 'Numbers: weight. Rows of the same address are added up.');
    await page.select('dialog select', '2');
    await page.waitForFunction(() =>
      document.querySelector('dialog td:nth-child(2)')?.className.includes('bg-primary'),
    );
    await clickText(page, 'dialog button', 'Import');
    await shows(page, 'links: 2 addresses, 2 of them in this crawl, 0 new.');
    await open('?select=list("links").weight > 2');
    await shows(page, '1 page');
  });
  it('says what is wrong with a file, and stores nothing', async () => {
    await open();
    await give('people.csv', 'Name,Age\nAda,36\n');
    await shows(page, 'No column of the file holds addresses. The file has these: Name, Age.');
    faults.splice(0, faults.length, ...faults.filter((fault) => !fault.includes('400')));
  });
  it('draws the hits of a page in its dossier', async () => {
    await open(`?page=${encodeURIComponent(`${site.origin}/a`)}&part=facts`);
    await shows(page, 'By status: 200: 1');
    await page.waitForSelector('aside [title="2026-10-10: 1 hit"]');
  });
  it('sets two sources side by side, folder by folder', async () => {
    await open('?picture=folders&sources=links,log%3Aaccess');
    await shows(page, 'old/');
    await shows(page, 'only access');
  });
  it('checks a sitemap anew', async () => {
    const ended = new AbortController();
    await sayAlive(database.db, 'test', 0);
    const log = pino({ enabled: false });
    const checking = runLiveChecks({ db: database.db, log, allowPrivate: true, signal: ended.signal });
    await open('?picture=sitemaps');
    await clickText(page, 'button', 'Check now');
    await shows(page, '1 fault in 1 entry:');
    await shows(page, 'Line 3: “/relative” is no absolute http or https address.');
    await shows(page, 'Check again');
    ended.abort();
    await checking;
  });
  it('adds an earlier crawl as a source', async () => {
    await open();
    await page.select('select[aria-label^="Add an earlier crawl"]', String(earlier));
    await shows(page, 'is a source now.');
    await shows(page, `Crawl ${earlier} of`);
    expect(await page.$('select[aria-label^="Add an earlier crawl"]')).toBeNull();
  });
  it('fetches what only the log knows into the crawl', async () => {
    await open();
    await shows(page, '2 addresses are in lists or logs and not in this crawl.');
    await shows(page, '1 more address only ever answered with an error.');
    await clickText(page, 'button', 'Show them');
    await shows(page, '/old/1');
    await clickText(page, 'button', 'Fetch them into this crawl');
    await page.waitForFunction(() => location.pathname.endsWith('/watch'));
    await shows(page, 'Waiting');
  });
});
