/** The real thing as a user meets it: web application, worker, database, demo website and browser. */
import { rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Browser, Page } from 'puppeteer-core';
import { serveDemo } from '../demo/server';
import { clickText, openBrowser, pageForEach, shows } from './support/browser';
import { certificate } from './support/certificate';
import { testDatabase } from './support/database';
import type { TestDatabase } from './support/database';
import { program, startApp } from './support/program';
import type { Running } from './support/program';
import { linking, standIn } from './support/standIn';

let database: TestDatabase;
let demo: Awaited<ReturnType<typeof serveDemo>>;
let app: Awaited<ReturnType<typeof startApp>>;
let worker: Running;
let browser: Browser;
let page: Page;
let faults: string[];

beforeAll(async () => {
  database = await testDatabase();
  demo = await serveDemo(0, certificate());
  app = await startApp(database.url);
  worker = program(['worker'], { DATABASE_URL: database.url });
  browser = await openBrowser();
});
afterAll(async () => {
  await browser?.close();
  await Promise.all([app?.stop(), worker?.stop()]);
  await demo?.close();
  await database?.drop();
});
pageForEach(
  () => browser,
  (opened) => ({ page, faults } = opened),
);

const answer = () => page.$eval('main p.font-serif', (element) => (element as HTMLElement).innerText);
const pagesSelected = () => page.$eval('[aria-live=polite]', (element) => (element as HTMLElement).innerText.trim());
const addressesShown = () =>
  page.$$eval('[role=row][id^=row-]', (rows) => rows.map((row) => row.querySelector('[title]')?.getAttribute('title')));

/** Gives the start address, with the demo's overrides when they are asked for. */
async function giveAddress(address: string, settings?: { depth: string }) {
  await page.goto(app.address);
  await page.type('#start', address);
  if (!settings) return clickText(page, 'button', 'Crawl');
  await clickText(page, 'a', 'Settings …');
  await page.waitForSelector('[name=overrides]');
  expect(await page.$eval('#start', (input) => (input as HTMLInputElement).value)).toBe(address);
  await page.type('[name=depth]', settings.depth);
  const hosts = ['www.larkfield.example', 'larkfield.example'];
  await page.type('[name=overrides]', hosts.map((host) => `${host}=127.0.0.1:${demo.port}`).join('\n'));
  await page.click('[name=acceptCertificates]');
  await clickText(page, 'button', 'Save and crawl');
}

let reach = '';
/** Opens Reach and waits until its chart is drawn: from then on the page takes clicks and keys. */
async function openReach(query = '') {
  await page.goto(reach + query);
  await page.waitForSelector('[_echarts_instance_] svg');
}

