/** Maps in a browser: every mark of a picture leads to its pages, by mouse and by keyboard. */
import { execFileSync } from 'node:child_process';
import type { KeyInput, Page } from 'puppeteer-core';
import { describe, expect, it } from 'vitest';
import { clickText, shows } from './support/browser';
import { crawledDemo, SITE } from './support/crawledDemo';

const demo = crawledDemo();
const { open } = demo;
const map = '[role=group][tabindex="0"]';
const text = (page: Page, selector: string) =>
  page.$$eval(selector, (all) => all.map((one) => one.textContent.replace(/\s+/g, ' ').trim()).join(' '));
const query = (page: Page) => new URL(page.url()).searchParams;
/** Waits until the address of the screen says something. */
const says = (page: Page, name: string, value: string) =>
  page.waitForFunction(
    (n: string, v: string) => new URL(location.href).searchParams.get(n)?.includes(v),
    { timeout: 30_000 },
    name,
    value,
  );
const press = async (page: Page, ...keys: KeyInput[]) => {
  for (const key of keys) await page.keyboard.press(key);
};
/** How many pages the list of a selection has. */
const counted = async (page: Page) => {
  const { base } = demo.now();
  const asked = new URLSearchParams({ list: 'pages', select: query(page).get('select') ?? '', columns: 'url' });
  const answer = await fetch(`${base}/rows?${asked}`);
  return ((await answer.json()) as { total: number }).total;
};

describe('Bands', () => {
  it('show the section that nothing links to, and lead to its pages', async () => {
    const { page } = demo.now();
    await open('maps');
    await shows(page, 'pages have no route');
    expect(await text(page, '[data-tour=answer]')).toContain('archive-2009');
    const lost = await page.waitForSelector('[data-box*="archive-2009"][data-box*="null"]');
    // Its middle is full of pages, each of which opens by itself.
    await (await lost!.$('text'))!.click();
    await says(page, 'select', 'not reached and section = "archive-2009"');
    const drawn = Number(
      /(\d+)$/.exec((await lost!.evaluate((box) => box.querySelector('text')!.textContent)) ?? '')![1],
    );
    expect(await counted(page)).toBe(drawn);
  });
  it('are opened by keyboard, and tell the same as a table', async () => {
    const { page } = demo.now();
    await open('maps');
    await page.waitForSelector('[data-box]');
    await page.focus(map);
    await press(page, 'ArrowDown', 'ArrowDown', 'ArrowDown', 'Enter');
    await says(page, 'item', 'depth');
    await shows(page, 'All ›');
    await page.focus(map);
    await press(page, 'Backspace');
    await page.waitForFunction(() => !location.search.includes('item'));
    await clickText(page, 'button', 'As a table');
    await page.waitForSelector('section table');
    expect(await text(page, 'section table')).toContain('Group');
  });
});

describe('Routes', () => {
  it('fold branches that are alike, and begin with another page', async () => {
    const { page } = demo.now();
    await open('maps', { picture: 'routes' });
    await page.waitForSelector('[data-box]');
    expect(await text(page, '[data-box] title')).toMatch(/\/\* · \d+ pages/);
    const folded = await page.evaluateHandle(() =>
      [...document.querySelectorAll('[data-box]')].find((box) => box.textContent.includes('/*'))!,
    );
    await (folded as unknown as { click: (options: object) => Promise<void> }).click({ count: 2 });
    await says(page, 'item', '/*');
    await open('maps', { picture: 'routes', page: `${SITE}/collections/` });
    await clickText(page, 'button', 'Begin with the page that is open');
    await says(page, 'from', '/collections/');
    await shows(page, 'Begin with the start');
    await page.waitForFunction(() =>
      document.querySelector('[data-box]')?.getAttribute('data-box')?.endsWith('/collections/'),
    );
  });
});

describe('Folders', () => {
  it('find a page by its address', async () => {
    const { page } = demo.now();
    await open('maps', { picture: 'folders', shape: 'whole' });
    await page.waitForSelector('[data-box]');
    await page.type('input[placeholder="Find on the map"]', 'worksheets');
    await page.keyboard.press('Enter');
    await says(page, 'page', 'worksheets');
  });
});

