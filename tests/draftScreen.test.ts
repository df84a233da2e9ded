/** Drafts in a browser: changes are tried by keyboard, and all screens are read with them. */
import { beforeAll, describe, expect, it } from 'vitest';
import { clickText, openPage, shows } from './support/browser';
import { crawledDemo, SITE } from './support/crawledDemo';

const demo = crawledDemo();
const { open } = demo;
const text = (selector: string) =>
  demo.now().page.$$eval(selector, (all) => all.map((one) => one.textContent.replace(/\s+/g, ' ').trim()).join(' '));
const drafted = (path: string, version = 'drafted') => `${new URL(demo.now().base).pathname}-${version}/${path}`;

/** Types what a dialog asks for into the field with a label. */
async function fill(label: string, value: string): Promise<void> {
  const { page } = demo.now();
  const field = await page.waitForSelector(
    `::-p-xpath(//dialog[@open]//label[contains(., "${label}")]//*[self::input or self::select])`,
  );
  if (await field!.evaluate((one) => one.tagName === 'SELECT')) await field!.select(value);
  else {
    await field!.focus();
    await page.keyboard.type(value);
  }
}

describe('a draft', () => {
  it('is begun by keyboard from the dossier of a page, and read on all screens', async () => {
    const { page } = demo.now();
    await open('draft');
    await shows(page, 'Nothing has been drafted yet.');
    await open('reach', { page: `${SITE}/collections/` });
    await page.keyboard.press('e');
    await fill('Target', `${SITE}/archive-2009/index.html`);
    await fill('Words of the link', 'Our website of 2009');
    await page.keyboard.press('Enter');
    await shows(page, '1 edit added to the draft.');
    await shows(page, 'As drafted');
    const before = await text('[data-tour=answer]');
    await page.keyboard.press('d');
    await page.waitForFunction(() => location.pathname.includes('-drafted/'));
    await page.waitForFunction(
      (was) => document.querySelector('[data-tour=answer]')?.textContent.replace(/\s+/g, ' ').trim() !== was,
      {},
      before,
    );
    await open(drafted('draft'));
    expect(await text('[data-tour=answer]')).toMatch(/^With 1 edit, 20 of \d+ unreachable pages get a route/);
    expect(await text('main')).toContain('/archive-2009/index.html');
  });
  it('shows what each number was', async () => {
    const { page } = demo.now();
    await open(drafted('reach', 'difference'), { select: 'was (not reached) and reached', sort: 'url' });
    await shows(page, '20 pages');
    expect(await text('#row-0')).toMatch(/was/);
    await open(drafted('reach', 'difference'), { page: `${SITE}/archive-2009/index.html` });
    await shows(page, 'Route before');
    expect(await text('aside')).toContain('It had no route.');
    await open(drafted('change', 'difference'));
    expect(await text('[data-tour=answer]')).toMatch(
      /^With the draft, \d+ pages have changed.*20 pages without a route/,
    );
  });
  it('refuses what makes no sense, with the reason', async () => {
    const { page, faults } = demo.now();
    await open('reach', { page: `${SITE}/press/` });
    await page.keyboard.press('e');
    await fill('What to change', 'redirect');
    await fill('Target', `${SITE}/press/`);
    await page.keyboard.press('Enter');
    await shows(page, `${SITE}/press/ would redirect to itself.`);
    // What was typed is still there.
    expect(await page.$eval('dialog[open] input', (one) => (one as HTMLInputElement).value)).toBe(`${SITE}/press/`);
    // The answer that refuses it.
    faults.length = 0;
  });
  it('takes links away wherever a group of them occurs', async () => {
    const { page } = demo.now();
    await open('flow', {
      list: 'edits',
      select: `kind = click and to (url = "${SITE}/press/") and placement = footer`,
    });
    await page.waitForSelector('#row-0');
    await page.focus('[role=grid]');
    await page.keyboard.press('x');
    await page.keyboard.press('e');
    await page.waitForSelector('dialog[open]');
    await clickText(page, 'dialog button', 'Add to the draft');
    await shows(page, 'edit added to the draft.');
    await open(drafted('draft'));
    expect(await text('main li')).toContain('Remove the link “Press” to /press/ in the footer.');
    expect(await text('main table')).toContain('/press/1 → 2');
  });
  it('is planned, and its proposals are taken', async () => {
    const { page } = demo.now();
    await open('draft');
    await clickText(page, 'button', 'Find the fewest edits');
    await shows(page, 'no plan needs fewer than');
    const edits = () => page.$$eval('main ul input[type=checkbox]', (all) => all.length);
    const before = await edits();
    await clickText(page, 'main ul button', 'Take');
    await page.waitForFunction(
      (n) => document.querySelectorAll('main ul input[type=checkbox]').length === n + 1,
      {},
      before,
    );
  });
  it('is undone and made again, and edits are switched off', async () => {
    const { page } = demo.now();
    await open('draft');
    const edits = () => page.$$eval('main ul input[type=checkbox]', (all) => all.length);
    const before = await edits();
    await page.keyboard.press('u');
    await page.waitForFunction(
      (n) => document.querySelectorAll('main ul input[type=checkbox]').length === n - 1,
      {},
      before,
    );
    await clickText(page, 'button', 'Redo');
    await page.waitForFunction(
      (n) => document.querySelectorAll('main ul input[type=checkbox]').length === n,
      {},
      before,
    );
    await page.click('main ul input[type=checkbox]');
    await page.waitForFunction(
      (n) => document.querySelector('[data-tour=answer]')?.textContent.startsWith(`With ${n - 1} edits`),
      {},
      before,
    );
  });
});

