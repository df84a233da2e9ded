import { settingsSchema } from '$core/settings';
import { sitesWithNewestCrawl, saveSite } from '$server/index';
import type { Database } from '$server/index';
import { crawlCommand } from './crawl';
import { UsageError } from './options';

export const DEMO_START = 'https://www.larkfield.example/';
const HOSTS = ['www.larkfield.example', 'larkfield.example', 'staging.larkfield.example'];

/**
 * `edgemap-cli demo PORT`: points the demo site at the stand-in server on this port and crawls it, unless that has been
 * done before.
 */
export async function demoCommand(db: Database, [port]: string[]): Promise<number> {
  if (!/^\d+$/.test(port ?? '')) throw new UsageError('Give the port of the demo website.');
  const settings = settingsSchema.parse({
    start: DEMO_START,
    limit: 5000,
    // The demo's calendar has no end; its shop sorts and filters without adding pages.
    trapLimit: 60,
    overrides: HOSTS.map((host) => ({ host, toHost: '127.0.0.1', toPort: Number(port) })),
    acceptCertificates: true,
  });
  await saveSite(db, settings);
  const demo = (await sitesWithNewestCrawl(db)).find(({ site }) => site.start === DEMO_START);
  const usable = demo?.newest && demo.newest.state !== 'failed';
  return usable
    ? 0
    : crawlCommand(db, { settings, out: null, view: { select: { op: 'all' }, sort: null, shareModel: 'site' } });
}
