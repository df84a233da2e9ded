/** Which labels stand where, so that none lies over another. */

export interface Labelled {
  /** The middle of what is labelled, and how far it reaches. */
  x: number;
  y: number;
  radius: number;
  /** Of the text. */
  width: number;
  height: number;
  /** Whether the text stands in the middle of what it names, instead of beside it. */
  isCentred?: boolean;
}

export interface Label {
  /** Which of the labelled it belongs to. */
  of: number;
  /** Its upper left corner. */
  x: number;
  y: number;
}

interface Rectangle {
  x: number;
  y: number;
  width: number;
  height: number;
}

const GAP = 3;
/** Rectangles are looked for by squares of this size. */
const SQUARE = 96;

/**
 * Chooses labels, the first of the labelled before those after them.
 * @param most how many at the most
 * @returns those that have room within the paper, at the right, left, top or foot of what they belong to
 */
export function placeLabels(labelled: readonly Labelled[], paper: { width: number; height: number }, most: number) {
  const squares = new Map<string, Rectangle[]>();
  const squaresOf = ({ x, y, width, height }: Rectangle): string[] => {
    const keys: string[] = [];
    for (let column = Math.floor(x / SQUARE); column <= Math.floor((x + width) / SQUARE); column++)
      for (let row = Math.floor(y / SQUARE); row <= Math.floor((y + height) / SQUARE); row++)
        keys.push(`${column} ${row}`);
    return keys;
  };
  const isOver = (a: Rectangle, b: Rectangle) =>
    a.x < b.x + b.width && b.x < a.x + a.width && a.y < b.y + b.height && b.y < a.y + a.height;
  const isFree = (tried: Rectangle) =>
    tried.x >= 0 &&
    tried.y >= 0 &&
    tried.x + tried.width <= paper.width &&
    tried.y + tried.height <= paper.height &&
    squaresOf(tried).every((key) => squares.get(key)?.every((taken) => !isOver(tried, taken)) ?? true);
  const placed: Label[] = [];
  for (let of = 0; of < labelled.length && placed.length < most; of++) {
    const { x, y, radius, width, height, isCentred } = labelled[of];
    const free = [
      ...(isCentred ? [[x - width / 2, y - height / 2]] : []),
      [x + radius + GAP, y - height / 2],
      [x - radius - GAP - width, y - height / 2],
      [x - width / 2, y - radius - GAP - height],
      [x - width / 2, y + radius + GAP],
    ]
      .map(([left, top]): Rectangle => ({ x: left, y: top, width, height }))
      .find(isFree);
    if (!free) continue;
    placed.push({ of, x: free.x, y: free.y });
    for (const key of squaresOf(free)) squares.set(key, [...(squares.get(key) ?? []), free]);
  }
  return placed;
}
