/** A site that does not exist yet: planned from an outline, read like a crawl, and set beside its first crawl. */
import { expect, it } from 'vitest';
import { getCrawl, leaseWaiting } from '$server/index';
import { runAnalysis } from '../src/crawl/job';
import { appOnSite } from './support/appOnSite';
import type { Opened } from './support/appOnSite';
import { clickText, shows } from './support/browser';
import { linking } from './support/standIn';

let opened: Opened;
let crawlIt: () => Promise<number>;
appOnSite(
  {
    '/': linking('Museum', '/visit', '/trams'),
    '/visit': linking('Visit', '/'),
    '/trams': linking('Trams', '/visit/tickets'),
    '/visit/tickets': linking('Tickets'),
    '/shop': linking('Shop'),
  },
  // Nothing is crawled before it has been planned.
  (crawl) => Promise.resolve(void (crawlIt = crawl)),
  (now) => (opened = now),
);

it('is planned from an outline, with what cannot be read told by line', async () => {
  const { app, database, page, site } = opened;
  await page.goto(`${app.address}plan`);
  await page.type('input[name=start]', `${site.origin}/`);
  await page.type('textarea[name=outline]', 'Museum /\n  Visit\n    Tickets\n  Trams\n  !!!\n');
  await clickText(page, 'button', 'Plan this site');
  await shows(page, '4 pages read; 1 line could not be.');
  await shows(page, 'Line 5: “!!!” gives no address.');
  await clickText(page, 'button', 'Plan it without these lines');
  await page.waitForFunction(() => location.pathname.includes('/crawls/'));
  const crawl = Number(/crawls\/(\d+)/.exec(page.url())![1]);
  expect((await getCrawl(database.db, crawl))?.planned).toBe(true);
  const lease = await leaseWaiting(database.db, crawl, 'analysis', 'test');
  await runAnalysis({ db: database.db, lease: lease! });
  await page.goto(`${app.address}sites/1/crawls/${crawl}-drafted/draft`);
  await shows(page, '3 pages are added');
  await page.goto(`${app.address}sites/1/crawls/${crawl}-drafted/reach?select=depth+%3D+2`);
  await page.waitForFunction(() => document.querySelector('#row-0')?.textContent.includes('/visit/tickets'));
});

it('is what its first crawl is compared with', async () => {
  const { app, page } = opened;
  const crawlId = await crawlIt();
  await page.goto(`${app.address}sites/1/crawls/${crawlId}/change?select=changed%28depth%29+or+new`);
  await shows(page, 'Since crawl 1');
  const answer = await page.$eval('[data-tour=answer]', (one) => one.textContent);
  expect(answer).not.toMatch(/pages? (is|are) new/);
});

it('has the structure that was meant beside the one that was crawled', async () => {
  const { app, page } = opened;
  await page.goto(`${app.address}sites/1/crawls/2/reach?picture=meant`);
  await page.waitForFunction(() => 'ready' in document.documentElement.dataset);
  await page.type('#meant', 'Museum /\n  Visit /visit\n    Tickets /visit/tickets\n    Café /visit/cafe\n');
  await clickText(page, 'button', 'Compare with the crawl');
  await shows(page, '2 of 4 pages are as they were meant.');
  await shows(page, 'not linked from its parent');
  await shows(page, 'found under /trams');
  await clickText(page, 'button', 'missing');
  await shows(page, '/visit/cafe');
  await clickText(page, 'button', 'extra');
  await shows(page, '/trams');
});