describe('from a start address to orphans on the screen', () => {
  it('crawls the site that is given, and answers', async () => {
    await page.goto(app.address);
    await shows(page, 'There are no sites yet');
    await giveAddress('www.larkfield.example', { depth: '12' });
    await page.waitForFunction(() => location.pathname.endsWith('/overview'), { timeout: 120_000 });
    await shows(page, 'may be indexed');
    expect(await answer()).toMatch(/^\d+ addresses are known and \d+ may be indexed/);
    await shows(page, 'sitemap-stories.xml.gz');
    await shows(page, 'The server answered 404.');
    reach = page.url().replace('/overview', '/reach');
  });

  it('narrows the list to the bar that is picked, in the address too', async () => {
    await openReach();
    expect(await answer()).toMatch(
      /indexable pages are within 3 clicks of the start page\. \d+ are deeper and \d+ have no route/,
    );
    const all = await pagesSelected();
    await page.click('[aria-label^="depth 2,"]');
    await page.waitForFunction(() => new URLSearchParams(location.search).get('select') === 'depth = 2');
    const label = await page.$eval('[aria-label^="depth 2,"]', (element) => element.getAttribute('aria-label')!);
    await page.waitForFunction(
      (before: string) => document.querySelector('[aria-live=polite]')!.textContent!.trim() !== before,
      {},
      all,
    );
    expect(label).toContain(await pagesSelected());
    await page.goBack();
    await page.waitForFunction(
      (before: string) => document.querySelector('[aria-live=polite]')!.textContent!.trim() === before,
      {},
      all,
    );
  });

  it('finds the page that only the sitemap knows, and opens its dossier', async () => {
    await openReach();
    await clickText(page, 'button', 'No route, in a sitemap');
    await page.waitForFunction(() => location.search.includes('sitemap'));
    const row = await page.waitForSelector('[role=gridcell][title$="/stories/night-buses-of-the-coast"]');
    await row!.click();
    await shows(page, 'No route: no page links to it.');
    await shows(page, 'sitemap-stories.xml.gz, line');
    await shows(page, 'May be indexed');
    // The address alone brings everything back.
    const state = page.url();
    await page.goto('about:blank');
    await page.goto(state);
    await shows(page, 'No route: no page links to it.');
    expect(await addressesShown()).toContain('https://www.larkfield.example/stories/night-buses-of-the-coast');
    await page.keyboard.press('Escape');
    await page.waitForFunction(() => !location.search.includes('page='));
  });

  it('can be used by keys alone', async () => {
    await openReach();
    await page.keyboard.press('s');
    await page.keyboard.type('depth = 1');
    await page.keyboard.press('Enter');
    await page.waitForFunction(() => location.search.includes('depth'));
    await page.keyboard.press('Escape');
    await page.focus('[role=grid]');
    await page.keyboard.press('ArrowDown');
    await page.keyboard.press('Enter');
    await shows(page, 'From discovery to index');
    await page.keyboard.press('?');
    await page.waitForSelector('dialog[open]');
    await page.keyboard.press('Escape');
    await page.keyboard.press('[');
    await page.waitForFunction(() => location.pathname.endsWith('/overview'));
  });

  it('brings rows far down the list', async () => {
    await openReach();
    await page.focus('[role=grid]');
    await page.keyboard.press('End');
    const total = parseInt(await pagesSelected());
    await page.waitForSelector(`[role=row][aria-rowindex="${total + 1}"] [role=gridcell][title]`);
    // Another order begins at its top.
    await clickText(page, '[role=columnheader] button', 'Depth');
    await page.waitForFunction(() => location.search.includes('sort=depth'));
    await page.waitForFunction(() => document.querySelector('[role=grid]')!.scrollTop === 0);
    await page.waitForSelector('[role=row][aria-rowindex="2"] [role=gridcell][title="https://www.larkfield.example/"]');
  });

  it('says where a selection goes wrong', async () => {
    await page.goto(`${reach}?select=${encodeURIComponent('depht > 3')}`);
    await shows(page, 'is not a fact of pages. Did you mean “depth”');
    expect(await page.$eval('.layer .wrong', (mark) => mark.textContent)).toBe('depht');
  });

  it('walks the links for a selection that no list can answer', async () => {
    await page.goto(`${reach}?select=${encodeURIComponent('orphan and links to (depth = 0)')}`);
    expect(await page.$eval('#selection', (field) => (field as HTMLInputElement).value)).toContain('links to');
    const rows = reach.replace('/reach', '/rows');
    const asked = async (select: string) =>
      (await (await fetch(`${rows}?select=${encodeURIComponent(select)}`)).json()) as { total: number };
    const [all, linking] = [await asked('orphan'), await asked('orphan and links to (depth = 0)')];
    expect(linking.total).toBeLessThanOrEqual(all.total);
    expect((await asked('linked from (depth = 0) and reached')).total).toBeGreaterThan(0);
  });

  it('exports what is selected', async () => {
    const response = await fetch(
      `${reach.replace('/reach', '/export')}?columns=url,status,reach&select=${encodeURIComponent('orphan and indexable')}`,
    );
    const [head, ...rows] = (await response.text()).trim().split('\r\n');
    expect(response.headers.get('content-type')).toContain('text/csv');
    expect(head).toBe('url,status,reach');
    expect(rows.length).toBeGreaterThan(2);
    expect(rows.every((row) => row.endsWith(',orphan'))).toBe(true);
  });
});

