/** Indexes the texts of an ended crawl, from the sources of its pages. */
import { readBlocks } from '$core/html';
import { pageOf } from '$core/snapshot';
import { textIndexBuilder } from '$core/textIndex';
import {
  endJob,
  getCrawl,
  measureSpace,
  noteStep,
  openSnapshot,
  renewLease,
  storedPages,
  storeTexts,
} from '$server/index';
import type { Database, Lease } from '$server/index';
import { isError } from '$core/errors';

/** How often it is told how far it is. */
const TELL_PAGES = 100;

/** Indexes the texts of a crawl, as its leased job asks for. Does nothing when another worker has taken over. */
export async function indexTexts(db: Database, lease: Lease): Promise<void> {
  try {
    const row = await getCrawl(db, lease.crawlId);
    const view = row && (await openSnapshot(db, row, 'facts'));
    if (view) {
      const builder = textIndexBuilder();
      for await (const { address, language, bytes, charset } of storedPages(db, row.id)) {
        const page = pageOf(view, address);
        if (page < 0) continue;
        builder.add({ page, language, blocks: readBlocks(bytes, charset).blocks });
        const { pages } = builder.counts();
        if (pages % TELL_PAGES !== 0) continue;
        await noteStep(db, lease, 'texts', pages, view.count);
        if (!(await renewLease(db, lease))) return;
      }
      await storeTexts(db, lease, builder.finish(), row.analysedAt);
      await measureSpace(db, row.id);
    }
    await endJob(db, lease);
  } catch (error) {
    if (!isError(error, 'lease_lost')) throw error;
  }
}
