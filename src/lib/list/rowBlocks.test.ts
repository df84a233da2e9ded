import { describe, expect, it } from 'vitest';
import type { ListRow } from '$core/lists';
import { rowBlocks } from './rowBlocks';
import { rowCommand } from './rowKeys';

const TOTAL = 1_000_000;
const row = (id: number): ListRow => ({ id, select: '', cells: {} });
const windowOf = (from: number, size: number) => Array.from({ length: size }, (_, i) => row(from + i));

/** A server that answers like the endpoints of a crawl, and notes what it was asked. */
function server() {
  const asked: string[] = [];
  const answers = new Map<string, () => void>();
  const read = (address: string) => {
    asked.push(address);
    const query = new URLSearchParams(address.split('?')[1]);
    const from = Number(query.get('from'));
    const text = address.includes('/ids?')
      ? `${from}-${query.get('to')}`
      : JSON.stringify({ rows: windowOf(from, Number(query.get('size'))) });
    return new Promise<string>((resolve, reject) => {
      if (address.includes('broken')) reject(new Error('500'));
      else if (address.includes('slow')) answers.set(address, () => resolve(text));
      else resolve(text);
    });
  };
  return { asked, read, answer: () => answers.forEach((give) => give()) };
}
const settled = () => new Promise((resolve) => setTimeout(resolve));

describe('the rows of a list', () => {
  it('are those that came with the screen, and are asked for as they come into sight', async () => {
    const { asked, read } = server();
    let changes = 0;
    const rows = rowBlocks(() => changes++, read);
    rows.begin('/c/rows?a', { total: TOTAL, from: 0, rows: windowOf(0, 100) });
    expect([rows.rowAt(7)?.id, rows.rowAt(250)]).toEqual([7, undefined]);
    rows.need(240, 260);
    rows.need(240, 260);
    await settled();
    expect(rows.rowAt(250)?.id).toBe(250);
    expect(asked).toEqual([1, 2, 3].map((block) => `/c/rows?a&from=${block * 100}&size=100`));
    expect(changes).toBe(3);
  });
  it('of an earlier selection are of no use, and those that fail are asked for again', async () => {
    const { read, answer } = server();
    const rows = rowBlocks(() => {}, read);
    rows.begin('/c/rows?slow', { total: TOTAL, from: 0, rows: windowOf(0, 100) });
    rows.need(500, 510);
    rows.begin('/c/rows?broken', { total: 900, from: 0, rows: [] });
    answer();
    rows.need(500, 510);
    await settled();
    expect([rows.rowAt(505), rows.hasFailed()]).toEqual([undefined, true]);
    rows.begin('/c/rows?b', { total: 900, from: 0, rows: [] });
    rows.need(500, 510);
    await settled();
    expect([rows.rowAt(505)?.id, rows.hasFailed()]).toEqual([505, false]);
  });
  it('between two places are named by one request, however many they are', async () => {
    const { asked, read } = server();
    const rows = rowBlocks(() => {}, read);
    rows.begin('/c/rows?a', { total: TOTAL, from: 0, rows: windowOf(0, 100) });
    expect(await rows.idsBetween(3, 1)).toEqual([1, 2, 3]);
    expect(asked).toEqual([]);
    expect(await rows.idsBetween(0, TOTAL - 1)).toHaveLength(TOTAL);
    expect(asked).toEqual([`/c/ids?a&from=0&to=${TOTAL - 1}`]);
  });
});

describe('a key in a list', () => {
  const at = { active: 10, total: 100, page: 20 };
  const press = (key: string, held: { shiftKey?: boolean; ctrlKey?: boolean } = {}) =>
    rowCommand({ key, shiftKey: false, ctrlKey: false, metaKey: false, ...held }, at);
  it.each([
    ['ArrowDown', 11],
    ['PageUp', 0],
    ['PageDown', 30],
    ['End', 99],
  ])('%s moves to row %i', (key, to) => expect(press(key)).toEqual({ op: 'move', to, extend: false }));
  it('extends with Shift, picks with x and Ctrl A, and leaves others alone', () => {
    expect(press('End', { shiftKey: true })).toEqual({ op: 'move', to: 99, extend: true });
    expect([press('x'), press('a', { ctrlKey: true })]).toEqual([{ op: 'pick' }, { op: 'pickAll' }]);
    expect([press('x', { ctrlKey: true }), press('q'), press('a')]).toEqual([null, null, null]);
  });
});
