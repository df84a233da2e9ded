/** The distribution of a column in a few bins, each of which is a test that holds its rows. */
import { isColumnName, keepsText, linkFacts } from '../facts';
import { quote } from '../selection/print';
import type { ListColumn, ListName } from './columns';
import type { CellValue, List } from './list';

export interface Bin {
  /** What its rows have in common: `4–7`, `noindex`, `unknown`. */
  label: string;
  rows: number;
  /** The test that holds them; null when the selection language has none. */
  select: string | null;
}

const MOST_BINS = 10;
/** Texts with more different values than this, or as many as there are rows, have no summary. */
const MOST_TEXTS = 400;
const RATIO_BOUNDS = [0, 0.1, 0.25, 0.5, 1, 2, 4, 8, 16, 64];

/** Whether a selection can ask for a column of a list. */
const isFilter = (list: ListName, column: string, asked?: string) =>
  list === 'changes'
    ? isColumnName(column) || column === 'change' || column === 'changed_facts'
    : list === 'pages'
      ? asked !== undefined || isColumnName(column)
      : list !== 'groups' && Object.hasOwn(linkFacts, column);

/** Bounds of bins for whole numbers up to `most`: one each for few, powers of two for many. */
function boundsFor(most: number): number[] {
  if (most < MOST_BINS) return Array.from({ length: most + 1 }, (_, i) => i);
  const bounds = [0];
  const step = Math.max(2, 2 ** Math.ceil(Math.log2(most + 1) / (MOST_BINS - 1)));
  for (let bound = 1; bound <= most; bound *= step) bounds.push(bound);
  return bounds;
}

const short = (n: number) => (n >= 1e6 ? `${n / 1e6}M` : n >= 1e4 ? `${Math.round(n / 1e3)}k` : n.toLocaleString('en'));

function numberBins(list: List, { name: column, asked, type }: ListColumn): Bin[] {
  const { key } = list.cells(column);
  const name = asked ?? column;
  let most = 0;
  const different = new Set<number>();
  for (const row of list.rows) {
    const own = key(row);
    most = Math.max(most, own);
    if (different.size <= MOST_BINS && own >= 0) different.add(own);
  }
  // The numbers of imports may be of any size, and need not be whole.
  const ratio = type === 'ratio';
  const isShare = ratio && asked === undefined;
  // Few numbers, such as statuses, are a bin each.
  const each = !isShare && different.size <= MOST_BINS;
  const bounds = isShare ? RATIO_BOUNDS : each ? [...different].sort((a, b) => a - b) : boundsFor(most);
  const counts = bounds.map(() => 0);
  let unknown = 0;
  for (const row of list.rows) {
    const own = key(row);
    if (own < 0) {
      unknown++;
      continue;
    }
    let bin = bounds.length - 1;
    while (own < bounds[bin]) bin--;
    counts[bin]++;
  }
  const bins = bounds.map((low, i): Bin => {
    const next = bounds[i + 1];
    const single = each || (!ratio && next === low + 1);
    if (single || (!ratio && next === undefined && low === most))
      return { label: short(low), rows: counts[i], select: `${name} = ${low}` };
    if (next === undefined) return { label: `${short(low)}+`, rows: counts[i], select: `${name} >= ${low}` };
    return {
      label: ratio ? `${low}–${next}` : `${short(low)}–${short(next - 1)}`,
      rows: counts[i],
      select: `${name} >= ${low} and ${name} < ${next}`,
    };
  });
  while (bins.length && bins[bins.length - 1].rows === 0) bins.pop();
  if (unknown) bins.push({ label: 'unknown', rows: unknown, select: asked ? null : `${name} is unknown` });
  return bins;
}

function valueBins(list: List, { name, type, values }: ListColumn): Bin[] {
  const { key, value } = list.cells(name);
  const byKey = new Map<number, { rows: number; value: CellValue }>();
  for (const row of list.rows) {
    const own = key(row);
    const known = byKey.get(own);
    if (known) known.rows++;
    else {
      byKey.set(own, { rows: 1, value: value(row) });
      if (keepsText(type) && byKey.size > MOST_TEXTS) return [];
    }
  }
  const all = [...byKey.values()];
  if (keepsText(type) && byKey.size === list.rows.length) return [];
  if (type === 'set')
    return (values ?? [])
      .map((one) => ({
        label: one,
        rows: all.reduce((n, { rows, value }) => n + (Array.isArray(value) && value.includes(one) ? rows : 0), 0),
        select: `${name} has ${one}`,
      }))
      .filter(({ rows }) => rows > 0);
  const bins = all
    .sort((a, b) => b.rows - a.rows)
    .map(({ rows, value }): Bin => {
      if (value === null) return { label: 'unknown', rows, select: `${name} is unknown` };
      if (type === 'flag') return { label: value ? 'yes' : 'no', rows, select: value ? name : `not ${name}` };
      const text = String(value);
      return { label: text.replaceAll('_', ' '), rows, select: `${name} = ${type === 'choice' ? text : quote(text)}` };
    });
  return bins.length > MOST_BINS
    ? [
        ...bins.slice(0, MOST_BINS - 1),
        {
          label: `${bins.length - MOST_BINS + 1} others`,
          rows: bins.slice(MOST_BINS - 1).reduce((n, { rows }) => n + rows, 0),
          select: null,
        },
      ]
    : bins;
}

/**
 * The distribution of a column over the rows of a list; empty where no selection can ask for it, and for texts of many
 * values.
 */
export function summaryOf(listName: ListName, list: List, column: ListColumn): Bin[] {
  if (!isFilter(listName, column.name, column.asked)) return [];
  return column.type === 'number' || column.type === 'ratio' ? numberBins(list, column) : valueBins(list, column);
}
