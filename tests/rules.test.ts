/** Rules in a browser: what decides about each page, and a draft of robots.txt that is judged while it is written. */
import pino from 'pino';
import { describe, expect, it } from 'vitest';
import { sayAlive } from '$server/index';
import { runLiveChecks } from '../src/crawl/liveChecks';
import { appOnSite } from './support/appOnSite';
import type { Opened } from './support/appOnSite';
import { clickText, shows } from './support/browser';
import { linking } from './support/standIn';

let { site, app, page, database } = {} as Opened;
let crawl: number;
let robots = 'User-agent: *\nDisallow: /basket\n';
const head = (text: string, more: string) => text.replace('</title>', `</title>${more}`);
appOnSite(
  (path) => {
    if (path === '/robots.txt') return { headers: { 'content-type': 'text/plain' }, body: robots };
    if (path === '/') return linking('Home', '/shop/', '/shop/1', '/shop/2', '/basket', '/print', '/hidden', '/en');
    if (path === '/shop/') return linking('Shop', '/shop/3', '/only');
    if (path === '/print') return head(linking('Print', '/'), '<link rel="canonical" href="/shop/1">');
    if (path === '/hidden') return head(linking('Hidden', '/'), '<meta name="robots" content="noindex">');
    if (path === '/en') return head(linking('English', '/'), '<link rel="alternate" hreflang="fr" href="/fr">');
    return /^\/(shop\/\d|basket|only|fr)$/.test(path) ? linking(`Page ${path}`, '/') : undefined;
  },
  async (crawlOnce) => void (crawl = await crawlOnce()),
  (opened) => ({ site, app, page, database } = opened),
);

const open = async (picture: string, { select = '' } = {}) => {
  await page.goto(
    `${app.address}sites/1/crawls/${crawl}/rules?picture=${picture}&select=${encodeURIComponent(select)}`,
  );
  await page.waitForSelector('html[data-ready]');
};
/** Writes at the end of the draft. */
const write = async (text: string) => {
  await page.waitForSelector('[aria-label="Draft"]');
  await page.click('[aria-label="Draft"]');
  await page.keyboard.down('Control');
  await page.keyboard.press('End');
  await page.keyboard.up('Control');
  await page.keyboard.type(text);
  await page.keyboard.press('Escape');
};
const row = (label: string) =>
  page.waitForFunction(
    (text) => [...document.querySelectorAll('tr')].find((one) => one.textContent.startsWith(text))?.textContent,
    {},
    label,
  );
const reads = (label: string, number: string) =>
  page.waitForFunction(
    (text, value) =>
      [...document.querySelectorAll('tr')].some((one) => one.textContent.replace(/\s+/g, '') === `${text}${value}`),
    {},
    label.replace(/\s+/g, ''),
    number,
  );

describe('Rules', () => {
  it('says what decides about the pages, and selects them', async () => {
    await open('');
    await shows(
      page,
      'may be indexed. 1 is closed by robots.txt, 1 says noindex and 1 names another page as canonical.',
    );
    await clickText(page, 'a', 'Disallow: /basket');
    await page.waitForFunction(() => location.search.includes('robots_line'));
    await shows(page, '1 page');
  });
  it('judges a draft while it is written, and what it costs', async () => {
    await open('robots');
    await reads('Still closed', '1');
    await write('Disallow: /shop/$');
    await reads('Newly closed', '1');
    await reads('Open pages that lose their route', '2');
    await reads('Indexable pages lost', '1');
    expect(await (await row('Share that indexable pages lose')).jsonValue()).toMatch(/%/);
  });
  it('says why an address is open or closed, and composes a rule', async () => {
    await open('robots');
    await reads('Still closed', '1');
    await clickText(page, '[role=tab]', 'Test and compose');
    await page.type('textarea', '/basket\n/shop/1');
    await shows(page, 'the group “*” holds (line 1), and one rule matches: Disallow: /basket (line 2).');
    await page.$eval('textarea', (area) => (area.value = ''));
    await page.type('textarea', '/shop/1\n/shop/2\n/shop/3');
    await clickText(page, 'button', 'Compose a rule that closes them');
    // The folder itself stays open, so no one pattern fits.
    await shows(page, 'Disallow: /shop/3 closes 1 of them and nothing else');
    await clickText(page, 'button', 'Add to the draft');
    await reads('Newly closed', '3');
  });
  it('composes a rule from rows that were picked in the list below', async () => {
    await open('robots', { select: 'path starts "/shop/" and path != "/shop/"' });
    await reads('Still closed', '1');
    await clickText(page, '[role=tab]', 'Test and compose');
    const boxes = await page.$$('[role=grid] [role=row] input[type=checkbox]');
    for (const box of boxes.slice(-2)) await box.click();
    await clickText(page, 'button', 'Take the 2 rows picked below');
    await clickText(page, 'button', 'Compose a rule that closes them');
    await shows(page, '2 addresses, as given');
    await shows(page, '3 addresses: all that differ in numbers only');
  });
  it('keeps versions, opens them, and compares them with the draft', async () => {
    await open('robots');
    await write('Disallow: /only');
    await reads('Newly closed', '1');
    await clickText(page, '[role=tab]', 'Versions');
    await page.type('[aria-label="Name of the version"]', 'Autumn');
    await clickText(page, 'button', 'Save this version');
    await shows(page, '“Autumn” is saved for everybody who works on this site.');
    await clickText(page, 'button', 'Start anew');
    await clickText(page, '[role=tabpanel] button', 'Compare with the draft');
    await shows(page, '- Disallow: /only');
    await clickText(page, '[role=tabpanel] button', 'Open');
    await clickText(page, '[role=tab]', 'What changes');
    await reads('Newly closed', '1');
  });
  it('tells whether the live file is what was drafted', async () => {
    const ended = new AbortController();
    const alive = () => sayAlive(database.db, 'test', 0);
    await alive();
    const log = pino({ enabled: false });
    const checking = runLiveChecks({ db: database.db, log, allowPrivate: true, signal: ended.signal });
    await open('robots');
    await clickText(page, 'button', 'Fetch again');
    await shows(page, 'The live file is still the one of this crawl.');
    robots = 'User-agent: *\nDisallow: /basket\nDisallow: /only';
    await write('Disallow: /only');
    await reads('Newly closed', '1');
    await alive();
    await clickText(page, 'button', 'Fetch again');
    await shows(page, 'The live file is what you have drafted.');
    await open('variants');
    const beating = setInterval(() => void alive(), 1000);
    await clickText(page, 'button', 'Check the other variants of');
    await shows(page, 'What other variants answer now');
    clearInterval(beating);
    ended.abort();
    await checking;
  });
  it('shows clusters of canonicals, editions, and what pages say themselves', async () => {
    await open('canonicals');
    await shows(page, '1 page leads to /shop/1');
    await open('hreflang');
    await shows(page, 'no return link');
    await open('page-rules');
    await shows(page, 'noindex');
    await shows(page, 'single pages');
  });
  it('answers plain questions, and saves the sheet', async () => {
    await open('answers');
    await shows(page, 'Is there a canonical on every page?');
    const sheet = await (await fetch(`${app.address}sites/1/crawls/${crawl}/answers?format=md`)).text();
    expect(sheet).toContain(`| Is every indexable page served with https? | no |`);
    expect(sheet).toContain(new URL(site.origin).host);
  });
});
