/** Drafts as files. */
import { editFields } from '../draft';
import type { Edit } from '../draft';
import { addressAt, inAddressOrder } from '../snapshot';
import type { View } from '../view';
import { csvPieces } from './csv';
import type { Cell } from './csv';
import { pageCell } from './export';

/** The facts of draft.csv, each before and after. */
const facts = ['verdict', 'depth', 'reach', 'share', 'pages_linking'] as const;

/**
 * draft.csv: one record for each address of the crawl or the draft.
 * @param before the crawl; a draft keeps its pages and appends others
 */
export function draftCsv(before: View, after: View): Generator<string> {
  const order = inAddressOrder(
    after,
    new Uint32Array(after.count).map((_, page) => page),
  );
  function* records(): Generator<Cell[]> {
    yield ['url', ...facts.flatMap((fact) => [`${fact}_before`, `${fact}_after`])];
    for (const page of order)
      yield [
        addressAt(after, page),
        ...facts.flatMap((fact) => [
          page < before.count ? pageCell(before, fact, page) : null,
          pageCell(after, fact, page),
        ]),
      ];
  }
  return csvPieces(records());
}

/** Edits as a file that `edgemap draft` reads. */
export const editsCsv = (edits: readonly Edit[]): Generator<string> =>
  csvPieces([editFields, ...edits.map((edit) => editFields.map((name) => edit[name]))]);
