/** The demo website, crawled once for a file of tests, and a page of a browser for each of them. */
import pino from 'pino';
import { afterAll, beforeAll } from 'vitest';
import type { Browser, Page } from 'puppeteer-core';
import { leaseWaiting, requestTexts, sayAlive } from '$server/index';
import { serveByHost } from '../../demo/server';
import { demoAnswer } from '../../demo/site';
import { runLiveChecks } from '../../src/crawl/liveChecks';
import { indexTexts } from '../../src/crawl/textIndex';
import { openBrowser, pageForEach } from './browser';
import { certificate } from './certificate';
import { crawling } from './crawling';
import { testDatabase } from './database';
import type { TestDatabase } from './database';
import { startApp } from './program';

export const SITE = 'https://www.larkfield.example';

/**
 * To be called at the head of a file; what it gives is there from the first test on.
 * @param isTwice crawls it again as it is some weeks later; the later crawl is the one that is opened
 * @param withTexts has the texts of each crawl indexed, as a worker would
 */
export function crawledDemo({ isTwice = false, withTexts = false } = {}) {
  let database: TestDatabase;
  let demo: Awaited<ReturnType<typeof serveByHost>>;
  let app: Awaited<ReturnType<typeof startApp>>;
  let browser: Browser;
  let page: Page;
  let faults: string[];
  let base: string;
  /** Pages that somebody has edited, by their paths. */
  const edited = new Map<string, string>();

  const { begin, finish } = crawling(() => database.db);
  const once = async () => {
    const hosts = ['www.larkfield.example', 'larkfield.example'];
    const overrides = hosts.map((host) => ({ host, toHost: '127.0.0.1', toPort: demo.port }));
    const crawl = await begin(`${SITE}/`, { depth: 8, acceptCertificates: true, overrides });
    await finish(crawl);
    if (withTexts) {
      await requestTexts(database.db, crawl);
      const lease = await leaseWaiting(database.db, crawl, 'texts', 'test');
      await indexTexts({ db: database.db, lease: lease! });
    }
    return crawl;
  };
  beforeAll(async () => {
    database = await testDatabase();
    let isLater = false;
    demo = await serveByHost(0, certificate(), (host, secure, path) => {
      const answer = demoAnswer(host, secure, path, isLater);
      const body = edited.get(path);
      return body !== undefined && host === new URL(SITE).host ? { ...answer, body } : answer;
    });
    let crawl = await once();
    isLater = true;
    if (isTwice) crawl = await once();
    app = await startApp(database.url);
    base = `${app.address}sites/1/crawls/${crawl}`;
    browser = await openBrowser();
    const allowed = ['clipboard-read', 'clipboard-write', 'clipboard-sanitized-write'] as const;
    await browser.defaultBrowserContext().overridePermissions(new URL(app.address).origin, [...allowed]);
  });
  afterAll(async () => {
    await browser?.close();
    await app?.stop();
    await demo?.close();
    await database?.drop();
  });
  pageForEach(
    () => browser,
    (opened) => ({ page, faults } = opened),
  );

  async function whileChecking(act: () => Promise<void>): Promise<void> {
    const ended = new AbortController();
    const { db } = database;
    await sayAlive(db, 'test', 0);
    const checking = runLiveChecks({ db, log: pino({ enabled: false }), allowPrivate: true, signal: ended.signal });
    await act().finally(() => ended.abort());
    await checking;
  }

  return {
    /** Runs the live checks that are asked for, as a worker would, while something is done. */
    whileChecking,
    /** Puts another page in the place of one, as it is on the website at first. */
    edit: (path: string, change: (body: string) => string) =>
      void edited.set(path, change(String(demoAnswer(new URL(SITE).host, true, path, false).body))),
    /** Crawls the website once more, as it is some weeks later; that crawl is opened from then on. */
    crawlAgain: async () => void (base = `${app.address}sites/1/crawls/${await once()}`),
    /** The page of this test, what went wrong in it, and where the crawl is. */
    now: () => ({ page, faults, base }),
    /** Opens a screen of the crawl, or any other by its whole path, and waits until it takes clicks and keys. */
    open: async (path: string, query: Record<string, string> = {}) => {
      const address = path.startsWith('/') ? new URL(path, base).href : `${base}/${path}`;
      await page.goto(`${address}?${new URLSearchParams(query)}`);
      await page.waitForFunction(
        () => 'ready' in document.documentElement.dataset && !document.querySelector('[aria-busy=true]'),
      );
    },
  };
}