describe('Links', () => {
  const opened = async (page: Page, more: Record<string, string> = {}) => {
    await open('maps', { picture: 'links', ...more });
    await page.waitForSelector('canvas');
    await page.waitForSelector('[data-label]');
  };
  it('are drawn with labels that lie over no other', async () => {
    const { page } = demo.now();
    await opened(page);
    const boxes = await page.$$eval('[data-label]', (all) =>
      all.map((one) => {
        const { left, top, right, bottom } = one.getBoundingClientRect();
        return { left, top, right, bottom };
      }),
    );
    expect(boxes.length).toBeGreaterThan(8);
    const overlaps = boxes.flatMap((a, i) =>
      boxes
        .slice(i + 1)
        .filter((b) => a.left < b.right - 1 && b.left < a.right - 1 && a.top < b.bottom - 3 && b.top < a.bottom - 3),
    );
    expect(overlaps).toEqual([]);
  });
  it('are walked from the start to a deep page by arrow keys, and back', async () => {
    const { page } = demo.now();
    await opened(page, { page: `${SITE}/` });
    const walk = '[aria-label="Walk along links"]';
    await page.waitForSelector(`${walk} li button`);
    for (const goal of [
      '/collections/',
      '/collections/photographs/',
      '/collections/photographs/?page=2',
      '/collections/photographs/?page=3',
    ]) {
      await page.focus(map);
      await page.waitForFunction(
        (at: string, to: string) =>
          [...document.querySelectorAll(`${at} li button`)].some((one) => one.getAttribute('title')?.endsWith(to)),
        { timeout: 30_000 },
        walk,
        goal,
      );
      const links = await page.$$eval(`${walk} li button`, (all) => all.map((one) => one.getAttribute('title')!));
      const at = links.findIndex((link) => new URL(link).pathname + new URL(link).search === goal);
      for (let down = 0; down <= at; down++) await page.keyboard.press('ArrowDown');
      await page.keyboard.press('ArrowRight');
      await says(page, 'page', goal);
    }
    await page.focus(map);
    await page.waitForFunction((at: string) => document.querySelector(at)?.textContent.includes('›'), {}, walk);
    await page.keyboard.press('ArrowLeft');
    await page.waitForFunction(() => new URL(location.href).searchParams.get('page')?.endsWith('page=2'));
  });
  it('tell what hangs on a page, the way to it, and what is near', async () => {
    const { page } = demo.now();
    await opened(page, { page: `${SITE}/collections/`, from: `${SITE}/learn/` });
    await shows(page, 'from where the way begins');
    await clickText(page, 'button', 'Without it,');
    await says(page, 'select', 'only through (url = ');
    const told = Number(/Without it, (\d+)/.exec(await text(page, 'button'))![1]);
    expect(await counted(page)).toBe(told);
    await page.click('[aria-label="Draw only what is within 1 click of this page"]');
    await says(page, 'only', 'within 1 of (url = ');
    await shows(page, 'Draw the whole site');
  });
  it('make a selection of a community', async () => {
    const { page } = demo.now();
    await opened(page);
    const label = await page.waitForSelector('button[data-label]');
    const pages = Number(/(\d+)$/.exec(await label!.evaluate((one) => one.textContent))![1]);
    await label!.click();
    await says(page, 'select', 'community = ');
    expect(await counted(page)).toBe(pages);
  });
  it('are moved by hand and put back', async () => {
    const { page } = demo.now();
    await opened(page, { page: `${SITE}/press/` });
    const ring = await page.waitForSelector('svg circle[stroke-width="2.5"]');
    const place = async () => (await (await page.$('svg circle[stroke-width="2.5"]'))!.boundingBox())!;
    const was = await place();
    await page.mouse.move(was.x + was.width / 2, was.y + was.height / 2);
    await page.mouse.down();
    await page.mouse.move(was.x + 60, was.y + 40, { steps: 4 });
    await page.mouse.up();
    expect((await place()).x).toBeGreaterThan(was.x + 20);
    await clickText(page, 'button', 'Put back');
    await page.waitForFunction(
      (left: number) =>
        Math.abs(document.querySelector('svg circle[stroke-width="2.5"]')!.getBoundingClientRect().left - left) < 2,
      {},
      was.x,
    );
    await ring!.dispose();
  });
});

describe('The graph as a file', () => {
  it('opens in a graph library with as many pages and links', async (test) => {
    const { base } = demo.now();
    const file = await (await fetch(`${base}/graph?format=graphml&edges=links`)).text();
    const total = async (list: string, select: string) => {
      const answer = await fetch(`${base}/rows?${new URLSearchParams({ list, select, columns: 'kind' })}`);
      return ((await answer.json()) as { total: number }).total;
    };
    const script = `
import io, sys
try: import networkx
except ImportError: print('none'); sys.exit()
graph = networkx.read_graphml(io.BytesIO(sys.stdin.buffer.read()), force_multigraph=True)
print(graph.number_of_nodes(), graph.number_of_edges())`;
    const said = execFileSync('python3', ['-c', script], { input: file }).toString().trim();
    if (said === 'none') return test.skip();
    expect(said).toBe(`${await total('pages', '')} ${await total('links', 'kind = click and not external')}`);
  });
});
