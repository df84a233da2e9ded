/** `edgemap anchors`: what the links to each page say. */
import { join } from 'node:path';
import { csvPieces } from '$core/formats';
import type { Cell } from '$core/formats';
import { addressAt } from '$core/snapshot';
import type { View } from '$core/view';
import { wordingsOf } from '$core/wordings';
import type { Database } from '$server/index';
import { makeFolder, writePieces } from './export';
import { finishedCrawl } from './finished';

const columns = 'target fragment anchor occurrences pages main_content followed fit faults'.split(' ');

function* rows(view: View): Generator<Cell[]> {
  yield columns;
  const wordings = wordingsOf(view);
  for (const page of [...wordings.keys()].sort((a, b) => a - b))
    for (const one of wordings.get(page)!)
      yield [
        addressAt(view, page),
        one.fragment,
        one.anchor,
        ...[one.occurrences, one.pages, one.mainContent, one.followed],
        one.fit < 0 ? null : one.fit.toFixed(4),
        one.faults.join(' '),
      ];
}

export async function anchorsCommand(db: Database, { crawl, out }: { crawl: number; out: string }): Promise<number> {
  const { snapshot } = await finishedCrawl(db, crawl, 'words');
  await makeFolder(out);
  await writePieces(join(out, 'anchors.csv'), csvPieces(rows(snapshot)));
  console.error(`The anchor texts of crawl ${crawl} are written to ${out}.`);
  return 0;
}
