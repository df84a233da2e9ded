/** How a pattern of `matches` is written: what it means as a tree. */
import { selectionFault } from '../errors';

export type Range = [low: number, high: number];
export type Node =
  | { op: 'set'; ranges: Range[] }
  | { op: 'start' | 'end' | 'nothing' }
  | { op: 'row' | 'either'; parts: Node[] }
  | { op: 'repeat'; of: Node; least: number; most: number };

export const MAX_CHAR = 0xffff;
const MAX_REPEAT = 500;

const classes: Record<string, Range[]> = {
  d: [[48, 57]],
  w: [
    [48, 57],
    [97, 122],
    [65, 90],
    [95, 95],
  ],
  s: [
    [9, 13],
    [32, 32],
    [0xa0, 0xa0],
  ],
};

function inverse(ranges: readonly Range[]): Range[] {
  const sorted = [...ranges].sort((a, b) => a[0] - b[0]);
  const gaps: Range[] = [];
  let from = 0;
  for (const [low, high] of sorted) {
    if (low > from) gaps.push([from, low - 1]);
    from = Math.max(from, high + 1);
  }
  if (from <= MAX_CHAR) gaps.push([from, MAX_CHAR]);
  return gaps;
}

/** Reads a pattern. @throws selection with its place within the pattern */
export function parsePattern(pattern: string): Node {
  let at = 0;
  let depth = 0;
  const fail = (message: string, from = at): never => {
    throw selectionFault(message, from, 1);
  };
  const classOf = (char: string): Range[] | null => {
    const known = classes[char.toLowerCase()];
    return known ? (char === char.toLowerCase() ? known : inverse(known)) : null;
  };
  const single = (char: string): Range[] => [[char.charCodeAt(0), char.charCodeAt(0)]];
  const escaped = (): Range[] => {
    if (++at >= pattern.length) fail('A backslash stands before a character.', at - 1);
    const char = pattern[at++];
    if (/[a-z0-9]/i.test(char) && !classOf(char)) {
      const control = { n: '\n', t: '\t', r: '\r' }[char];
      return control ? single(control) : fail(`“\\${char}” has no meaning in a pattern.`, at - 1);
    }
    return classOf(char) ?? single(char);
  };
  const member = () => (pattern[at] === '\\' ? escaped() : single(pattern[at++]));
  const isSingle = (ranges: Range[]) => ranges.length === 1 && ranges[0][0] === ranges[0][1];
  const set = (): Node => {
    const opened = at++;
    const negated = pattern[at] === '^';
    if (negated) at++;
    const ranges: Range[] = [];
    for (let first = true; pattern[at] !== ']' || first; first = false) {
      if (at >= pattern.length) fail('This [ is not closed.', opened);
      const from = member();
      const mayRange = pattern[at] === '-' && at + 1 < pattern.length && pattern[at + 1] !== ']' && isSingle(from);
      if (!mayRange) {
        ranges.push(...from);
        continue;
      }
      at++;
      const to = member();
      // Beside a class a hyphen stands for itself.
      if (!isSingle(to)) ranges.push(...from, ...single('-'), ...to);
      else if (to[0][0] < from[0][0]) fail('This range goes backwards.', at - 1);
      else ranges.push([from[0][0], to[0][0]]);
    }
    at++;
    return { op: 'set', ranges: negated ? inverse(withBothCases(ranges)) : ranges };
  };
  const one = (): Node => {
    const char = pattern[at];
    if (char === '(') {
      const opened = at++;
      if (pattern.startsWith('?:', at)) at += 2;
      if (++depth > 100) fail('Brackets are nested too deep.', opened);
      const inner = either();
      depth--;
      if (pattern[at] !== ')') fail('This ( is not closed.', opened);
      at++;
      return inner;
    }
    if (char === '[') return set();
    if (char === '*' || char === '+' || char === '?' || char === '{') fail('There is nothing here to repeat.');
    if (char === '\\') return { op: 'set', ranges: escaped() };
    at++;
    if (char === '.') return { op: 'set', ranges: [[0, MAX_CHAR]] };
    if (char === '^') return { op: 'start' };
    if (char === '$') return { op: 'end' };
    return { op: 'set', ranges: single(char) };
  };
  const repeated = (): Node => {
    let of = one();
    for (;;) {
      const counted = /^\{(\d{1,4})(,(\d{0,4}))?\}/.exec(pattern.slice(at, at + 14));
      const sign = pattern[at];
      if (counted) {
        const least = Number(counted[1]);
        const most = counted[2] === undefined ? least : counted[3] ? Number(counted[3]) : Infinity;
        if (least > MAX_REPEAT || (most !== Infinity && most > MAX_REPEAT)) fail(`At most ${MAX_REPEAT} repeats.`);
        if (most < least) fail('These numbers stand the wrong way round.');
        of = { op: 'repeat', of, least, most };
        at += counted[0].length;
      } else if (sign === '*' || sign === '+' || sign === '?') {
        of = { op: 'repeat', of, least: sign === '+' ? 1 : 0, most: sign === '?' ? 1 : Infinity };
        at++;
      } else return of;
    }
  };
  const row = (): Node => {
    const parts: Node[] = [];
    while (at < pattern.length && pattern[at] !== '|' && pattern[at] !== ')') parts.push(repeated());
    return { op: 'row', parts };
  };
  const either = (): Node => {
    const parts = [row()];
    while (pattern[at] === '|') {
      at++;
      parts.push(row());
    }
    return parts.length === 1 ? parts[0] : { op: 'either', parts };
  };
  const node = either();
  if (at < pattern.length) fail('This ) closes nothing.');
  return node;
}

/** Ranges with the other case of every letter in them. Only letters of ASCII stand in ranges; others by themselves. */
export function withBothCases(ranges: readonly Range[]): Range[] {
  return ranges.flatMap(([low, high]): Range[] => {
    const all: Range[] = [[low, high]];
    const lower: Range = [Math.max(low, 65) + 32, Math.min(high, 90) + 32];
    const upper: Range = [Math.max(low, 97) - 32, Math.min(high, 122) - 32];
    if (lower[0] <= lower[1]) all.push(lower);
    if (upper[0] <= upper[1]) all.push(upper);
    if (low === high && low > 127) {
      const char = String.fromCharCode(low);
      for (const other of [char.toLowerCase(), char.toUpperCase()])
        if (other.length === 1) all.push([other.charCodeAt(0), other.charCodeAt(0)]);
    }
    return all;
  });
}
