/** Numbers as a short text: a million picked rows are sent by it. */

/** Writes whole numbers as ranges: `1,4-9`. */
export function writeNumbers(numbers: Iterable<number>): string {
  const sorted = Uint32Array.from(numbers).sort();
  const parts: string[] = [];
  for (let i = 0; i < sorted.length;) {
    const from = sorted[i];
    let to = from;
    while (++i < sorted.length && sorted[i] <= to + 1) to = sorted[i];
    parts.push(from === to ? String(from) : `${from}-${to}`);
  }
  return parts.join();
}

/** More numbers than any list has rows: a short text must not stand for memory without bound. */
const MOST = 100_000_000;

/** Whether a number is among those that a text names. */
export interface Numbers {
  has: (number: number) => boolean;
  /** All of them, as they are named. */
  list: () => number[];
}

/** Reads what `writeNumbers` writes. @returns null when it is something else */
export function readNumbers(text: string): Numbers | null {
  if (text === '') return { has: () => false, list: () => [] };
  const parts = text.split(',');
  if (!parts.every((part) => /^\d{1,9}(-\d{1,9})?$/.test(part))) return null;
  const ranges = parts.map((part) => part.split('-').map(Number));
  const starts = Uint32Array.from(ranges, ([from]) => from);
  const ends = Uint32Array.from(ranges, ([from, to = from]) => to);
  if (ends.some((end, i) => end < starts[i] || end > MOST)) return null;
  const order = Uint32Array.from(starts.keys()).sort((a, b) => starts[a] - starts[b]);
  return {
    list: () => [...ends].flatMap((end, i) => Array.from({ length: end - starts[i] + 1 }, (_, j) => starts[i] + j)),
    has: (number) => {
      let [low, high] = [0, order.length];
      while (low < high) {
        const middle = (low + high) >> 1;
        if (starts[order[middle]] <= number) low = middle + 1;
        else high = middle;
      }
      return low > 0 && number <= ends[order[low - 1]];
    },
  };
}