describe('another draft', () => {
  it('is begun as a copy, and the two are compared', async () => {
    const { page, base } = demo.now();
    const asked = (body: object) =>
      page.evaluate(
        async (text) => (await fetch('/sites/1/draft', { method: 'POST', body: text })).status,
        JSON.stringify(body),
      );
    await open('draft');
    expect(await asked({ do: 'add', name: 'Bolder', copyOf: 1 })).toBe(200);
    const edits = [{ op: 'noindex', source: `${SITE}/visit/cafe` }];
    const crawl = Number(/\d+$/.exec(base)![0]);
    expect(await asked({ do: 'step', crawl, version: 0, step: { kind: 'add', edits } })).toBe(200);
    await open(drafted('draft'));
    await clickText(page, 'button', 'Bolder');
    await clickText(page, 'a', 'Compare');
    await shows(page, 'Compared with the draft “Draft 1”, 1 page has changed');
    expect(await asked({ do: 'use', id: 1 })).toBe(200);
  });
});

describe('a key page', () => {
  it('is marked by key in its dossier, and Overview tells of it', async () => {
    const { page } = demo.now();
    await open('reach', { page: `${SITE}/archive-2009/index.html` });
    await page.waitForSelector('[data-key=k]');
    await page.keyboard.press('k');
    await shows(page, '1 page marked as key.');
    await page.waitForSelector('[data-key=k][aria-pressed=true]');
    await open('overview');
    await shows(page, 'Of 1 key page, 1 has no route');
    await open('reach', { select: 'key' });
    await shows(page, '1 page');
  });
});

describe('hand-over', () => {
  let files: Record<string, string>;
  beforeAll(async () => {
    const { base } = demo.now();
    const asked = ['markdown', 'csv', 'diff', 'redirects', 'nginx', 'apache', 'edits'];
    const texts = await Promise.all(
      asked.map(async (format) => (await fetch(`${base}/draft/hand-over/files?format=${format}`)).text()),
    );
    files = Object.fromEntries(asked.map((format, i) => [format, texts[i]]));
  });
  it('says by page what to do', () => {
    expect(files.markdown).toContain(`- [ ] Remove the link “Press” to ${SITE}/press/ in the footer.`);
    expect(files.csv).toMatch(/^page,edit at,what to do,words,target,placement,before,after\r\n/);
    expect(files.diff).toMatch(/^-.*<a href="\/press\/">Press<\/a>/m);
    expect(files.edits).toMatch(/^op,source,target,anchor,placement,value\r\n/);
  });
  it('is ticked off page by page, with the sentences that the edits are about', async () => {
    const { page } = demo.now();
    await open('draft/hand-over');
    expect(await text('main mark')).toContain('Press');
    await page.focus('main ul input[type=checkbox]');
    await page.keyboard.press('Space');
    await shows(page, '1 ticked off');
    await clickText(page, 'label', 'only what is not ticked off');
    await page.waitForFunction(() => !document.querySelector('main ul input[type=checkbox]:checked'));
  });
  it('is checked against the website as it is now', async () => {
    const { page } = demo.now();
    await open('draft');
    await demo.whileChecking(async () => {
      await clickText(page, 'button', 'Check now');
      await shows(page, 'live; ');
    });
    expect(await text('main ul')).toContain('live on the website');
    expect(await text('main ul')).toContain('not yet on the website');
  });
  it('is set beside what a later crawl finds', async () => {
    const { page } = demo.now();
    await demo.crawlAgain();
    await open('draft');
    await shows(page, 'What was predicted, and what came');
    expect(await text('main ul')).toContain('live on the website');
    await clickText(page, 'a', 'Every number beside its prediction');
    await shows(page, 'Against the prediction');
    expect(await text('[data-tour=answer]')).toContain('ompared with the prediction');
    // The crawl before is opened by a click, with nothing of this one left.
    await clickText(page, 'button', 'As crawled');
    await page.waitForFunction(() => !location.pathname.includes('-predicted'));
    await page.click('ol[aria-label="Crawls of this site"] a');
    await page.waitForSelector('ol[aria-label="Crawls of this site"] li:first-child a[aria-current=true]');
    await page.click('nav a[href$="/draft"]');
    await page.waitForFunction(() => /crawls\/1\/draft$/.test(location.pathname));
    expect(await text('main')).not.toContain('What was predicted');
  });
});

describe('two people', () => {
  it('see what the other one does, and lose nothing', async () => {
    const { page, base } = demo.now();
    await open('draft');
    const other = await openPage(page.browser());
    await other.page.goto(`${base}/draft`);
    await other.page.waitForFunction(() => 'ready' in document.documentElement.dataset);
    const count = (of: typeof page) => of.$$eval('main ul input[type=checkbox]', (all) => all.length);
    const before = await count(page);
    const asked = await page.evaluate(
      async (path, crawl, source) => {
        const edits = [{ op: 'noindex', source }];
        const body = JSON.stringify({ do: 'step', crawl, version: 0, step: { kind: 'add', edits } });
        return (await fetch(path, { method: 'POST', body })).status;
      },
      '/sites/1/draft',
      Number(/\d+$/.exec(base)![0]),
      `${SITE}/visit/`,
    );
    expect(asked).toBe(200);
    await other.page.waitForFunction(
      (n) => document.querySelectorAll('main ul input[type=checkbox]').length === n + 1,
      { timeout: 20_000 },
      before,
    );
    await other.page.close();
  });
});
