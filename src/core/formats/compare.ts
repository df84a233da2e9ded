/** Two crawls side by side as files. */
import { addressAfter, addressBefore, costOf, factsOf, movedTo } from '../compare';
import type { Comparison, LinkChanges } from '../compare';
import { comparedFacts, pageClasses } from '../facts';
import type { FindingChange } from '../findings';
import { addressAt, sourcesOf } from '../snapshot';
import { csvPieces } from './csv';
import { placementCells } from './export';
import type { Cell } from './csv';
import type { View } from '../view';

/** What is said of one row: a record for each fact that differs, or one that says what became of it. */
function pageRecords(comparison: Comparison<View>, row: number): Cell[][] {
  const change = pageClasses[comparison.change[row]];
  if (change === 'same') return [];
  const [was, is] = [addressBefore(comparison, row), addressAfter(comparison, row)];
  const record = (fact: string, before: Cell, after: Cell): Cell[] => [was ?? is, change, fact, before, after];
  const facts = comparedFacts.flatMap((fact, bit) => {
    if (!(comparison.changed[row] & (1 << bit))) return [];
    const { before, after } = factsOf(comparison, fact, row);
    return [record(fact, before as Cell, after as Cell)];
  });
  if (change === 'added' || change === 'removed') {
    const { before, after } = factsOf(comparison, 'verdict', row);
    return [record('verdict', before as Cell, after as Cell)];
  }
  return change === 'moved' ? [record('url', was ?? is, movedTo(comparison, row)), ...facts] : facts;
}

/** `changes.csv`: one record a fact that has changed, of the pages that cost most first. */
export function changesCsv(comparison: Comparison<View>): Iterable<string> {
  const costs = new Float64Array(comparison.rows).map((_, row) => costOf(comparison, row));
  const nameOf = (row: number) => addressBefore(comparison, row) ?? addressAfter(comparison, row)!;
  const ordered = [...costs.keys()].sort((a, b) => costs[b] - costs[a] || (nameOf(a) < nameOf(b) ? -1 : 1));
  function* records(): Generator<Cell[]> {
    yield ['url', 'change', 'fact', 'before', 'after'];
    for (const row of ordered) yield* pageRecords(comparison, row);
  }
  return csvPieces(records());
}

/** `link_changes.csv`: one record a link; equal `edit` is one edit. */
export function linkChangesCsv(comparison: Comparison<View>, links: LinkChanges): Iterable<string> {
  function* records(): Generator<Cell[]> {
    yield ['change', 'source', 'target', 'anchor', 'placement', 'edit'];
    for (const change of ['removed', 'added'] as const) {
      const snapshot = change === 'added' ? comparison.fresh : comparison.old;
      const edits = change === 'added' ? links.editOfAdded : links.editOfRemoved;
      const sources = sourcesOf(snapshot);
      const { target, anchor, placement } = snapshot.links;
      const address = (page: number) => comparison.map(addressAt(snapshot, page));
      for (const [i, link] of links[change].entries())
        yield [
          change,
          address(sources[link]),
          address(target[link]),
          snapshot.phrases[anchor[link]],
          placementCells[placement[link]],
          edits[i] + 1,
        ];
    }
  }
  return csvPieces(records());
}

/** `finding_changes.csv`. */
export const findingChangesCsv = (findings: readonly FindingChange[]): Iterable<string> =>
  csvPieces([
    ['finding', 'new', 'solved', 'remaining', 'gone'],
    ...findings.map((one) => [one.finding, one.new, one.solved, one.remaining, one.gone]),
  ]);
