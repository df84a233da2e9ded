/** A day's work in the workspace, on the demo website: each of these is something a user does. */
import { beforeEach, describe, expect, it } from 'vitest';
import type { Page } from 'puppeteer-core';
import { until } from './support/crawling';
import { clickText, shows } from './support/browser';
import { crawledDemo, SITE } from './support/crawledDemo';

const demo = crawledDemo();
const { open } = demo;
let page: Page;
let faults: string[];
let base: string;
beforeEach(() => {
  ({ page, faults, base } = demo.now());
});

const selection = () => page.$eval('#selection', (field) => (field as HTMLInputElement).value);
const rowsSelected = async () =>
  parseInt(
    (await page.$eval('form [aria-live=polite]', (element) => (element as HTMLElement).innerText)).replace(/,/g, ''),
  );
const cellsOf = (row: number) =>
  page.$$eval(`#row-${row} [role=gridcell]`, (cells) => cells.map((cell) => (cell as HTMLElement).innerText.trim()));

describe('from a finding to the line', () => {
  it('finds the broken link and reads its line', async () => {
    await open('overview');
    await clickText(page, 'nav a', 'Flow');
    await clickText(page, 'button', 'Problems');
    await clickText(page, 'table a', 'Internal links to broken pages');
    await page.waitForFunction(() => location.search.includes('list=edits'));
    await page.waitForSelector('#row-0 [role=gridcell][title$="/archive/letters-1931"]');
    expect((await cellsOf(0)).join(' ')).toMatch(/the archive main 8 8/);
    await page.click('#row-0');
    await page.waitForFunction(() => location.search.includes('list=links'));
    expect(await selection()).toContain('anchor = "the archive"');
    await page.waitForSelector('#row-0 [title*="/stories/"]');
    await page.click('#row-0');
    const marked = await page.waitForSelector('aside mark');
    expect(await marked!.evaluate((mark) => mark.textContent)).toBe('<a href="/archive/letters-1931">the archive</a>');
    await shows(page, 'The link is on line');
  });

  it('groups a fault of a template into one edit', async () => {
    await open('flow', { list: 'links', select: 'faults has image_no_alt' });
    const links = await rowsSelected();
    expect(links).toBeGreaterThan(100);
    await page.select('section[aria-label=Selection] select', 'edits');
    await page.waitForFunction(() => location.search.includes('list=edits'));
    await shows(page, '1 edit');
    const cells = await cellsOf(0);
    expect(cells).toContain('footer');
    expect(cells).toContain(links.toLocaleString('en'));
  });

  it('reads of a page which findings are about it, and what links to it with which words', async () => {
    await open('reach', { page: `${SITE}/visit/prices` });
    await shows(page, 'From discovery to index');
    await shows(page, 'Where its share comes from');
    await clickText(page, '[role=tab]', 'Links in');
    await shows(page, '“Tickets and prices”');
    await clickText(page, 'aside a', 'line');
    await page.waitForSelector('aside mark');
    expect(new URL(page.url()).searchParams.get('part')).toBe('source');
    await page.goBack();
    // The dossier is narrower again here: its tabs have moved.
    await shows(page, '“Tickets and prices”');
    await clickText(page, '[role=tab]', 'Facts');
    await shows(page, 'content-type: text/html');
    await clickText(page, 'aside a', 'Open full page');
    await page.waitForFunction(() => location.pathname.endsWith('/page'));
    await shows(page, 'From discovery to index');
  });
});

describe('two readers', () => {
  it('sees a page lose its route when the reader is switched', async () => {
    const address = `${SITE}/visit/lend-a-hand`;
    await open('reach', { page: address });
    await shows(page, 'Route');
    const depth = () => page.$eval('aside dl dd', (value) => (value as HTMLElement).innerText);
    expect(await depth()).toBe('2');
    await clickText(page, 'button', 'Search crawler');
    await shows(page, 'A visitor gets here, a search crawler does not: nofollow stops it.');
    expect(await depth()).toBe('none');
    await clickText(page, 'button', 'Readers');
    await shows(page, 'What stops a search crawler');
    await clickText(page, 'tr:has(td) a', '');
    await page.waitForFunction(() => location.search.includes('held_back'));
    expect(await rowsSelected()).toBeGreaterThan(0);
  });

  it('goes without a page of the route, and knows its gates', async () => {
    await open('reach', { page: `${SITE}/shop/mug-bell` });
    await shows(page, 'gate');
    await open('reach', { picture: 'gates' });
    await page.click('[aria-label=Gates] g');
    await page.waitForFunction(() => location.search.includes('only+through'));
    expect(await rowsSelected()).toBeGreaterThan(10);
  });
});

