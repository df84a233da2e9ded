/** Words in a browser: what links say is read, and places for links are taken by keyboard alone. */
import { execFileSync } from 'node:child_process';
import { mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import type { KeyInput } from 'puppeteer-core';
import { describe, expect, it } from 'vitest';
import { demoAnswer } from '../demo/site';
import { clickText, shows } from './support/browser';
import { crawledDemo, SITE } from './support/crawledDemo';

const demo = crawledDemo({ withTexts: true });
const { open } = demo;
const TARGET = `${SITE}/stories/night-buses-of-the-coast`;
/** What a plan answers, as far as it is looked at here. */
interface Plan {
  proposals: { edit: { anchor: string; value: string } }[];
}
const text = (selector: string) =>
  demo.now().page.$$eval(selector, (all) => all.map((one) => one.textContent.replace(/\s+/g, ' ').trim()).join(' '));

describe('Words', () => {
  it('tells what the links to a page say, and how well that fits', async () => {
    const { page } = demo.now();
    await open('words', { item: `${SITE}/learn/worksheets` });
    await shows(page, 'Worksheets');
    const rows = await page.$$eval('tbody tr', (all) => all.map((row) => row.textContent.replace(/\s+/g, ' ').trim()));
    expect(rows.some((row) => /generic|empty|off-topic|image without alt/.test(row))).toBe(true);
    expect(await text('[data-tour=answer]')).toMatch(/links have faulty words\./);
  });
  it('finds sentences that name an orphan, and takes, widens and dismisses them by keyboard', async () => {
    const { page } = demo.now();
    await open('words', { picture: 'places', item: TARGET });
    await shows(page, 'good places');
    await page.waitForSelector('[data-place]');
    const before = (await page.$$('[data-place]')).length;
    expect(before).toBeGreaterThanOrEqual(5);
    expect(await text('[data-place] mark')).toContain('night buses of the coast');
    await page.focus('[data-place]');
    await page.keyboard.down('Shift');
    await page.keyboard.press('ArrowLeft');
    await page.keyboard.up('Shift');
    await page.waitForFunction(() =>
      document.querySelector('[data-place] mark')?.textContent.startsWith('the night buses'),
    );
    await page.keyboard.press('Enter');
    await shows(page, '1 edit added to the draft.');
    await shows(page, 'Taken');
    // The next one is at hand, and is refused.
    await page.waitForFunction(() => document.activeElement?.matches('li:nth-child(2) [data-place]'));
    await page.keyboard.press('d');
    await page.waitForFunction((was) => document.querySelectorAll('[data-place]').length === was - 1, {}, before);
    await shows(page, '1 dismissed.');
    expect(await text('dl')).toMatch(/Pages linking from running text 0\s*→ 1\s*Depth —\s*→ \d/);
  });
  it('hands over the link on the words where they stand', async () => {
    const { page } = demo.now();
    await open('draft/hand-over');
    await shows(page, 'the night buses of the coast');
    expect(await text('main')).toContain('When the night buses of the coast still ran out to the lighthouse');
  });
});

/** Keys that were pressed, as a person would count them. */
let keys = 0;
async function press(...pressed: (KeyInput | [held: 'Shift', key: KeyInput])[]) {
  const { keyboard } = demo.now().page;
  for (const one of pressed) {
    keys++;
    if (typeof one === 'string') await keyboard.press(one);
    else {
      await keyboard.down(one[0]);
      await keyboard.press(one[1]);
      await keyboard.up(one[0]);
    }
  }
}
/** How many edits the draft has, as the header says. */
const edits = async () => parseInt(await text('header a[href$="/draft"]'));
const takes = async (n: number) => {
  await demo
    .now()
    .page.waitForFunction(
      (wanted) => document.querySelectorAll('[data-place][aria-pressed=true]').length === wanted,
      {},
      n,
    );
};

describe('other sides of the words of links', () => {
  it('are the pages that some words lead to, what a page says, and a section to others', async () => {
    const { page } = demo.now();
    await open('words', { order: 'words', item: 'the snow of 1947' });
    await shows(page, '“The snow of 1947”');
    expect(await text('tbody')).toContain('/stories/the-fare-box');
    await open('words', { order: 'page', item: `${SITE}/stories/the-third-horse` });
    await shows(page, 'The third horse');
    expect(await text('tbody')).toContain('Fits better: /stories/snow-of-1947');
    await open('words', { picture: 'sections', item: 'stories' });
    await shows(page, 'What stories says to others');
    expect(await text('main')).toMatch(/collections \d+ links/);
  });
  it('open as edits', async () => {
    const { page } = demo.now();
    await open('words', { item: `${SITE}/stories/the-fare-box` });
    await clickText(page, 'tbody a', 'the snow of 1947');
    await page.waitForFunction(() => location.pathname.endsWith('/flow'));
    await shows(page, '1 edit');
  });
});

describe('words that are looked for', () => {
  it('are found in all texts, with their sentence, without pages that link to another', async () => {
    const { page } = demo.now();
    await open('words', { picture: 'search' });
    await page.type('input[name=words]', 'snow of 1947');
    await page.keyboard.press('Enter');
    await shows(page, 'pages have these words.');
    expect(await text('main li')).toContain('Then came the snow of 1947.');
    const all = await text('main [role=status]');
    await page.type('input[name=without]', `${SITE}/stories/snow-of-1947`);
    await page.keyboard.press('Enter');
    await page.waitForFunction(
      (was) => document.querySelector('main [role=status]')!.textContent.replace(/\s+/g, ' ').trim() !== was,
      {},
      all,
    );
    expect(await text('main li')).toContain('Then came the snow of 1947.');
    await clickText(page, 'a', 'Open as a list');
    await page.waitForFunction(() => location.pathname.endsWith('/reach'));
    await shows(page, '/stories/the-third-horse');
  });
  it('are named where they cannot be found', async () => {
    const { page } = demo.now();
    await open('words', { picture: 'search', words: 'zeppelin' });
    await shows(page, 'No page has these words.');
    await open('words', { picture: 'search', words: '20261202' });
    await shows(page, 'Numbers of more than four digits cannot be found in texts.');
    await open('words', { picture: 'search', words: 'tram', without: 'https://elsewhere.example/' });
    await shows(page, 'The crawl does not know this address.');
  });
});

describe('a text that is not published yet', () => {
  it('is told what it mentions, and copied with links', async () => {
    const { page } = demo.now();
    await open('words', { picture: 'given' });
    await page.type('#given', 'Tea & talk: the night buses of the coast, and the snow of 1947.');
    await clickText(page, 'button', 'Find what it mentions');
    await page.waitForSelector('li input[type=checkbox]');
    await page.click('li input[type=checkbox]');
    await clickText(page, 'button', 'Copy with links');
    await shows(page, 'Copied as HTML with 1 link.');
    expect(await page.evaluate(() => navigator.clipboard.readText())).toBe(
      '<p>Tea &amp; talk: the <a href="/stories/night-buses-of-the-coast">night buses of the coast</a>, and the snow of 1947.</p>',
    );
  });
});

describe('a plan with sentences', () => {
  it('has only links that a sentence names, on the words where they stand', async () => {
    const { page } = demo.now();
    await open('draft');
    const plan = (query: Record<string, string>) =>
      page.evaluate(
        (address) => fetch(address).then((answer) => answer.json() as Promise<Plan>),
        `${demo.now().base}/plan?${new URLSearchParams({ sentences: 'true', select: `url = "${TARGET}"`, ...query })}`,
      );
    const text = await plan({ goal: 'text', amount: '4' });
    expect(text.proposals).toHaveLength(3);
    for (const { edit } of text.proposals) {
      expect(edit.anchor).toMatch(/night buses/);
      expect(edit.value).toContain(edit.anchor);
    }
    const within = await plan({ goal: 'within', amount: '3' });
    expect(within.proposals.every(({ edit }) => edit.value !== '')).toBe(true);
  });
});

describe('work on links', () => {
  it('is done by keyboard, handed over, made on the website, checked, and found by the next crawl', async () => {
    const { page } = demo.now();
    await open('words', { picture: 'places', item: TARGET });
    await page.waitForSelector('[data-place]');
    const before = await edits();
    await page.focus('[data-place]');
    // One is taken already; two more, the second with the whole phrase and a word more.
    keys = 0;
    await press('ArrowDown', 'Enter');
    await takes(2);
    await press('p', ['Shift', 'ArrowLeft'], 'Enter');
    await takes(3);
    expect(keys).toBeLessThanOrEqual(5);
    // The page has enough in the draft, and the others are left.
    await page.waitForFunction(() => /\d+ of \d+ left/.test(document.querySelector('main h2')!.textContent));

    await open('words', { picture: 'moves', item: `${SITE}/stories/the-fare-box` });
    await page.waitForSelector('[data-wording]');
    await page.focus('[data-wording]');
    await press('t');
    await shows(page, '1 edit added to the draft.');
    await open('words', { picture: 'moves', item: `${SITE}/events/2026/11/` });
    await page.waitForSelector('[data-wording]');
    await page.focus('[data-wording]');
    await press('w');
    await page.waitForSelector('form input');
    await page.keyboard.type('Events in November 2026');
    await press('Enter');
    await shows(page, `${before + 4} edits`);

    const { base } = demo.now();
    const diff = await page.evaluate(
      (address) => fetch(address).then((answer) => answer.text()),
      `${base}/draft/hand-over/files?format=diff`,
    );
    const folder = mkdtempSync(join(tmpdir(), 'edgemap-words-'));
    const paths = [...diff.matchAll(/^--- a\/(.*)$/gm)].map(([, file]) => file);
    const pathOf = (file: string) => {
      const path = `/${file.replace(/index\.html$/, '')}`;
      const isThere = (one: string) => demoAnswer(new URL(SITE).host, true, one, false).status === 200;
      return isThere(path) ? path : path.slice(0, -1);
    };
    for (const file of paths)
      demo.edit(pathOf(file), (body) => {
        const at = join(folder, file);
        mkdirSync(dirname(at), { recursive: true });
        writeFileSync(at, body);
        return body;
      });
    writeFileSync(join(folder, 'changes.diff'), diff);
    execFileSync('git', ['apply', 'changes.diff'], { cwd: folder });
    for (const file of paths) demo.edit(pathOf(file), () => readFileSync(join(folder, file), 'utf8'));
    rmSync(folder, { recursive: true });

    await open('draft');
    await demo.whileChecking(async () => {
      await clickText(page, 'button', 'Check now');

      await shows(page, `${before + 4} of ${before + 4} edits are live`);
    });
    await demo.crawlAgain();
    await open('draft');
    expect(await text('main ul')).not.toContain('not yet on the website');
    await open('reach', { select: `url = "${TARGET}" and reached and pages_linking_text >= 3` });
    await shows(page, '1 page');
  });
  it('goes from page to page by keyboard alone, with few keys for each', async () => {
    const { page } = demo.now();
    await open('words', { picture: 'places' });
    await page.waitForSelector('[data-place]');
    await page.focus('[data-place]');
    const before = await edits();
    keys = 0;
    const address = () => new URL(page.url()).searchParams.get('item');
    let taken = 0;
    for (let pages = 0; pages < 10; pages++) {
      const free = await page.$$('[data-place][aria-pressed=false]');
      for (let i = 0; i < Math.min(3, free.length); i++) await press('Enter');
      taken += Math.min(3, free.length);
      const last = address();
      await press('n');
      await page.waitForFunction((was) => new URL(location.href).searchParams.get('item') !== was, {}, last);
      await page.waitForFunction(() => document.activeElement?.matches('[data-place], main section'));
    }
    await shows(page, `${before + taken} edits`);
    expect(taken).toBeGreaterThan(15);
    expect(keys).toBeLessThanOrEqual(40);
    expect(await text('main h2')).toMatch(/\d+ of \d+ left/);
  });
});
