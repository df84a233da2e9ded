/** Words in a browser: what links say is read, and places for links are taken by keyboard alone. */
import { describe, expect, it } from 'vitest';
import { shows } from './support/browser';
import { crawledDemo, SITE } from './support/crawledDemo';

const demo = crawledDemo({ withTexts: true });
const { open } = demo;
const TARGET = `${SITE}/stories/night-buses-of-the-coast`;
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
