/** The home page, crawls that are looked at while they run, findings that are ignored, and the tour, in a browser. */
import { describe, expect, it } from 'vitest';
import { appOnSite } from './support/appOnSite';
import type { Opened } from './support/appOnSite';
import { clickText, shows } from './support/browser';
import { linking } from './support/standIn';

let { database, site, app, page, faults } = {} as Opened;
const crawls: number[] = [];
let isNew = false;
appOnSite(
  (path) => {
    if (path === '/') return linking('Home', '/a', '/gone', ...(isNew ? ['/b'] : []));
    if (path === '/a' || (isNew && path === '/b')) return linking(`Page ${path}`, '/', '/gone');
    return undefined;
  },
  async (crawlOnce) => {
    crawls.push(await crawlOnce());
    isNew = true;
    crawls.push(await crawlOnce());
  },
  (opened) => ({ database, site, app, page, faults } = opened),
);

const open = async (path = '') => {
  await page.goto(app.address + path);
  await page.waitForSelector('html[data-ready]');
};
const gone = (text: string) => page.waitForFunction((t: string) => !document.body.innerText.includes(t), {}, text);
const screen = (name: string) => `sites/1/crawls/${crawls[1]}/${name}`;

describe('the home page', () => {
  it('says what a crawl will do while its address is typed', async () => {
    await open();
    await page.type('#start', 'trams.example');
    await shows(page, 'Starts at https://trams.example/ and follows links on trams.example and www.trams.example');
    await page.$eval('#start', (input) => ((input as HTMLInputElement).value = ''));
    await page.type('#start', site.origin);
    await shows(page, 'You have crawled');
  });
  it('tells what has changed since the crawl before', async () => {
    await open();
    await shows(page, '+1 URL, +1 indexable');
  });
  it('names a site, and calls it by its address again', async () => {
    await open();
    await clickText(page, 'table button', 'More');
    await page.type('input[name=name]', 'The tram site');
    await clickText(page, 'button', 'Rename');
    await shows(page, 'The site is called “The tram site”.');
    await page.waitForFunction(() => document.querySelector('td a')?.textContent?.includes('The tram site'));
  });
  it('deletes a crawl, and brings it back', async () => {
    await open();
    const rows = () => page.$$eval('button[aria-label^="Delete the crawl"]', (buttons) => buttons.length);
    expect(await rows()).toBe(2);
    await page.click('button[aria-label^="Delete the crawl"]');
    await shows(page, 'is deleted.');
    expect(await rows()).toBe(1);
    await clickText(page, 'button', 'Undo');
    await page.waitForFunction(() => document.querySelectorAll('button[aria-label^="Delete the crawl"]').length === 2);
  });
  it('deletes a site with its crawls, and brings it back', async () => {
    await open();
    await clickText(page, 'table button', 'More');
    await clickText(page, 'button', 'Delete site and its crawls');
    await shows(page, 'There are no sites yet');
    await shows(page, 'Crawl the demo website');
    await clickText(page, 'button', 'Undo');
    await shows(page, 'Your sites');
  });
});

describe('a crawl that runs', () => {
  it('can be looked at as far as it has come, and says so', async () => {
    const set = (state: string) =>
      database.db.$client.query('update crawl set state = ? where id = ?', [state, crawls[1]]);
    await set('running');
    await open(screen('reach'));
    await shows(page, 'So far');
    await shows(page, 'The crawl is running');
    await set('done');
    await gone('The crawl is running');
  });
});

describe('a finding', () => {
  it('is explained, ignored with a reason, and reported again', async () => {
    await open(screen('overview'));
    const about = 'button[aria-label="About “Internal links to broken pages”"]';
    await page.click(about);
    await shows(page, 'When to ignore it');
    await page.type('form input[required]', 'The page comes back in spring.');
    await clickText(page, 'button', 'Ignore finding');
    await page.waitForFunction((selector: string) => !document.querySelector(selector), {}, about);
    await shows(page, '1 finding is ignored in this site');
    await clickText(page, 'summary', '1 finding is ignored');
    await shows(page, 'The page comes back in spring.');
    await clickText(page, 'button', 'Report again');
    await page.waitForSelector(about);
  });
  it('has a page of its own', async () => {
    await open('findings/links_to_broken');
    await shows(page, 'Internal links to broken pages');
    await shows(page, 'How to fix it');
    await open('findings/nothing');
    await shows(page, 'There is no such finding.');
    faults.length = 0;
  });
});

describe('the tour', () => {
  it('leads through the screens, survives a reload, and can be left', async () => {
    await open(screen('overview'));
    await page.keyboard.press('/');
    await page.waitForFunction(() => document.activeElement?.matches('dialog input'));
    await page.keyboard.type('tour');
    await shows(page, 'the screens in two minutes');
    await page.keyboard.press('Enter');
    await shows(page, 'Every screen begins with its answer');
    // The card moves to what it is about while that is loaded: a click that is aimed at a place may miss it.
    for (let i = 0; i < 2; i++)
      await page.$eval('[aria-label=Tour] .btn-secondary', (next) => (next as HTMLElement).click());
    await shows(page, 'Pictures select pages');
    await page.waitForFunction(() => location.pathname.endsWith('/reach'));
    await page.reload();
    await shows(page, 'Pictures select pages');
    await page.waitForSelector('html[data-ready]');
    // The card goes to what it is about as soon as that is there.
    await page.waitForSelector('.ring-secondary');
    await page.$$eval('[aria-label=Tour] button', (buttons) => buttons.at(-1)!.click());
    await page.waitForFunction(() => !document.querySelector('[aria-label=Tour]'));
  });
});