it('a crawl that an earlier version has analysed is brought up to date by a worker, and opens', async () => {
  const id = Number(/crawls\/(\d+)/.exec(reach)![1]);
  const before = await (await fetch(reach.replace('/reach', '/rows?select=orphan'))).json();
  const query = (sql: string) => database.db.$client.query(sql, [id]);
  await query(`update snapshot_chunk set data = '{"version":4}' where crawl_id = ? and part = 'head'`);
  // Analysed at another time, it is not the one that is open.
  await query('update crawl set analysed_at = analysed_at + interval 1 second where id = ?');
  const response = await page.goto(reach);
  expect(response!.request().redirectChain()).toHaveLength(1);
  await page.waitForFunction(() => location.pathname.endsWith('/overview'), { timeout: 60_000 });
  expect(await answer()).toMatch(/addresses are known/);
  expect(await (await fetch(reach.replace('/reach', '/rows?select=orphan'))).json()).toEqual(before);
});

describe('what goes wrong is said', () => {
  it.each([
    ['trams by the sea', /an address cannot hold a space/],
    ['https://nowhere.invalid/', /The host has no DNS record/],
    ['http://127.0.0.1:9/', /The connection was refused/],
  ])('%s', async (address, message) => {
    await giveAddress(address);
    await page.waitForFunction(
      (source: string) => new RegExp(source).test(document.body.innerText),
      { timeout: 60_000 },
      message.source,
    );
  });
  it('an address that is nowhere in Edge Map', async () => {
    const response = await page.goto(`${app.address}sites/999/crawls/999/reach`);
    expect(response!.status()).toBe(404);
    await shows(page, 'There is no such site.');
    faults.length = 0;
  });
  it('other names than loopback are not answered', async () => {
    const { request } = await import('node:http');
    const status = await new Promise((resolve) =>
      request(app.address, { headers: { host: 'evil.example' } }, (response) => resolve(response.statusCode)).end(),
    );
    expect(status).toBe(421);
  });
});

describe('the settings of a site', () => {
  it('show what patterns would do, are saved, exported, and read in again', async () => {
    await page.goto(app.address);
    await clickText(page, 'tr:has([title="https://www.larkfield.example/"]) button', 'More');
    await clickText(page, 'a[href^="/settings?site"]', 'Settings');
    await page.waitForSelector('[name=exclude]');
    await shows(page, 'known addresses of this site');
    await page.type('[name=exclude]', '/events/*\n*sort=');
    await page.waitForFunction(() => /Left out \d\d/.test(document.body.innerText));
    await page.type('textarea[placeholder^="/visit/prices"]', '/visit/prices /shop?sort=price');
    await page.waitForFunction(() => /Kept 1\s+Left out 1/.test(document.body.innerText));
    await page.type('[name=rate]', '2000');
    await clickText(page, 'button:not([formaction])', 'Save');
    await shows(page, 'Give a number from 0.01 to 1,000.');
    await page.$eval('[name=rate]', (input) => ((input as HTMLInputElement).value = '12.5'));
    await page.type('[name=user]', 'curator');
    await page.type('[name=password]', 'tram-7');
    await clickText(page, 'button:not([formaction])', 'Save');
    await shows(page, 'The settings are saved.');
    await shows(page, 'Stored now: a user and password.');
    expect(await page.content()).not.toContain('tram-7');
    const exported = await page.$eval('a[download]', (link) => (link as HTMLAnchorElement).href);
    const file = await (await fetch(exported)).text();
    expect(JSON.parse(file)).toMatchObject({ edgemapSettings: { rate: 12.5, exclude: ['/events/*', '*sort='] } });
    expect(file).not.toMatch(/curator|tram-7/);

    await page.goto(`${app.address}settings?start=https://b.example/`);
    const path = join(tmpdir(), `edgemap-${process.pid}.json`);
    writeFileSync(path, file);
    const input = await page.waitForSelector('input[type=file]');
    await (input as import('puppeteer-core').ElementHandle<HTMLInputElement>).uploadFile(path);
    await shows(page, 'are filled in below');
    rmSync(path);
    expect(await page.$eval('[name=exclude]', (area) => (area as HTMLTextAreaElement).value)).toBe('/events/*\n*sort=');
  });
});

