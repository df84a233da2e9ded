import { crawlsOf, demoSettings, saveSite } from '$server/index';
import type { Database } from '$server/index';
import { crawlCommand } from './crawl';
import { wholeView } from './options';

/**
 * `demo-crawl PORT`: points the demo site at the stand-in server on this port and crawls it, unless that has been
 * done before.
 */
export async function demoCommand(db: Database, port: number): Promise<number> {
  const settings = demoSettings(port);
  const siteId = await saveSite(db, settings);
  const [newest] = await crawlsOf(db, siteId, 1);
  if (newest && newest.state !== 'failed') return 0;
  return crawlCommand(db, { settings, lists: [], out: null, view: wholeView });
}
