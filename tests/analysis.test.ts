/**
 * The analysis in a worker of the browser, beside that of the server: from the same base the same figures, to the
 * digit.
 */
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { build } from 'vite';
import { afterAll, beforeAll, expect, it } from 'vitest';
import type { Browser } from 'puppeteer-core';
import { analyse } from '$core/analysis';
import { derivedFacts } from '$core/facts';
import { settingsSchema } from '$core/settings';
import { decodeSnapshot, encodeBase, encodeSnapshot, factAt } from '$core/snapshot';
import { getCrawl, readBase } from '$server/index';
import { alias } from '../alias.config';
import { serveDemo } from '../demo/server';
import { openBrowser } from './support/browser';
import { certificate } from './support/certificate';
import { SITE } from './support/crawledDemo';
import { crawling } from './support/crawling';
import { testDatabase } from './support/database';
import type { TestDatabase } from './support/database';

let database: TestDatabase;
let browser: Browser;
let folder: string;
beforeAll(async () => {
  database = await testDatabase();
  browser = await openBrowser();
  folder = mkdtempSync(join(tmpdir(), 'edgemap-worker-'));
});
afterAll(async () => {
  rmSync(folder, { recursive: true });
  await browser?.close();
  await database?.drop();
});

async function bundleWorker(): Promise<string> {
  await build({
    configFile: false,
    logLevel: 'silent',
    resolve: { alias },
    build: {
      outDir: folder,
      lib: { entry: 'tests/support/analysisWorker.ts', formats: ['iife'], name: 'worker', fileName: () => 'worker.js' },
    },
  });
  return readFileSync(join(folder, 'worker.js'), 'utf8');
}

it('is the same, part by part', async () => {
  const demo = await serveDemo(0, certificate());
  const hosts = ['www.larkfield.example', 'larkfield.example'];
  const overrides = hosts.map((host) => ({ host, toHost: '127.0.0.1', toPort: demo.port }));
  const { crawlId, snapshot } = await crawling(() => database.db).crawl(`${SITE}/`, {
    depth: 8,
    acceptCertificates: true,
    overrides,
  });
  await demo.close();
  const row = (await getCrawl(database.db, crawlId))!;
  const base = await readBase(database.db, row, row.limited ? 'limit' : 'stopped');
  const settings = settingsSchema.parse(row.settings);
  const page = await browser.newPage();
  const given = {
    code: await bundleWorker(),
    parts: [...encodeBase(base)].map(([name, bytes]) => [name, Buffer.from(bytes).toString('base64')] as const),
    settings: settings as object,
  };
  const answered = await page.evaluate(async ({ code, parts, settings }) => {
    const worker = new Worker(URL.createObjectURL(new Blob([code], { type: 'text/javascript' })));
    const bytesOf = (text: string) => Uint8Array.from(atob(text), (char) => char.charCodeAt(0));
    const textOf = (bytes: Uint8Array) => {
      let text = '';
      for (let at = 0; at < bytes.length; at += 8192) text += String.fromCharCode(...bytes.subarray(at, at + 8192));
      return btoa(text);
    };
    const answer = await new Promise<Map<string, Uint8Array>>((resolve, reject) => {
      worker.onmessage = ({ data }) => resolve(data as Map<string, Uint8Array>);
      worker.onerror = ({ message }) => reject(new Error(message));
      worker.postMessage({ parts: new Map(parts.map(([name, text]) => [name, bytesOf(text)])), settings });
    });
    return [...answer].map(([name, bytes]) => [name, textOf(bytes)] as const);
  }, given);

  const there = new Map(answered.map(([name, text]) => [name, new Uint8Array(Buffer.from(text, 'base64'))] as const));
  const made = decodeSnapshot(there);
  expect(made.count).toBeGreaterThan(200);
  for (const name of derivedFacts)
    for (let page = 0; page < made.count; page++)
      expect([name, factAt(made, name, page)]).toEqual([name, factAt(snapshot, name, page)]);
  const here = encodeSnapshot(analyse(base, settings));
  for (const [name, bytes] of there) expect([name, Buffer.compare(bytes, here.get(name)!)]).toEqual([name, 0]);
});
