import { join } from 'node:path';
import { MAX_SOURCES } from '$core/agreement';
import { agreementCsv, sourcesCsv } from '$core/formats';
import type { Database } from '$server/index';
import { makeFolder, writePieces } from './export';
import { finishedCrawl } from './finished';
import { failure } from '$core/errors';

/** `edgemap sources`: writes which sources know which addresses. */
export async function sourcesCommand(db: Database, { crawl, out }: { crawl: number; out: string }): Promise<number> {
  const { snapshot } = await finishedCrawl(db, crawl);
  if (snapshot.imports.length > MAX_SOURCES - 2)
    throw failure(
      'usage',
      `More than ${MAX_SOURCES - 2} imports cannot be compared. Remove some on the screen Roll call.`,
    );
  await makeFolder(out);
  await writePieces(join(out, 'agreement.csv'), agreementCsv(snapshot));
  await writePieces(join(out, 'sources.csv'), sourcesCsv(snapshot));
  console.error(`The sources of crawl ${crawl} are written to ${out}.`);
  return 0;
}
