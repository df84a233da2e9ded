/** Change in a browser: what moved between two states of the demo website. */
import { describe, expect, it } from 'vitest';
import { clickText } from './support/browser';
import { crawledDemo, SITE } from './support/crawledDemo';

const demo = crawledDemo({ isTwice: true });
const { open } = demo;
const text = (selector: string) =>
  demo.now().page.$$eval(selector, (all) => all.map((one) => one.textContent.replace(/\s+/g, ' ').trim()).join(' '));
/** Waits until an element that matches shows a text. */
const showsIn = (selector: string, wanted: string) =>
  demo
    .now()
    .page.waitForFunction(
      (s: string, t: string) => [...document.querySelectorAll(s)].some((one) => one.textContent.includes(t)),
      { timeout: 60_000 },
      selector,
      wanted,
    );
const rows = () => demo.now().page.$eval('[aria-live=polite].tabular', (one) => one.textContent.trim());
const query = () => new URL(demo.now().page.url()).searchParams;

describe('Change', () => {
  it('says what moved, and a number selects what it counts', async () => {
    const { page } = demo.now();
    await open('change');
    const answer = await text('[data-tour=answer]');
    expect(answer).toMatch(/^Since crawl \d+ of .*, \d+ pages are new, .* have moved and \d+ have changed/);
    const moved = Number(/(\d+) have moved/.exec(answer)![1]);
    await clickText(page, '[data-tour=answer] a', String(moved));
    await page.waitForFunction(() => new URL(location.href).searchParams.get('select') === 'moved');
    await page.waitForFunction(
      (n) => document.querySelector('[aria-live=polite].tabular')?.textContent.trim().startsWith(`${n} pages`),
      {},
      moved,
    );
  });
  it('puts what costs most first: the page that may no longer be indexed', async () => {
    await open('change', { select: 'was (indexable) and not indexable' });
    await showsIn('[role=row]', '/visit/prices');
    const first = await text('#row-0');
    expect(first).toContain('/visit/prices');
    expect(first).toContain('Noindex');
  });
  it('selects the pages of a stream', async () => {
    const { page } = demo.now();
    await open('change');
    await clickText(page, 'li button', 'Indexable → Redirect');
    await page.waitForFunction(() =>
      new URL(location.href).searchParams.get('select')?.startsWith('was (verdict = indexable) and verdict = redirect'),
    );
    expect(Number(/\d+/.exec(await rows())![0])).toBeGreaterThan(10);
  });
  it('finds the edit that removed a link from every page', async () => {
    const { page } = demo.now();
    await open('change');
    await clickText(page, '[role=group] button', 'Links');
    await showsIn('main li', 'A footer link to /press/ was removed from');
    const told = await text('main li');
    const pages = Number(/removed from ([\d,]+) pages/.exec(told)![1].replace(',', ''));
    expect(pages).toBeGreaterThan(370);
    await clickText(page, 'main li button', 'A footer link to /press/');
    await page.waitForFunction(() => new URL(location.href).searchParams.get('list') === 'changed_links');
    await page.waitForFunction(
      (n) =>
        document
          .querySelector('[aria-live=polite].tabular')
          ?.textContent.trim()
          .startsWith(`${n.toLocaleString('en')} links`),
      {},
      pages,
    );
  });
  it('compares pages that have moved with what they were, when they are paired', async () => {
    const { page } = demo.now();
    await open('change', { select: 'new' });
    const before = Number(/\d+/.exec(await rows())![0]);
    await clickText(page, 'button', 'Compare them with what they were');
    await page.waitForFunction(() => new URL(location.href).searchParams.get('pair')?.includes('redirect'));
    await page.waitForFunction(
      (n) => Number(/\d+/.exec(document.querySelector('[aria-live=polite].tabular')!.textContent)![0]) < n,
      {},
      before,
    );
  });
  it('counts what became of findings', async () => {
    const { page } = demo.now();
    await open('change', { picture: 'findings' });
    await showsIn('main table', 'Internal links to redirects');
    await page.click('main td button');
    await page.waitForFunction(() => new URL(location.href).searchParams.get('select') !== 'not same');
  });
  it('shows the title, the text and the source of a page then and now', async () => {
    const { page } = demo.now();
    await open('change', { select: 'changed(title)', page: `${SITE}/collections/stops/quay`, part: 'history' });
    await showsIn('[role=tabpanel]', 'Stop: Quay');
    await showsIn('[role=tabpanel]', 'Quay tram stop');
    await page.waitForSelector('[role=tabpanel] td.then');
    expect(await text('[role=tabpanel] td.then')).toContain('Then: Stop: Quay');
    expect(await text('[role=tabpanel] td.now')).toContain('Now: Quay tram stop');
    await clickText(page, '[role=tabpanel] button', 'Source');
    await showsIn('[role=tabpanel] td.then', '<title>Stop: Quay');
  });
  it('is asked by selections on other screens too', async () => {
    await open('reach', { select: 'was (indexable) and noindex' });
    await showsIn('[role=row]', '/visit/prices');
    await open('reach', { select: 'changed(title)' });
    expect(Number(/\d+/.exec(await rows())![0])).toBeGreaterThan(10);
  });
  it('says on the first crawl that there is nothing before it', async () => {
    const { base } = demo.now();
    const first = base.replace(/\d+$/, (crawl) => String(Number(crawl) - 1));
    await open(new URL(`${first}/change`).pathname);
    await showsIn('main', 'There is no earlier crawl to compare this one with.');
    await open(new URL(`${first}/reach`).pathname, { select: 'new' });
    await showsIn('[role=alert]', 'There is no earlier crawl to compare this one with.');
  });
  it('refuses a map that maps nothing', async () => {
    const { page } = demo.now();
    await open('change');
    await clickText(page, 'summary', 'Pair pages');
    await page.type('textarea', 'nonsense');
    await showsIn('#map-hint', '“nonsense” maps nothing');
  });
});

