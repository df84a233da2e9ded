/** The application on a stand-in site that was crawled, and a page of a browser for each test of a file. */
import { afterAll, beforeAll } from 'vitest';
import type { Browser, Page } from 'puppeteer-core';
import { openBrowser, pageForEach } from './browser';
import { crawling } from './crawling';
import { testDatabase } from './database';
import type { TestDatabase } from './database';
import { startApp } from './program';
import { standIn } from './standIn';
import type { StandIn } from './standIn';

type App = Awaited<ReturnType<typeof startApp>>;
export interface Opened {
  database: TestDatabase;
  site: StandIn;
  app: App;
  page: Page;
  faults: string[];
}

/**
 * Sets all of it up for a file of tests.
 * @param answer what the site answers, as `standIn` takes it
 * @param prepare crawls the site, with a function that crawls it once and gives the number of the crawl
 * @param use receives what is open, anew for each test
 */
export function appOnSite(
  answer: Parameters<typeof standIn>[0],
  prepare: (crawl: () => Promise<number>) => Promise<void>,
  use: (opened: Opened) => void,
): void {
  let database: TestDatabase;
  let site: StandIn;
  let app: App;
  let browser: Browser;
  beforeAll(async () => {
    database = await testDatabase();
    site = await standIn(answer);
    const { crawl } = crawling(() => database.db);
    await prepare(async () => (await crawl(`${site.origin}/`)).crawlId);
    app = await startApp(database.url);
    browser = await openBrowser();
  });
  afterAll(async () => {
    await browser?.close();
    await app?.stop();
    await site?.close();
    await database?.drop();
  });
  pageForEach(
    () => browser,
    (opened) => use({ database, site, app, ...opened }),
  );
}
