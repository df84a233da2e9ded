/** Hits of a log, counted by what was asked for. */

/** Names by which the crawlers of large search engines say who they are; others may claim to be them. */
const crawlers =
  /googlebot|bingbot|duckduckbot|yandex(?:bot|images|mobilebot)|baiduspider|applebot|slurp|seznambot|petalbot|qwant(?:bot|ify)|searchbot/i;

/** Whether a user agent says that it is a search crawler. */
export const saysCrawler = (agent: string): boolean => crawlers.test(agent);

const DAY = 86_400;
const STATUSES = 1000;
/** Cells are less than this. */
const CELLS = 2 ** 30;
/** A day and a status as one number: hits are counted by both together. What is not known, or cannot be, is 0. */
export function cellOf(time: number | null, status: number | null): number {
  const day = time === null ? 0 : Math.floor(time / DAY);
  const known = status !== null && status > 0 && status < STATUSES ? Math.floor(status) : 0;
  return day > 0 && day < CELLS / STATUSES - 1 ? day * STATUSES + known : known;
}
const dayOfCell = (cell: number): number => Math.floor(cell / STATUSES);
const statusOfCell = (cell: number): number => cell % STATUSES;

/** How often each of some addresses was asked for. */
export interface Hits {
  hits: Float64Array;
  crawlerHits: Float64Array;
  /** The hits that did not end in an error of the server or of who asked; those without a status are taken for good. */
  answered: Float64Array;
  /** Seconds since 1970; NaN when no time was read. */
  lastHit: Float64Array;
  /** Cells ({@link cellOf}) and their hits, in turn: those of address `i` end at `ends[i]`. */
  cells: Uint32Array;
  ends: Uint32Array;
}

/** When something was asked for, and how that was answered, as far as it is known. */
export interface Asked {
  /** Seconds since 1970. */
  time: number | null;
  status: number | null;
}

/** Counts the hits of a log as its lines come. Addresses are whole numbers below `2 ** 23`. */
export interface HitCounter {
  add: (address: number, asked: Asked, isCrawler: boolean) => void;
  /** What was counted, for some addresses in an order. */
  counted: (order: Uint32Array) => Hits;
}

/** An address and a cell as one number, which a double holds exactly. */
const keyOf = (address: number, cell: number) => address * CELLS + cell;

const MOST_NOTED = 1 << 20;

/** Sorts keys, counts those that are equal, and adds what was counted before. */
function countKeys(keys: Float64Array, before: { keys: Float64Array; hits: Uint32Array }) {
  keys.sort();
  const merged = new Float64Array(keys.length + before.keys.length);
  const hits = new Uint32Array(merged.length);
  let [count, at, old] = [0, 0, 0];
  while (at < keys.length || old < before.keys.length) {
    const key = Math.min(keys[at] ?? Infinity, before.keys[old] ?? Infinity);
    merged[count] = key;
    if (before.keys[old] === key) hits[count] += before.hits[old++];
    for (; keys[at] === key; at++) hits[count]++;
    count++;
  }
  return { keys: merged.slice(0, count), hits: hits.slice(0, count) };
}

/**
 * Makes a counter. Hits are noted one after the other and counted many at a time: looking the counts of each address up
 * would go all over memory.
 * @param most as many are noted before they are counted
 */
export function hitCounter(most = MOST_NOTED): HitCounter {
  let counted = { keys: new Float64Array(0), hits: new Uint32Array(0) };
  let noted = new Float64Array(most);
  let size = 0;
  const crawlerHits: number[] = [];
  const lastHit: number[] = [];
  const count = () => {
    counted = countKeys(noted.subarray(0, size), counted);
    size = 0;
    // What was counted is gone through each time, so it is done less often the more there is.
    if (counted.keys.length > noted.length) noted = new Float64Array(counted.keys.length);
  };
  const add: HitCounter['add'] = (address, { time, status }, isCrawler) => {
    while (address >= lastHit.length) {
      crawlerHits.push(0);
      lastHit.push(-1);
    }
    if (isCrawler) crawlerHits[address]++;
    if (time !== null && time > lastHit[address]) lastHit[address] = time;
    noted[size++] = keyOf(address, cellOf(time, status));
    if (size === noted.length) count();
  };
  return { add, counted: (order) => (count(), ordered(order)) };

  function ordered(order: Uint32Array): Hits {
    const { keys, hits } = counted;
    const starts = new Uint32Array(lastHit.length + 1);
    for (const key of keys) starts[Math.floor(key / CELLS) + 1]++;
    for (let address = 0; address < lastHit.length; address++) starts[address + 1] += starts[address];
    const cells = new Uint32Array(2 * keys.length);
    const ends = new Uint32Array(order.length);
    const sums = { hits: new Float64Array(order.length), answered: new Float64Array(order.length) };
    let end = 0;
    order.forEach((address, i) => {
      for (let at = starts[address]; at < starts[address + 1]; at++) {
        const cell = keys[at] % CELLS;
        cells[end++] = cell;
        cells[end++] = hits[at];
        sums.hits[i] += hits[at];
        if (statusOfCell(cell) < 400) sums.answered[i] += hits[at];
      }
      ends[i] = end;
    });
    return {
      ...sums,
      crawlerHits: new Float64Array(order).map((address) => crawlerHits[address]),
      lastHit: new Float64Array(order).map((address) => (lastHit[address] < 0 ? NaN : lastHit[address])),
      cells,
      ends,
    };
  }
}

/** The hits of one address by status and by day, as a dossier shows them. */
export interface HitCounts {
  /** Status 0 is unknown. */
  byStatus: { status: number; hits: number }[];
  /** Days as `2026-10-02` in UTC, ascending; hits without a time are left out. */
  byDay: { day: string; hits: number }[];
}

/** Adds cells ({@link cellOf}) up, in whatever order they come. */
export function countCells(cells: ArrayLike<number>): HitCounts {
  const statuses = new Map<number, number>();
  const days = new Map<number, number>();
  for (let at = 0; at < cells.length; at += 2) {
    const [status, day, hits] = [statusOfCell(cells[at]), dayOfCell(cells[at]), cells[at + 1]];
    statuses.set(status, (statuses.get(status) ?? 0) + hits);
    if (day > 0) days.set(day, (days.get(day) ?? 0) + hits);
  }
  return {
    byStatus: [...statuses].sort(([a], [b]) => a - b).map(([status, hits]) => ({ status, hits })),
    byDay: [...days]
      .sort(([a], [b]) => a - b)
      .map(([day, hits]) => ({ day: new Date(day * DAY * 1000).toISOString().slice(0, 10), hits })),
  };
}