it('a site that is closed to its crawl is told early, with file, line and rule', async () => {
  const site = await standIn({
    '/robots.txt': 'User-agent: *\nDisallow: /a',
    '/': linking('Home', ...Array.from({ length: 8 }, (_, i) => `/a/${i}`)),
  });
  try {
    await giveAddress(`${site.origin}/`);
    await page.waitForFunction(() => location.pathname.endsWith('/overview'), { timeout: 60_000 });
    await shows(page, `${site.origin}/robots.txt says: Disallow: /a (line 2).`);
  } finally {
    await site.close();
  }
});

it('a selection is fetched again, and the rest is carried over', async () => {
  const site = await standIn((path) => (/^\/[ab]?$/.test(path) ? linking(path, '/a', '/b') : undefined));
  try {
    await giveAddress(`${site.origin}/`);
    await page.waitForFunction(() => location.pathname.endsWith('/overview'), { timeout: 60_000 });
    await page.goto(`${page.url().replace('/overview', '/reach')}?select=${encodeURIComponent('url has "/b"')}`);
    site.asked.length = 0;
    await page.waitForSelector('[_echarts_instance_] svg');
    await clickText(page, 'button', 'Export');
    await clickText(page, 'button', 'Fetch the pages again');
    await page.waitForFunction(() => location.pathname.endsWith('/overview'), { timeout: 60_000 });
    await shows(page, 'Only a selection was fetched again');
    expect(site.asked.filter((path) => path !== '/robots.txt')).toEqual(['/b']);
  } finally {
    await site.close();
  }
});

it('a running crawl is watched, stopped and continued', async () => {
  const site = await standIn((path) => (_, response) => {
    if (path === '/robots.txt') return void response.writeHead(404).end();
    const n = Number(path.slice(1)) || 0;
    const body = linking(`Page ${n}`, ...(n < 60 ? [`/${n * 2 + 1}`, `/${n * 2 + 2}`] : []));
    setTimeout(() => response.setHeader('content-type', 'text/html').end(body), 250);
  });
  try {
    await giveAddress(`${site.origin}/`);
    await shows(page, `Crawling ${site.origin}/`);
    await page.waitForFunction(() => /Latest pages\s+200/.test(document.body.innerText), { timeout: 30_000 });
    await shows(page, 'clicks away');
    // What was asked and not heard is said, and can be asked again.
    await page.setRequestInterception(true);
    const refuse = (request: import('puppeteer-core').HTTPRequest) =>
      void (request.method() === 'POST' ? request.abort() : request.continue());
    page.on('request', refuse);
    await clickText(page, 'button', 'Pause');
    await shows(page, 'The request did not reach the crawl, which continues.');
    page.off('request', refuse);
    await page.setRequestInterception(false);
    faults.length = 0;
    await clickText(page, 'button', 'Pause');
    await shows(page, 'Nothing is fetched until you resume the crawl.');
    await clickText(page, 'button', 'Resume crawl');
    await shows(page, `Crawling ${site.origin}/`);
    await clickText(page, 'button', 'Stop');
    await page.waitForFunction(() => location.pathname.endsWith('/overview'), { timeout: 60_000 });
    await shows(page, 'The crawl was stopped before everything was fetched.');
    await clickText(page, 'summary', 'Resume the crawl');
    await clickText(page, 'button', 'Resume crawl');
    await page.waitForFunction(() => location.pathname.endsWith('/watch'));
    await page.waitForFunction(() => location.pathname.endsWith('/overview'), { timeout: 60_000 });
    expect(await answer()).toMatch(/^121 addresses are known and 121 may be indexed/);
  } finally {
    await site.close();
  }
});
