/** Two crawls side by side as files. */
import type { FindingChange, LinkChange, PageChange } from '../compare';
import { verdicts } from '../facts';
import type { Snapshot } from '../snapshot';
import { csvPieces } from './csv';
import type { Cell } from './csv';

const verdictAt = ({ columns }: Snapshot, page: number) => (page < 0 ? '' : verdicts[columns.verdict[page]]);

/** What is said of one page: a row for each fact that differs, or one row that says what became of it. */
function pageRows(old: Snapshot, fresh: Snapshot, { address, change, to, facts, ...page }: PageChange): Cell[][] {
  if (change === 'same') return [];
  if (change === 'added' || change === 'removed')
    return [[address, change, 'verdict', verdictAt(old, page.old), verdictAt(fresh, page.fresh)]];
  // The address that something has come to stands in the row of the one that it came from.
  if (change === 'moved' && page.old < 0) return [];
  const moved: Cell[][] = change === 'moved' ? [[address, change, 'url', address, to]] : [];
  return [...moved, ...facts.map(({ fact, before, after }) => [address, change, fact, before as Cell, after as Cell])];
}

/** `changes.csv`: one record a fact that has changed, of the pages that cost most first. */
export function changesCsv(old: Snapshot, fresh: Snapshot, pages: readonly PageChange[]): Iterable<string> {
  const share = ({ columns }: Snapshot, page: number) => (page < 0 ? 0 : Math.max(0, columns.share[page]));
  const cost = (page: PageChange) => Math.max(share(old, page.old), share(fresh, page.fresh));
  const ordered = [...pages].sort((a, b) => cost(b) - cost(a) || (a.address < b.address ? -1 : 1));
  function* rows(): Generator<Cell[]> {
    yield ['url', 'change', 'fact', 'before', 'after'];
    for (const page of ordered) yield* pageRows(old, fresh, page);
  }
  return csvPieces(rows());
}

/** `link_changes.csv`: one record a link; equal `edit` is one edit. */
export function linkChangesCsv(links: readonly LinkChange[]): Iterable<string> {
  function* rows(): Generator<Cell[]> {
    yield ['change', 'source', 'target', 'anchor', 'placement', 'edit'];
    for (const { change, source, target, anchor, placement, edit } of links)
      yield [change, source, target, anchor, placement, edit];
  }
  return csvPieces(rows());
}

/** `finding_changes.csv`. */
export const findingChangesCsv = (findings: readonly FindingChange[]): Iterable<string> =>
  csvPieces([
    ['finding', 'new', 'solved', 'remaining', 'gone'],
    ...findings.map((one) => [one.finding, one.new, one.solved, one.remaining, one.gone]),
  ]);
