/** Lists of what two crawls know together: their pages, and the links that came and went. */
import { changeColumn, freshPageOf, linkChangesOf, oldPageOf } from '../compare';
import type { Comparison } from '../compare';
import { changeFacts, columnNames, comparedColumns } from '../facts';
import type { Fact, ChangeFactName } from '../facts';
import { placements } from '../links';
import { hasBit, numbersOf } from '../selection';
import type { Bits } from '../selection';
import { quote } from '../selection/print';
import { addressAt, sourcesOf } from '../snapshot';
import { listColumns, thenColumn } from './columns';
import { linkCells } from './links';
import { cellsBy, numberCells, ranksOf } from './list';
import type { Cells, List } from './list';
import { factCells } from './pages';
import type { ComparedView, View } from '../view';

/** Keys of cells are not negative where a value is known: numbers that may be are moved up by this much. */
const ABOVE_ZERO = 1 << 30;

function changeCells(comparison: Comparison<View>, name: ChangeFactName): Cells {
  const column = changeColumn(comparison, name);
  const { type, values }: Fact = changeFacts[name];
  if ('texts' in column) {
    const texts = column.texts.map((text) => text ?? '');
    let ranks: Uint32Array | undefined;
    return {
      key: (row) => (column.texts[row] === null ? -1 : (ranks ??= ranksOf(texts))[row]),
      value: (row) => column.texts[row],
    };
  }
  const { numbers } = column;
  const isSigned = values === undefined;
  return {
    key: (row) => (Number.isNaN(numbers[row]) ? -1 : numbers[row] + (isSigned ? ABOVE_ZERO : 0)),
    value: (row) => {
      const number = numbers[row];
      if (Number.isNaN(number)) return null;
      if (type === 'set') return values!.filter((_, bit) => number & (1 << bit));
      return values ? values[number] : number;
    },
  };
}

/** Cells of one of the crawls, for the rows of both. */
const cellsThrough = (cells: Cells, pageOf: (row: number) => number): Cells => ({
  key: (row) => (pageOf(row) < 0 ? -1 : cells.key(pageOf(row))),
  value: (row) => (pageOf(row) < 0 ? null : cells.value(pageOf(row))),
});

/** The pages of two crawls that a selection holds. A row is a row of the comparison. */
export function changeList(snapshot: ComparedView, selected: Bits): List {
  const { comparison } = snapshot;
  const { old } = comparison;
  const rows = numbersOf(selected);
  const urls = factCells(snapshot, 'url');
  return {
    columns: listColumns.changes,
    rows,
    bytes: rows.byteLength,
    cells: cellsBy({
      ...Object.fromEntries(
        columnNames.map((name) => [
          name,
          () => cellsThrough(factCells(snapshot, name), (row) => freshPageOf(comparison, row)),
        ]),
      ),
      // What is removed has the address that it had, and comes after the others.
      url: () => ({
        key: (row) => (row < snapshot.count ? urls.key(row) : row),
        value: (row) => (row < snapshot.count ? urls.value(row) : addressAt(old, oldPageOf(comparison, row))),
      }),
      ...Object.fromEntries(
        comparedColumns.map((fact) => [
          thenColumn(fact),
          () => cellsThrough(factCells(old, fact), (row) => oldPageOf(comparison, row)),
        ]),
      ),
      ...Object.fromEntries(
        (Object.keys(changeFacts) as ChangeFactName[]).map((name) => [name, () => changeCells(comparison, name)]),
      ),
    }),
    selectOf: () => '',
  };
}

/** Links of the old crawl are numbered after those of the new one. */
interface ChangedLinks {
  rows: Uint32Array;
  /** The edit of each row. */
  edits: Uint32Array;
}

/** The links that came and went among those that a selection holds in each crawl. */
function chosenLinks({ comparison, links }: ComparedView, after: Bits, before: Bits): ChangedLinks {
  const { added, removed, editOfAdded, editOfRemoved } = linkChangesOf(comparison);
  const rows: number[] = [];
  const edits: number[] = [];
  removed.forEach((link, i) => {
    if (!hasBit(before, link)) return;
    rows.push(links.target.length + link);
    edits.push(editOfRemoved[i]);
  });
  added.forEach((link, i) => {
    if (!hasBit(after, link)) return;
    rows.push(link);
    edits.push(editOfAdded[i]);
  });
  return { rows: Uint32Array.from(rows), edits: Uint32Array.from(edits) };
}