describe('the timeline', () => {
  it('has a note that stands on every trend', async () => {
    const { page } = demo.now();
    await open('change', { picture: 'timeline' });
    await page.type('[aria-label=Note]', 'Learn became Discover');
    await clickText(page, 'button', 'Add note');
    await showsIn('svg text', 'Learn became Discover');
    await open('overview');
    await showsIn('svg text', 'Learn became Discover');
    await open('change', { picture: 'timeline' });
    await clickText(page, 'li button', 'Edit');
    await page.$eval('[aria-label=Note]', (input) => ((input as HTMLInputElement).value = ''));
    await page.type('[aria-label=Note]', 'Relaunch');
    await clickText(page, 'button', 'Save note');
    await showsIn('svg text', 'Relaunch');
    await clickText(page, 'li button', 'Remove');
    await page.waitForFunction(
      () => ![...document.querySelectorAll('svg text')].some((one) => one.textContent.includes('Relaunch')),
    );
  });
  it('shows a saved selection over all crawls, and what stands out', async () => {
    const { page, base } = demo.now();
    await open('overview');
    const site = /sites\/\d+/.exec(base)![0];
    await page.evaluate(
      (path) =>
        fetch(path, {
          method: 'POST',
          body: JSON.stringify({ name: 'Redirects', over: 'pages', text: 'verdict = redirect' }),
        }),
      `/${site}/selections`,
    );
    await open('change', { picture: 'timeline', item: 'saved:Redirects' });
    await showsIn('main li', 'Redirects rose from');
  });
  it('tells when the site is crawled next', async () => {
    const { page } = demo.now();
    await open('change', { picture: 'timeline' });
    await page.select('[aria-label=Repeat]', 'month');
    await clickText(page, 'form button', 'Save');
    await page.waitForFunction(() => document.querySelectorAll('ol li time').length >= 5);
    await clickText(page, 'form button', 'Pause');
    await showsIn('main', 'Paused: nothing is due.');
    await clickText(page, 'form button', 'Stop');
    await showsIn('main', 'This site is crawled when somebody asks for it.');
  });
});

describe('the watch list', () => {
  it('has what breaks at the head of Overview', async () => {
    const { page } = demo.now();
    await open('overview');
    await clickText(page, 'summary', 'Watch something');
    await page.type('[aria-label="Selection of pages"]', 'was (indexable) and noindex');
    await page.type('[aria-label=Name]', 'Closed by accident');
    await clickText(page, '#watch-list button', 'Add');
    await showsIn('[role=status] li', 'Closed by accident: 1, at most 0 are wanted');
    await clickText(page, '#watch-list button', 'Remove');
    await page.waitForFunction(() => !document.body.textContent.includes('at most 0 are wanted'));
  });
});

it('keeps its place in the address: back leads to what was shown before', async () => {
  const { page } = demo.now();
  await open('change', { picture: 'pages' });
  await page.$$eval('g[role=button]', (bars) =>
    bars.find((bar) => bar.textContent.includes('New'))!.dispatchEvent(new MouseEvent('click', { bubbles: true })),
  );
  await page.waitForFunction(() => new URL(location.href).searchParams.get('select') === 'change = added');
  await page.goBack();
  await page.waitForFunction(() => new URL(location.href).searchParams.get('select') === null);
  expect(query().get('picture')).toBe('pages');
});
