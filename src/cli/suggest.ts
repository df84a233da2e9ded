/** `edgemap suggest`: places that could link to a page, from one, or to all of a selection. */
import { createWriteStream } from 'node:fs';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { csvPieces } from '$core/formats';
import type { Cell } from '$core/formats';
import type { ShownPlace } from '$core/places';
import { atOnce } from '$core/promises';
import { numbersOf } from '$core/selection';
import { addressAt, pageOf } from '$core/snapshot';
import type { View } from '$core/view';
import { firstShown, openPlaces, placeReader } from '$server/index';
import type { Database } from '$server/index';
import { selected } from './export';
import { crawlFor, finishedCrawl, textsIndexed } from './finished';
import type { ViewOptions } from './options';
import { failure } from '$core/errors';

export interface SuggestCall {
  crawl: number;
  /** One of these is given. */
  to: string | null;
  from: string | null;
  all: ViewOptions['select'] | null;
  /** For each target; for the source with `from`. */
  limit: number;
  out: string | null;
  /** Of the score. */
  least: number;
  inCode: boolean;
}

function pageNamed(view: View, address: string, option: string): number {
  const page = pageOf(view, address);
  if (page < 0) throw failure('usage', `${option}: the crawl does not know ${address}.`);
  return page;
}

const columns = 'target source line column anchor sentence score phrase_fit relatedness share_gain'.split(' ');

function rowOf(view: View, { target, source, at, ...place }: ShownPlace): Cell[] {
  const figures = [place.score, place.phraseFit, place.relatedness, place.shareGain].map((value) => value.toFixed(4));
  const sentence = at.before + at.anchor + at.after;
  return [addressAt(view, target), addressAt(view, source), at.line, at.column, at.anchor, sentence, ...figures];
}

export async function suggestCommand(db: Database, call: SuggestCall): Promise<number> {
  const given = [call.to, call.from, call.all].filter((one) => one !== null);
  if (given.length !== 1) throw failure('usage', 'Give one of --to, --from and --all.');
  const { row, view } = call.all
    ? await crawlFor(db, call.crawl, { select: call.all })
    : await finishedCrawl(db, call.crawl).then(({ row, snapshot }) => ({ row, view: snapshot }));
  await textsIndexed(db, row);
  const places = await openPlaces(db, row, view);
  if (!places) throw failure('usage', `The texts of crawl ${call.crawl} could not be indexed.`);
  const show = placeReader(db, row, places);
  const options = { inCode: call.inCode || row.settings.linksInCode, least: call.least };
  async function* rows(): AsyncGenerator<Cell[]> {
    yield columns;
    if (call.from !== null) {
      const source = pageNamed(view, call.from, '--from');
      for (const place of await firstShown(show, atOnce(places!.from(source, options)), call.limit))
        yield rowOf(view, place);
      return;
    }
    const targets = call.to !== null ? [pageNamed(view, call.to, '--to')] : [...numbersOf(selected(view, call.all!))];
    const found = atOnce(places!.to(targets, options));
    for (const target of targets)
      for (const place of await firstShown(show, found.get(target)!, call.limit)) yield rowOf(view, place);
  }
  async function* texts() {
    for await (const row of rows()) yield* csvPieces([row]);
  }
  const out = call.out === null ? process.stdout : createWriteStream(call.out);
  await pipeline(Readable.from(texts()), out, { end: call.out !== null }).catch((error: NodeJS.ErrnoException) => {
    // Whoever reads may have seen enough.
    if (error.code !== 'EPIPE') throw error;
  });
  return 0;
}
