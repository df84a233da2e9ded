/**
 * The workspace in a real Chromium, on a crawl of a generated site: how long screens take from the click to where they
 * can be used, how long a sort or a selection takes to be painted, how long rows stay blank while the list is
 * scrolled, and how much script the first screen needs.
 *
 * usage: ui.mjs ADDRESS OF A CRAWL (…/sites/N/crawls/N)
 */
import puppeteer from 'puppeteer-core';

const base = process.argv[2];
const browser = await puppeteer.launch({
  executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
  args: ['--no-sandbox'],
});
const page = await browser.newPage();
await page.setViewport({ width: 1280, height: 800 });

const network = await page.createCDPSession();
await network.send('Network.enable');
const scripts = new Map();
let scriptBytes = 0;
network.on('Network.responseReceived', ({ requestId, response }) => {
  if (/javascript/.test(response.mimeType)) scripts.set(requestId, response.url);
});
network.on('Network.loadingFinished', ({ requestId, encodedDataLength }) => {
  if (scripts.has(requestId)) scriptBytes += encodedDataLength;
});

const say = (what, value, goal) => process.stdout.write(`${what.padEnd(58)} ${value.padStart(9)}   ${goal}\n`);
const ms = (value) => `${Math.round(value)} ms`;
/** Waits within the page, frame by frame, until something holds and is painted; half a minute at most. */
const until = (test, ...given) =>
  page.evaluate(
    async (source, values) => {
      const holds = new Function(`return (${source})`)();
      const began = performance.now();
      while (!holds(...values)) {
        if (performance.now() - began > 30_000) throw new Error(`not seen in half a minute: ${source}`);
        await new Promise((resolve) => requestAnimationFrame(resolve));
      }
      await new Promise((resolve) => requestAnimationFrame(() => setTimeout(resolve)));
    },
    test.toString(),
    given,
  );
async function timed(act, test, ...given) {
  const began = performance.now();
  await act();
  await until(test, ...given);
  return performance.now() - began;
}
const worst = async (times, run) => {
  let most = 0;
  for (let i = 0; i < times; i++) most = Math.max(most, await run(i));
  return most;
};
const chart = () => Boolean(document.querySelector('[_echarts_instance_] svg path'));
const overviewStands = () =>
  Boolean(document.querySelector('[_echarts_instance_] svg path')) &&
  document.querySelectorAll('main table tbody tr').length > 0;
const reachStands = () =>
  Boolean(document.querySelector('[_echarts_instance_] svg path')) &&
  document.querySelectorAll('[role=row][id^=row-] [role=gridcell]').length > 20;
const otherRow = (before) => (document.querySelector('#row-0')?.textContent ?? '') !== before;
const otherTally = (before) => document.querySelector('form [aria-live=polite]').textContent.trim() !== before;
const click =
  (selector, text = '') =>
  () =>
    page.evaluate(
      (s, t) => [...document.querySelectorAll(s)].find((e) => e.textContent.trim().startsWith(t)).click(),
      selector,
      text,
    );

await page.goto(`${base}/overview`);
await until(chart);
await page.waitForNetworkIdle();
say('script for the first screen, compressed', `${Math.round(scriptBytes / 1024)} KB`, 'at most 250 KB');

const follow = (path) =>
  page.evaluate((href) => {
    const link = document.createElement('a');
    link.href = href;
    document.body.append(link);
    link.click();
  }, new URL(path).pathname);
const toOverview = await worst(3, async () => {
  await page.goto(new URL('/', base).href);
  await page.waitForNetworkIdle();
  return timed(() => follow(`${base}/overview`), overviewStands);
});
say('Overview, from the click until it can be used', ms(toOverview), 'at most 2000 ms');
const toReach = await worst(3, async () => {
  await page.goto(`${base}/overview`);
  await page.waitForNetworkIdle();
  return timed(click('nav a', 'Reach'), reachStands);
});
say('Reach, from the click until it can be used', ms(toReach), 'at most 2000 ms');

await page.waitForNetworkIdle();
const firstRow = () => page.evaluate(() => document.querySelector('#row-0')?.textContent ?? '');
const sorts = ['Share', 'Pages linking', 'Depth', 'Links out'];
const sort = await worst(sorts.length, async (i) => {
  // The second click turns the order round, which shows other rows in any case.
  await click('[role=columnheader] button', sorts[i])();
  await page.waitForNetworkIdle({ idleTime: 200 });
  return timed(click('[role=columnheader] button', sorts[i]), otherRow, await firstRow());
});
say('sort until it is painted, the slowest of four columns', ms(sort), 'at most 300 ms');
const chosen = ['Deeper than 3', 'Indexable', 'Deeper than 3', 'Indexable'];
const tally = () => page.evaluate(() => document.querySelector('form [aria-live=polite]').textContent.trim());
const select = await worst(chosen.length, async (i) => {
  const before = await tally();
  const took = await timed(click('button', chosen[i]), otherTally, before);
  await page.waitForNetworkIdle({ idleTime: 200 });
  return took;
});
say('selection until it is painted, the slowest of four', ms(select), 'at most 300 ms');