const textColumns = ['source', 'target', 'anchor', 'rel', 'above', 'fragment', 'ends_at'] as const;

/** Cells of links of both crawls; `rowOf` gives the row of {@link ChangedLinks} that a row of the list stands for. */
function changedLinkCells(
  snapshot: ComparedView,
  rowOf: (row: number) => number,
  rows: Uint32Array,
): Record<string, () => Cells> {
  const most = snapshot.links.target.length;
  const { old } = snapshot.comparison;
  const isOld = (row: number) => rowOf(row) >= most;
  const after = linkCells(snapshot, rowOf);
  const before = linkCells(old, (row) => rowOf(row) - most);
  const all = Object.fromEntries(
    (Object.keys(after) as (keyof typeof after)[]).map((name) => [
      name,
      (): Cells => {
        const [now, then] = [after[name](), before[name]()];
        const value = (row: number) => (isOld(row) ? then : now).value(row);
        if (!(textColumns as readonly string[]).includes(name))
          return { key: (row) => (isOld(row) ? then : now).key(row), value };
        // Each crawl has an order of its own: texts of both are put in one.
        let places: Map<number, number> | undefined;
        const key = (row: number) => {
          if (!places) {
            const texts = Array.from(rows, (one) => value(one));
            const ranks = ranksOf(texts.map((text) => (text === null ? '' : String(text))));
            places = new Map(Array.from(rows, (one, i) => [one, texts[i] === null ? -1 : ranks[i]]));
          }
          return places.get(row)!;
        };
        return { key, value };
      },
    ]),
  );
  return {
    ...all,
    change: () => ({
      key: (row) => Number(!isOld(row)),
      value: (row) => (isOld(row) ? 'removed' : 'added'),
    }),
  };
}

/** The links that came and went, one a row. */
export function changedLinkList(snapshot: ComparedView, after: Bits, before: Bits): List {
  const { rows } = chosenLinks(snapshot, after, before);
  return {
    columns: listColumns.changed_links,
    rows,
    bytes: 2 * rows.byteLength,
    cells: cellsBy(changedLinkCells(snapshot, (row) => row, rows)),
    selectOf: () => '',
  };
}

/**
 * The links that came and went, folded into the edits that made them, those on most pages first. A row is the number of
 * an edit.
 */
export function changedEditList(snapshot: ComparedView, after: Bits, before: Bits): List {
  const { rows, edits } = chosenLinks(snapshot, after, before);
  const { old } = snapshot.comparison;
  const most = snapshot.links.target.length;
  const numberOf = new Map<number, number>();
  const first: number[] = [];
  const links: number[] = [];
  const pages: number[] = [];
  const lastPage: number[] = [];
  const [sourceNow, sourceThen] = [sourcesOf(snapshot), sourcesOf(old)];
  rows.forEach((row, i) => {
    let edit = numberOf.get(edits[i]);
    if (edit === undefined) {
      numberOf.set(edits[i], (edit = first.push(row) - 1));
      links[edit] = pages[edit] = 0;
    }
    const page = row < most ? sourceNow[row] : sourceThen[row - most];
    links[edit]++;
    if (lastPage[edit] !== page) pages[edit]++;
    lastPage[edit] = page;
  });
  const order = Uint32Array.from(first.keys()).sort(
    (a, b) => pages[b] - pages[a] || links[b] - links[a] || first[a] - first[b],
  );
  return {
    columns: listColumns.changed_edits,
    rows: order,
    bytes: 2 * rows.byteLength + 48 * order.length,
    cells: cellsBy({
      ...changedLinkCells(snapshot, (edit) => first[edit], order),
      links: () => numberCells(links),
      pages: () => numberCells(pages),
    }),
    selectOf: (edit) => {
      const row = first[edit];
      const [of, link] = row < most ? [snapshot, row] : [old, row - most];
      const { target, anchor, above, placement } = of.links;
      return [
        `target = ${quote(addressAt(of, target[link]))}`,
        `anchor = ${quote(of.phrases[anchor[link]])}`,
        `above = ${quote(of.phrases[above[link]])}`,
        `placement = ${placements[placement[link]]}`,
      ].join(' and ');
    },
  };
}
