import { beforeEach, expect } from 'vitest';
import puppeteer from 'puppeteer-core';
import type { Browser, Page } from 'puppeteer-core';

// Debian's Chromium as root, with nothing of its own going out to a network.
const quiet = [
  '--no-sandbox',
  '--disable-gpu',
  '--disable-quic',
  '--no-first-run',
  '--disable-background-networking',
  '--disable-component-update',
  '--disable-sync',
  // WebGL without a graphics card.
  '--enable-unsafe-swiftshader',
];

/** Starts Chromium; with EDGEMAP_WINDOW=1 in a window, for whoever wants to look on. */
export const openBrowser = (): Promise<Browser> =>
  puppeteer.launch({
    executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
    headless: !process.env.EDGEMAP_WINDOW,
    args: quiet,
  });

/** A page at 1280×800 whose errors end the test that caused them. */
export async function openPage(browser: Browser): Promise<{ page: Page; faults: string[] }> {
  const page = await browser.newPage();
  await page.setViewport({ width: 1280, height: 800 });
  const faults: string[] = [];
  page.on('pageerror', (error) => faults.push(error instanceof Error ? error.message : String(error)));
  page.on('console', (message) => message.type() === 'error' && faults.push(message.text()));
  return { page, faults };
}

/** Opens a page for each test of a file, closes it afterwards, and fails the test where the page had errors. */
export function pageForEach(browser: () => Browser, use: (opened: Awaited<ReturnType<typeof openPage>>) => void): void {
  beforeEach(async () => {
    const { page, faults } = await openPage(browser());
    use({ page, faults });
    return async () => {
      await page.close();
      expect(faults).toEqual([]);
    };
  });
}

/** Waits until the page shows a text. */
export const shows = (page: Page, text: string) =>
  page.waitForFunction((wanted: string) => document.body.innerText.includes(wanted), { timeout: 60_000 }, text);

/**
 * Clicks the first element that matches and holds the text, once it stands still: a click is aimed before it is made.
 */
export async function clickText(page: Page, selector: string, text: string): Promise<void> {
  const handle = await page.waitForFunction(
    (s: string, t: string) =>
      [...document.querySelectorAll<HTMLElement>(s)].find((e) => e.innerText.trim().startsWith(t)),
    { timeout: 30_000 },
    selector,
    text,
  );
  await (handle as import('puppeteer-core').ElementHandle<HTMLElement>).asLocator().click();
}
