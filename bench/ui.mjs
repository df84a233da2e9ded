/**
 * The workspace in a real Chromium, on a crawl of a generated site: how long screens take from the click to where they can
 * be used, how long a sort or a selection takes to be painted, how long rows stay blank while the list is scrolled, and how
 * much script the first screen needs.
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
/** Waits within the page, frame by frame, until something holds and is painted. */
const until = (test, ...given) =>
  page.evaluate(
    async (source, values) => {
      const holds = new Function(`return (${source})`)();
      while (!holds(...values)) await new Promise((resolve) => requestAnimationFrame(resolve));
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
  document.body.innerText.includes('What costs most');
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
await browser.close();
