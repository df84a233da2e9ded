import { settingsSchema } from '$core/settings';
import { crawlsOf, saveSite } from '$server/index';
import type { Database } from '$server/index';
import { crawlCommand } from './crawl';
import { wholeView } from './options';

export const DEMO_START = 'https://www.larkfield.example/';
const HOSTS = ['www.larkfield.example', 'larkfield.example', 'staging.larkfield.example'];

/**
 * `demo-crawl PORT`: points the demo site at the stand-in server on this port and crawls it, unless that has been
 * done before.
 */
export async function demoCommand(db: Database, port: number): Promise<number> {
  const settings = settingsSchema.parse({
    start: DEMO_START,
    limit: 5000,
    // The demo's calendar has no end; its shop sorts and filters without adding pages.
    trapLimit: 60,
    overrides: HOSTS.map((host) => ({ host, toHost: '127.0.0.1', toPort: port })),
    acceptCertificates: true,
  });
  const siteId = await saveSite(db, settings);
  const [newest] = await crawlsOf(db, siteId, 1);
  if (newest && newest.state !== 'failed') return 0;
  return crawlCommand(db, { settings, lists: [], out: null, view: wholeView });
}
