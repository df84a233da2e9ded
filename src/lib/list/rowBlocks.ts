/**
 * The rows of a list, read block by block as they come into sight: without a screen, which is told when there are more.
 */
import type { ListRow, ListWindow } from '$core/lists';
import { readNumbers } from '$core/numbers';

export const BLOCK = 100;

/** Reads an address of the server. @throws when it does not answer, or with a fault */
export type Read = (address: string) => Promise<string>;

const readText: Read = async (address) => {
  const response = await fetch(address);
  if (!response.ok) throw new Error(String(response.status));
  return response.text();
};

/**
 * @param onchange called when rows have come, or could not be read
 */
export function rowBlocks(onchange: () => void, read: Read = readText) {
  let source = '';
  let first: ListWindow = { total: 0, from: 0, rows: [] };
  let blocks = new Map<number, ListRow[]>();
  const asked = new Set<number>();
  let failed = false;

  async function ask(block: number): Promise<void> {
    if (blocks.has(block) || asked.has(block) || block < 0 || block * BLOCK >= first.total) return;
    asked.add(block);
    const from = source;
    try {
      const { rows } = JSON.parse(await read(`${from}&from=${block * BLOCK}&size=${BLOCK}`)) as { rows: ListRow[] };
      // An answer to an earlier selection is of no use.
      if (from !== source) return;
      blocks.set(block, rows);
      failed = false;
    } catch {
      if (from !== source) return;
      failed = true;
    } finally {
      if (from === source) asked.delete(block);
    }
    onchange();
  }
  const rowAt = (index: number): ListRow | undefined =>
    blocks.get(Math.floor(index / BLOCK))?.[index % BLOCK] ?? first.rows[index];

  return {
    rowAt,
    /** Whether rows that were asked for last could not be read. */
    hasFailed: () => failed,
    /**
     * Begins with another selection, order or choice of columns, and the rows that came with it.
     * @param from where rows are asked for; `from` and `size` are added
     */
    begin(from: string, window: ListWindow): void {
      source = from;
      first = window;
      asked.clear();
      failed = false;
      blocks = window.rows.length >= Math.min(BLOCK, window.total) ? new Map([[0, window.rows]]) : new Map();
    },
    /** Reads the rows between two places, and a block more in both directions, before they come into sight. */
    need(from: number, to: number): void {
      for (let block = Math.floor(from / BLOCK) - 1; block <= Math.floor(to / BLOCK) + 1; block++) void ask(block);
    },
    /** The numbers of the rows between two places, both included; all that are not at hand come with one request. */
    async idsBetween(one: number, other: number): Promise<number[]> {
      const [from, to] = [Math.min(one, other), Math.max(one, other)];
      if (to - from < BLOCK) {
        const known = Array.from({ length: to - from + 1 }, (_, i) => rowAt(from + i)?.id);
        if (known.every((id) => id !== undefined)) return known;
      }
      const named = await read(`${source.replace('/rows?', '/ids?')}&from=${from}&to=${to}`);
      return readNumbers(named)?.list() ?? [];
    },
  };
}