describe('lists', () => {
  it('copies the rows of a selection as a table that a spreadsheet takes', async () => {
    await open('reach', { select: 'orphan and indexable' });
    const rows = await rowsSelected();
    await page.focus('[role=grid]');
    await page.keyboard.down('Control');
    await page.keyboard.press('a');
    await page.keyboard.press('c');
    await page.keyboard.up('Control');
    await shows(page, 'on the clipboard');
    const [head, ...lines] = (await page.evaluate(() => navigator.clipboard.readText())).trim().split('\r\n');
    expect(head.split('\t').slice(0, 3)).toEqual(['Address', 'Depth', 'Pages linking']);
    expect(lines).toHaveLength(rows);
    expect(lines.every((line) => line.startsWith('http') && line.split('\t').length === head.split('\t').length)).toBe(
      true,
    );
    // Fewer are picked with x, and more with Shift.
    await page.keyboard.press('Escape');
    await page.keyboard.press('x');
    await shows(page, '1 picked');
    await page.keyboard.down('Shift');
    await page.keyboard.press('ArrowDown');
    await page.keyboard.up('Shift');
    await shows(page, '2 picked');
    await clickText(page, 'button', 'Copy');
    await page.waitForFunction(async () => (await navigator.clipboard.readText()).trim().split('\r\n').length === 3);
  });

  it('keeps the columns that a person chooses', async () => {
    await open('reach');
    await clickText(page, 'button', 'Columns');
    await clickText(page, 'label', 'Words');
    await page.waitForSelector('[role=columnheader] button[title^="Words:"]');
    await page.reload();
    await page.waitForSelector('[role=columnheader] button[title^="Words:"]');
    await clickText(page, '[role=columnheader] button', 'Words');
    await page.waitForFunction(() => location.search.includes('sort=word_count'));
    await page.evaluate(() => (document.cookie = 'edgemap.columns.pages=; path=/; max-age=0'));
  });

  it('narrows the selection by a bar in the head of a column', async () => {
    await open('reach');
    const all = await rowsSelected();
    const bar = await page.waitForSelector('[aria-label^="Verdict noindex:"]');
    await bar!.click();
    await page.waitForFunction(() => location.search.includes('noindex'));
    expect(await selection()).toBe('verdict = noindex');
    await page.waitForFunction(
      (before: number) => parseInt(document.querySelector('form [aria-live=polite]')!.textContent!) < before,
      {},
      all,
    );
  });

  it('groups pages, and opens a group', async () => {
    await open('reach');
    await page.select('section[aria-label=Selection] select', 'section');
    await page.waitForSelector('[role=columnheader] button[title^="Median depth"]');
    await shows(page, 'collections');
    await page.click('#row-0');
    await page.waitForFunction(() => /section/.test(new URLSearchParams(location.search).get('select') ?? ''));
    expect(await selection()).toMatch(/^section = "/);
  });

  it('lists the hosts that are linked to outside, and the anchors of the site', async () => {
    await open('flow');
    await clickText(page, 'button', 'Outside hosts');
    await shows(page, 'harbour-trust.example');
    await clickText(page, 'button', 'Anchors');
    await page.waitForFunction(() => location.search.includes('list=anchors'));
    await page.waitForSelector('#row-0');
    expect(await rowsSelected()).toBeGreaterThan(0);
  });
});

describe('the selection', () => {
  it('is completed, counted while it is written, saved by name and found again', async () => {
    await open('reach');
    await page.keyboard.press('s');
    await page.keyboard.type('indexable and sec');
    await page.waitForSelector('#offers [role=option]');
    await page.keyboard.press('ArrowDown');
    await page.keyboard.press('Enter');
    expect(await selection()).toBe('indexable and section ');
    await page.keyboard.type('= "');
    await page.waitForFunction(() =>
      [...document.querySelectorAll('#offers [role=option]')].some((offer) => offer.textContent!.includes('"stories"')),
    );
    await page.keyboard.type('stories"');
    await shows(page, 'press Enter');
    await page.keyboard.press('Enter');
    await page.waitForFunction(() => location.search.includes('stories'));
    await clickText(page, 'button', 'Saved');
    await page.type('[placeholder="Name for this selection"]', 'Stories to mend');
    await page.keyboard.press('Enter');
    await shows(page, '“Stories to mend” is saved.');
    await open('overview');
    await page.keyboard.down('Control');
    await page.keyboard.press('k');
    await page.keyboard.up('Control');
    await page.keyboard.type('to mend');
    await shows(page, 'saved selection of pages');
    await page.waitForFunction(() =>
      document.querySelector('[role=option][aria-selected=true]')?.textContent!.includes('mend'),
    );
    await page.keyboard.press('Enter');
    await page.waitForFunction(() => location.pathname.endsWith('/reach') && location.search.includes('stories'));
  });

  it('can be read wherever a screen writes one', async () => {
    const screens: [string, Record<string, string>][] = [
      ['overview', {}],
      ['reach', {}],
      ['reach', { picture: 'no-route' }],
      ['reach', { picture: 'readers', reader: 'crawler' }],
      ['flow', { picture: 'findings', page: `${SITE}/visit/prices` }],
      ['flow', { page: `${SITE}/visit/prices`, part: 'in' }],
    ];
    const written = new Set<string>();
    for (const [path, query] of screens) {
      await open(path, query);
      for (const href of await page.$$eval('a[href*="select="]', (links) =>
        links.map((link) => (link as HTMLAnchorElement).href),
      )) {
        const { searchParams } = new URL(href);
        written.add(
          new URLSearchParams({
            list: searchParams.get('list') ?? 'pages',
            select: searchParams.get('select')!,
            size: '0',
          }).toString(),
        );
      }
    }
    expect(written.size).toBeGreaterThan(80);
    for (const query of written) {
      const { fault } = (await (await fetch(`${base}/rows?${query}`)).json()) as { fault: unknown };
      expect([query, fault]).toEqual([query, null]);
    }
  });

  it('comes back to the same state from the address alone', async () => {
    const query = {
      list: 'edits',
      select: 'kind = click and to (verdict = redirect)',
      picture: 'leaks',
      sort: 'links:desc',
      page: `${SITE}/visit/prices`,
      part: 'in',
      reader: 'crawler',
    };
    await open('flow', query);
    const state = () =>
      page.evaluate(() => [
        (document.querySelector('#selection') as HTMLInputElement).value,
        document.querySelector('[aria-sort=descending]')?.textContent?.trim(),
        [...document.querySelectorAll('[aria-pressed=true], [aria-selected=true][role=tab]')].map((button) =>
          button.textContent!.trim(),
        ),
        document.querySelector('#row-0')?.textContent,
      ]);
    const before = await state();
    expect(before[2]).toEqual(expect.arrayContaining(['Leaks', 'Links', 'Links in']));
    const address = page.url();
    await page.goto('about:blank');
    await page.goto(address);
    await page.waitForFunction(() => 'ready' in document.documentElement.dataset);
    expect(await state()).toEqual(before);
  });

  it('finds a page by a word of its title from any screen', async () => {
    await open('overview');
    await page.keyboard.press('/');
    await page.keyboard.type('Night bus No. 140');
    await page.waitForFunction(() => document.querySelector('#found-0')?.textContent!.includes('1949-night-bus'));
    await page.keyboard.press('Enter');
    await shows(page, 'From discovery to index');
  });
});

describe('the keyboard', () => {
  it('walks through the questions, the readers, and the pages of a selection', async () => {
    await open('reach', { select: 'section = "visit"' });
    await page.keyboard.press('l');
    await page.keyboard.press('Enter');
    await page.waitForFunction(() => document.querySelector('aside h2'));
    await shows(page, '1 of ');
    const first = new URL(page.url()).searchParams.get('page');
    await page.keyboard.press('n');
    await page.waitForFunction(
      (before: string | null) => new URLSearchParams(location.search).get('page') !== before,
      {},
      first,
    );
    await shows(page, '2 of ');
    await page.keyboard.press('p');
    await page.waitForFunction(
      (before: string | null) => new URLSearchParams(location.search).get('page') === before,
      {},
      first,
    );
    await page.keyboard.press('r');
    await page.waitForFunction(() => location.search.includes('reader=crawler'));
    await page.keyboard.press(']');
    await page.waitForFunction(
      () => location.pathname.endsWith('/roll-call') && location.search.includes('reader=crawler'),
    );
    await page.keyboard.press('[');
    await page.waitForFunction(() => location.pathname.endsWith('/reach'));
    await page.keyboard.press('?');
    await shows(page, 'read as the other reader');
  });
  it('goes back and forward through states', async () => {
    await open('reach');
    await clickText(page, 'button', 'Broken');
    await page.waitForFunction(() => location.search.includes('broken'));
    await clickText(page, 'button', 'Gates');
    await page.waitForFunction(() => location.search.includes('gates'));
    await page.goBack();
    await page.waitForFunction(() => !location.search.includes('gates') && location.search.includes('broken'));
    await page.goBack();
    await page.waitForFunction(() => location.search === '');
    await until(async () => (await selection()) === '', 'the selection of before');
    await page.goForward();
    await page.waitForFunction(() => location.search.includes('broken'));
  });
});

describe('what goes wrong is said', () => {
  it('an address that no crawl knows, in the dossier and as a page', async () => {
    await open('reach', { page: 'https://nowhere.example/' });
    await shows(page, 'This crawl does not know the page.');
    const response = await page.goto(`${base}/page?page=https://nowhere.example/`);
    expect(response!.status()).toBe(404);
    faults.length = 0;
  });
  it('a page whose source is not kept', async () => {
    await open('reach', { page: `${SITE}/tickets`, part: 'source' });
    await shows(page, 'The source of this page is not stored');
    faults.length = 0;
  });
  it.each([
    ['rows?list=frobs', 400, 'There is no such list.'],
    ['rows?from=-1', 400, ''],
    ['export?format=docx', 400, 'csv, tsv, json'],
    ['dossier?page=x&reader=nobody', 400, ''],
    ['source?page=nowhere', 404, 'not stored'],
  ])('%s', async (path, status, words) => {
    const response = await fetch(`${base}/${path}`);
    expect(response.status).toBe(status);
    const said = await response.text();
    expect(said).toContain(words);
    expect(said).not.toMatch(/at .*\.js:\d+/);
  });
  it('a selection that is saved without a name, or that cannot be read', async () => {
    const save = (body: object) =>
      fetch(`${base.replace(/crawls.*/, 'selections')}`, {
        method: 'POST',
        body: JSON.stringify(body),
        headers: { 'content-type': 'application/json' },
      });
    expect((await save({ name: ' ', over: 'pages', text: 'orphan' })).status).toBe(400);
    const faulty = await save({ name: 'X', over: 'pages', text: 'depht > 1' });
    expect([faulty.status, (await faulty.json()) as unknown]).toEqual([
      400,
      { message: expect.stringContaining('is not a fact of pages') as string },
    ]);
  });
});

it('saves a chart as a picture and as numbers', async () => {
  await open('reach');
  await page.waitForSelector('[_echarts_instance_] svg');
  const saved = await page.evaluate(async () => {
    const names: string[] = [];
    const kept: Blob[] = [];
    const make = URL.createObjectURL.bind(URL);
    URL.createObjectURL = (blob: Blob) => (kept.push(blob), make(blob));
    HTMLAnchorElement.prototype.click = function () {
      if (this.download) names.push(this.download);
    };
    const press = (text: string) =>
      [...document.querySelectorAll('button')].find((b) => b.textContent!.trim().startsWith(text))!.click();
    const tick = () => new Promise((resolve) => setTimeout(resolve, 300));
    for (const choice of ['Picture as SVG', 'Picture as PNG', 'Numbers as CSV']) {
      press('Save');
      await tick();
      press(choice);
      await tick();
    }
    return { names, types: kept.map(({ type }) => type), csv: await kept[kept.length - 1].text() };
  });
  expect(saved.names).toEqual(['depth-visitor.svg', 'depth-visitor.png', 'depth-visitor.csv']);
  expect(saved.types).toContain('image/png');
  expect(saved.csv).toMatch(/^depth,pages,selected,/);
});
