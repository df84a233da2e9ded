/** The files that tell which sources know which addresses. */
import { agreementOf, importCells, sourceBook } from '../agreement';
import { verdicts } from '../facts';
import { addressAt, factAt } from '../snapshot';
import { csvPieces } from './csv';
import type { Cell } from './csv';
import type { View } from '../view';

/** agreement.csv: one record for each combination of sources that occurs. */
export function agreementCsv(snapshot: View): Generator<string> {
  const book = sourceBook(snapshot);
  const rows = agreementOf(book, snapshot.column('verdict'));
  const named = (sources: readonly number[]) =>
    sources
      .map((source) => book.names[source])
      .sort()
      .join('+');
  return csvPieces([
    ['sources', 'urls', 'indexable', 'hits'],
    ...rows.map(({ sources, urls, indexable, hits }) => [named(sources), urls, indexable, hits]),
  ]);
}

/** sources.csv: one record for each address that the crawl or an import knows, with the first number of each import. */
export function sourcesCsv(snapshot: View): Generator<string> {
  const book = sourceBook(snapshot);
  const cells = importCells(snapshot, book);
  const verdict = snapshot.column('verdict');
  function* records(): Generator<Cell[]> {
    yield ['url', 'verdict', 'depth', 'reach', ...book.names];
    for (let at = 0; at < book.known.length; at++) {
      const isPage = at < book.pages;
      yield [
        isPage ? addressAt(snapshot, at) : book.unknown[at - book.pages],
        isPage ? verdicts[verdict[at]] : null,
        isPage ? (factAt(snapshot, 'depth', at) as Cell) : null,
        isPage ? (factAt(snapshot, 'reach', at) as Cell) : null,
        book.known[at] & 1,
        (book.known[at] >> 1) & 1,
        ...cells.map((column) => column[at]),
      ];
    }
  }
  return csvPieces(records());
}
