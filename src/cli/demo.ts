import { addDraft, ageDemo, changeDraft, crawlsOf, demoEdits, demoSettings, draftsOf, saveSite } from '$server/index';
import type { Database } from '$server/index';
import { crawlCommand } from './crawl';
import { wholeView } from './options';

/**
 * `demo-crawl PORT`: points the demo site at the stand-in server on this port and crawls it as it is, and as it is some
 * weeks later, unless that has been done before; and begins a draft of changes to it.
 */
export async function demoCommand(db: Database, port: number): Promise<number> {
  const settings = demoSettings(port);
  const siteId = await saveSite(db, settings);
  const usable = (await crawlsOf(db, siteId, 2)).filter(({ state }) => state !== 'failed');
  for (let done = usable.length; done < 2; done++) {
    if (done === 1) await ageDemo();
    const code = await crawlCommand(db, { settings, lists: [], out: null, view: wholeView, allowPrivate: true });
    if (code !== 0) return code;
  }
  if ((await draftsOf(db, siteId)).length === 0) {
    await addDraft(db, siteId, 'Winter tidy-up', null);
    await changeDraft(db, siteId, { step: { kind: 'add', edits: demoEdits } }, 0);
  }
  return 0;
}
