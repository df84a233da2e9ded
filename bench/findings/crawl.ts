/** Crawls the sites whose findings are judged. */
import { runCrawl } from '../../src/crawl';
import { settingsSchema } from '../../src/core/settings';
import type { CrawlSettings } from '../../src/core/settings';
import type { Snapshot } from '../../src/core/snapshot';
import { viewOf } from '../../src/core/view';
import type { View } from '../../src/core/view';
import { addCrawl, demoSettings, saveSite } from '../../src/server';
import type { Database } from '../../src/server';
import { serveByHost, serveDemo } from '../../demo/server';
import { brochure, newspaper, shop, university } from '../sites';
import type { GeneratedSite } from '../sites';

type Certificate = Parameters<typeof serveByHost>[1];

export interface CrawledSite {
  name: string;
  start: string;
  snapshot: View;
  settings: CrawlSettings;
}

/** Crawls a site to its end, in this process. */
export async function crawlSite(db: Database, name: string, settings: CrawlSettings): Promise<CrawledSite> {
  const owner = 'bench';
  const crawlId = await addCrawl(db, await saveSite(db, settings), settings, owner);
  let snapshot: Snapshot | null = null;
  await runCrawl({
    db,
    lease: { crawlId, kind: 'crawl', owner, number: 1 },
    owner,
    allowPrivate: true,
    signal: new AbortController().signal,
    onSnapshot: (made) => (snapshot = made),
  });
  if (!snapshot) throw new Error(`The crawl of ${name} did not come to an end.`);
  return { name, start: settings.start, snapshot: viewOf(snapshot), settings };
}

const missing = { status: 404, headers: { 'content-type': 'text/html' }, body: '<title>Not here</title>' };

async function crawlGenerated(db: Database, site: GeneratedSite, certificate: Certificate): Promise<CrawledSite> {
  const server = await serveByHost(0, certificate, (host, secure, path) => {
    // http leads to https, as on most sites.
    if (!secure) return { status: 301, headers: { location: `https://${host}${path}` }, body: '' };
    return site.answers.get(host + path) ?? missing;
  });
  try {
    const settings = settingsSchema.parse({
      start: site.start,
      hosts: site.hosts.slice(1),
      overrides: site.hosts.map((host) => ({ host, toHost: '127.0.0.1', toPort: server.port })),
      acceptCertificates: true,
    });
    return await crawlSite(db, site.name, settings);
  } finally {
    await server.close();
  }
}

/** The sites that are generated, by name: each is served, crawled and closed again. */
export const generatedSites = (db: Database, certificate: Certificate): Map<string, () => Promise<CrawledSite>> =>
  new Map([
    ...[shop, newspaper, university, brochure].map((make): [string, () => Promise<CrawledSite>] => [
      make.name,
      () => crawlGenerated(db, make(), certificate),
    ]),
    [
      'demo',
      async () => {
        const server = await serveDemo(0, certificate);
        try {
          return await crawlSite(db, 'demo', demoSettings(server.port));
        } finally {
          await server.close();
        }
      },
    ],
  ]);