/** Scrolls by wheel-like steps and by jumps, and finds the longest time for which a row in sight had no content. */
const blank = await page.evaluate(async () => {
  const list = document.querySelector('[role=grid]');
  let since = 0;
  let longest = 0;
  const look = () => {
    const { top, bottom } = list.getBoundingClientRect();
    const empty = [...list.querySelectorAll('[role=row][id^=row-]')].some((row) => {
      const box = row.getBoundingClientRect();
      return box.bottom > top + 46 && box.top < bottom && row.querySelectorAll('[role=gridcell]').length < 3;
    });
    const now = performance.now();
    if (!empty) since = 0;
    else if (!since) since = now;
    else longest = Math.max(longest, now - since);
  };
  const frame = () => new Promise((resolve) => requestAnimationFrame(() => (look(), resolve())));
  for (let i = 0; i < 240; i++) {
    list.scrollTop += 360;
    await frame();
  }
  for (let jump = 0; jump < 12; jump++) {
    list.scrollTop = (list.scrollHeight * ((jump * 7) % 12)) / 12;
    for (let i = 0; i < 30; i++) await frame();
  }
  return longest;
});
say('longest time for which a row in sight was blank', ms(blank), 'at most 150 ms');

/** Goes to a screen and waits until nothing is under way. */
async function settle(path) {
  await page.goto(`${base}${path}`);
  await page.waitForSelector('html[data-ready]');
  await page.waitForNetworkIdle({ idleTime: 500, timeout: 120_000 });
}
const textOf = (selector) => page.evaluate((s) => document.querySelector(s)?.textContent ?? '', selector);
const otherText = (selector, before) => (document.querySelector(selector)?.textContent ?? '') !== before;

await settle('/roll-call');
const picture = 'section svg[role=group]';
const addresses = await page.evaluate(() =>
  [...document.querySelectorAll('section table tr td:nth-child(3)')].map((cell) => cell.textContent.trim()),
);
const agreement = await worst(6, async (i) => {
  const before = await textOf(picture);
  const took = await timed(
    () => page.evaluate((at) => [...document.querySelectorAll('section input[type=checkbox]')][at].click(), i >> 1),
    otherText,
    picture,
    before,
  );
  await page.waitForNetworkIdle({ idleTime: 300 });
  return took;
});
say(`sources taken out and in, painted (${addresses.join(', ')})`, ms(agreement), 'at most 300 ms');

await settle('/change');
const listed = () =>
  page.evaluate(() => document.querySelector('form [aria-live=polite]').closest('section').textContent);
const otherList = (before) =>
  document.querySelector('form [aria-live=polite]').closest('section').textContent !== before;
const streams = await page.$$eval('section ul li button[aria-pressed]', (found) => found.length);
const stream = await worst(Math.min(streams, 5), async (i) => {
  const before = await listed();
  const took = await timed(
    () => page.evaluate((at) => document.querySelectorAll('section ul li button[aria-pressed]')[at].click(), i),
    otherList,
    before,
  );
  await page.waitForNetworkIdle({ idleTime: 300 });
  return took;
});
say('a picked stream of Change, painted, the slowest of five', ms(stream), 'at most 300 ms');

/** A draft of 500 rules, a quarter of them with a star, whose last closes a part of the pages. */
const rules = Array.from({ length: 499 }, (_, i) => `Disallow: /${i % 4 ? `old/${i}/` : `*/part-${i}/*`}`);
const start = await page.evaluate(
  async (path) => (await (await fetch(path)).text()).split('\r\n')[1],
  `${new URL(base).pathname}/export?list=pages&select=depth%20%3D%200&columns=url&format=tsv`,
);
await page.evaluate(
  (key, text) => sessionStorage.setItem(key, text),
  `edgemap.robots.${/sites\/(\d+)/.exec(base)[1]}.${new URL(start).origin}`,
  ['User-agent: *', ...rules, 'Disallow: /page/'].join('\n'),
);
await settle('/rules?picture=robots');
const closed = '[role=tabpanel] tr:first-child td:last-child';
/** What the draft costs has been worked out: that takes a core for some seconds. */
const costs = () => document.querySelectorAll('[role=tabpanel] tr').length > 6;
await page.waitForFunction(costs, { timeout: 120_000 });
await page.focus('[aria-label="Draft"]');
await page.keyboard.down('Control');
await page.keyboard.press('End');
await page.keyboard.up('Control');
// Whoever has put the cursor on a line looks at it before writing there.
await new Promise((resolve) => setTimeout(resolve, 500));
await page.evaluate(() => {
  window.tasks = [];
  new PerformanceObserver((list) => window.tasks.push(...list.getEntries().map(({ duration }) => duration))).observe({
    type: 'longtask',
  });
});
const typed = ['1', '2', 'Backspace', '7', 'Backspace', 'Backspace', '5', '3'];
const keystroke = await worst(typed.length, async (i) => {
  const before = await textOf(closed);
  return timed(() => page.keyboard.press(typed[i]), otherText, closed, before);
});
say('a keystroke in robots.txt until it is judged and painted', ms(keystroke), 'at most 200 ms');
const longest = await page.evaluate(() => Math.max(0, ...window.tasks));
say('longest task of the page meanwhile', longest ? ms(longest) : 'under 50 ms', 'at most 50 ms');
await browser.close();
