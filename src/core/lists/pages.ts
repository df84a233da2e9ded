import { INDEXABLE, factNames, isColumnName } from '../facts';
import type { ColumnName, FactName } from '../facts';
import { columnOfSource, isDateColumn, isoTime } from '../imports';
import { clauseOf, numbersOf } from '../selection';
import type { Bits } from '../selection';
import { addressAt, factAt, inAddressOrder, isText } from '../snapshot';
import { verdictReason } from '../verdict';
import { listColumns } from './columns';
import { importColumn, importColumnName, numbersOfSource } from './importColumns';
import { cellsBy, numberCells } from './list';
import type { Cells, List } from './list';
import type { View } from '../view';

/** The cells of a fact of pages. */
export function factCells(snapshot: View, name: FactName): Cells {
  // Put together for each row that is shown; nobody sorts by it.
  if (!isColumnName(name)) return { key: (page) => page, value: (page) => verdictReason(snapshot, page) };
  const column = snapshot.column(name);
  // The code 0 of a text stands for unknown.
  const key = isText(column) ? (page: number) => column.codes[page] - 1 : (page: number) => column[page];
  return { key, value: (page) => factAt(snapshot, name, page) };
}

/** The pages of a selection. A row is the number of a page. */
export function pageList(snapshot: View, selected: Bits): List {
  const rows = inAddressOrder(snapshot, numbersOf(selected));
  const imported = snapshot.imports.flatMap((source) =>
    numbersOfSource(source).map((number) => ({
      name: importColumnName(source.kind, source.name, number),
      cells: () => {
        const cells = numberCells(columnOfSource(snapshot.count, source, number));
        return isDateColumn(number) ? { ...cells, value: (page: number) => isoTime(cells.key(page)) } : cells;
      },
    })),
  );
  return {
    columns: [...listColumns.pages, ...imported.map(({ name }) => importColumn(name)!)],
    rows,
    bytes: rows.byteLength,
    cells: cellsBy(
      Object.fromEntries([
        ...factNames.map((name) => [name, () => factCells(snapshot, name)] as const),
        ...imported.map(({ name, cells }) => [name, cells] as const),
      ]),
    ),
    selectOf: () => '',
  };
}

/** The pages of a selection, grouped by one of their facts: most pages first. A row is the number of a group. */
export function pageGroups(snapshot: View, selected: Bits, by: ColumnName): List {
  const column = snapshot.column(by);
  const codes = isText(column) ? column.codes : column;
  const members = new Map<number, number[]>();
  for (const page of numbersOf(selected)) {
    const group = members.get(codes[page]);
    if (group) group.push(page);
    else members.set(codes[page], [page]);
  }
  const groups = [...members.values()].sort((a, b) => b.length - a.length || a[0] - b[0]);
  const depth = snapshot.column('depth');
  const verdict = snapshot.column('verdict');
  const share = snapshot.column('share');
  const numbers = (of: (pages: number[]) => number) => () => numberCells(groups.map(of));
  const value = (row: number) => factAt(snapshot, by, groups[row][0]);
  return {
    columns: listColumns.groups,
    rows: Uint32Array.from(groups.keys()),
    // The members of groups are arrays of numbers, and so are their counts.
    bytes: 8 * (snapshot.count + 8 * groups.length),
    cells: cellsBy({
      value: () => ({ key: (row) => codes[groups[row][0]], value }),
      pages: numbers((pages) => pages.length),
      indexable: numbers((pages) => pages.reduce((n, page) => n + Number(verdict[page] === INDEXABLE), 0)),
      median_depth: numbers((pages) => medianDepth(pages, depth)),
      share: numbers((pages) => pages.reduce((sum, page) => sum + Math.max(0, share[page]), 0)),
      no_route: numbers((pages) => pages.reduce((n, page) => n + Number(depth[page] < 0), 0)),
      url: () => ({ key: (row) => groups[row][0], value: (row) => addressAt(snapshot, groups[row][0]) }),
    }),
    selectOf: (row) => clauseOf(by, value(row)),
  };
}

/** The median depth of those that have a route; −1 when none has. */
export function medianDepth(pages: readonly number[], depth: Int32Array): number {
  const depths = pages.filter((page) => depth[page] >= 0).map((page) => depth[page]);
  return depths.length ? depths.sort((a, b) => a - b)[depths.length >> 1] : -1;
}
