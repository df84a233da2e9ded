/**
 * Regular expressions for `matches`, in time linear in the text whatever the pattern: no way back is ever taken
 * (Thompson, "Regular expression search algorithm", 1968; the states met are kept as a table, so that a character costs
 * one step). Characters, `.`, classes `[a-z]` `[^…]` `\d` `\w` `\s`, groups, `|`, `*` `+` `?` `{m,n}`, `^` and `$`.
 * Case is not regarded. The pattern may match anywhere in the text.
 */
import { MAX_COMMON } from '../snapshot/column';
import type { JoinedTexts } from '../snapshot/column';
import { selectionFault } from '../errors';

type Range = [low: number, high: number];
type Node =
  | { op: 'set'; ranges: Range[] }
  | { op: 'start' | 'end' | 'nothing' }
  | { op: 'row' | 'either'; parts: Node[] }
  | { op: 'repeat'; of: Node; least: number; most: number };

const MAX_CHAR = 0xffff;
const MAX_STATES = 2000;
/** Parts of a pattern, those that are repeated each time. */
const MAX_PARTS = 20_000;
const MAX_REPEAT = 500;
/** States that are looked at, at most, beyond the steps in the table: about a second of work. */
const MAX_VISITS = 20_000_000;
const tooMuchWork =
  'This pattern takes too much work on these texts. Write it with fewer repetitions or alternatives, or search a part with “has” first.';
/** Rows of the table that are kept. */
const MAX_ROWS = 1000;

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
function parse(pattern: string): Node {
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
function withBothCases(ranges: readonly Range[]): Range[] {
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

/** States of the machine: one that takes a character, one that splits, ones that ask for an end of the text, the last. */
type State =
  | { op: 'take'; ranges: Range[]; next: number }
  | { op: 'split'; next: number[] }
  | { op: 'start' | 'end'; next: number }
  | { op: 'match' };

function compile(node: Node): { states: State[]; first: number } {
  const states: State[] = [{ op: 'match' }];
  const add = (state: State): number => {
    if (states.length >= MAX_STATES) throw selectionFault('This pattern is too large.', 0, 1);
    return states.push(state) - 1;
  };
  let built = 0;
  const build = (node: Node, next: number): number => {
    // A part that takes no character adds no state, however often it is repeated.
    if (++built > MAX_PARTS) throw selectionFault('This pattern is too large.', 0, 1);
    switch (node.op) {
      case 'set':
        return add({ op: 'take', ranges: withBothCases(node.ranges), next });
      case 'start':
      case 'end':
        return add({ op: node.op, next });
      case 'nothing':
        return next;
      case 'row':
        return node.parts.reduceRight((after, part) => build(part, after), next);
      case 'either':
        return add({ op: 'split', next: node.parts.map((part) => build(part, next)) });
      case 'repeat': {
        let after = next;
        if (node.most === Infinity) {
          const loop = add({ op: 'split', next: [next] });
          (states[loop] as { next: number[] }).next.push(build(node.of, loop));
          after = loop;
        } else
          for (let i = node.least; i < node.most; i++)
            after = add({ op: 'split', next: [build(node.of, after), next] });
        for (let i = 0; i < node.least; i++) after = build(node.of, after);
        return after;
      }
    }
  };
  return { first: build(node, 0), states };
}

/** A pattern made ready. */
export interface Matcher {
  test: (text: string) => boolean;
  /**
   * Tests texts that ascend, of which each begins like the one before it for `common` characters: what they share is
   * looked at once. The first entry is left out.
   * @returns 1 for each that matches
   */
  testAll: (texts: JoinedTexts, common: Uint8Array) => Uint8Array;
}

/**
 * Makes a pattern ready.
 * @throws selection with the place of what cannot be read, in characters of the pattern; its functions, when they take too much work
 */
export function patternMatcher(pattern: string): Matcher {
  const { states, first } = compile(parse(pattern));
  // Characters that no set tells apart are one class; a row of the table has one entry a class.
  const bounds = new Set<number>([0]);
  for (const state of states)
    if (state.op === 'take') for (const [low, high] of state.ranges) bounds.add(low).add(high + 1);
  const starts = [...bounds].filter((bound) => bound <= MAX_CHAR).sort((a, b) => a - b);
  const classOf = new Uint16Array(MAX_CHAR + 1);
  starts.forEach((from, i) => classOf.fill(i, from, starts[i + 1] ?? MAX_CHAR + 1));
  const width = starts.length;

  const UNKNOWN = -1;
  const MATCHED = -2;
  // One row a set of states, one entry a class of characters: the row that follows.
  const table = new Int32Array(MAX_ROWS * width).fill(UNKNOWN);
  const atEnd = new Uint8Array(MAX_ROWS);
  const known = new Map<string, number>();
  const sets: number[][] = [];

  let visits = 0;
  const visit = () => {
    if (++visits > MAX_VISITS) throw selectionFault(tooMuchWork, 0, pattern.length);
  };
  /** The round in which a state was last met. */
  const met = new Uint32Array(states.length);
  let round = 0;

  /** Adds a state to a set, and everything that is reached from it without a character. */
  const reach = (set: number[], from: number, isStart: boolean, isEnd: boolean): void => {
    const open = [from];
    while (open.length) {
      const at = open.pop()!;
      if (met[at] === round) continue;
      met[at] = round;
      visit();
      const state = states[at];
      if (state.op === 'split') open.push(...state.next);
      else if (state.op === 'start' ? isStart : state.op === 'end' && isEnd)
        open.push((state as { next: number }).next);
      // Whether the text ends here is found out later.
      else if (state.op !== 'start') set.push(at);
    }
  };
  const closure = (from: readonly number[], isStart: boolean, isEnd: boolean): number[] => {
    round++;
    const set: number[] = [];
    for (const at of from) reach(set, at, isStart, isEnd);
    return set;
  };
  const ends = states.flatMap((state, at) => (state.op === 'end' ? [at] : []));
  /** Whether a set matches where the text ends. */
  const matchesAtEnd = (set: readonly number[]) =>
    set.includes(0) || (ends.length > 0 && closure(set, false, true).includes(0));
  const rowOf = (written: number[]): number => {
    if (written.includes(0)) return MATCHED;
    const set = written.sort((a, b) => a - b);
    const key = set.join();
    let row = known.get(key);
    if (row === undefined) {
      row = sets.push(set) - 1;
      atEnd[row] = Number(matchesAtEnd(set));
      known.set(key, row);
    }
    return row;
  };
  /** The states that follow some states by a character; the pattern may also begin behind it. */
  const after = (set: readonly number[], char: number): number[] => {
    round++;
    const next: number[] = [];
    for (const at of set) {
      visit();
      const state = states[at];
      if (state.op === 'take' && state.ranges.some(([low, high]) => char >= low && char <= high))
        reach(next, state.next, false, false);
    }
    reach(next, first, false, false);
    return next;
  };
  const begin = closure([first], true, false);
  const empty = closure([first], true, true).includes(0);
  rowOf(begin);
  const beginning = begin.includes(0) ? MATCHED : 0;

  /** The row that follows by a character; UNKNOWN when no more rows are kept. */
  const follow = (row: number, char: number): number => {
    const entry = row * width + classOf[char];
    if (table[entry] === UNKNOWN && sets.length < MAX_ROWS - 1) table[entry] = rowOf(after(sets[row], char));
    return table[entry];
  };

  const test = (text: string): boolean => {
    if (text === '') return empty;
    let row = beginning;
    for (let i = 0; i < text.length && row !== MATCHED; i++) {
      const next = table[row * width + classOf[text.charCodeAt(i)]];
      row = next === UNKNOWN ? follow(row, text.charCodeAt(i)) : next;
      if (row === UNKNOWN) return slowly(text);
    }
    return row === MATCHED || atEnd[row] === 1;
  };

  const testAll = ({ text, starts }: JoinedTexts, common: Uint8Array): Uint8Array => {
    const passes = new Uint8Array(starts.length - 1);
    /** The rows behind the first characters of the text before, as far as they are known. */
    const rows = new Int32Array(MAX_COMMON + 1);
    rows[0] = beginning;
    let known = 0;
    for (let at = 1; at < passes.length; at++) {
      const start = starts[at];
      const length = starts[at + 1] - start;
      let i = Math.min(common[at], known);
      let row = rows[i];
      while (row !== MATCHED && i < length) {
        const char = text.charCodeAt(start + i);
        const next = table[row * width + classOf[char]];
        const following = next === UNKNOWN ? follow(row, char) : next;
        if (following === UNKNOWN) break;
        row = following;
        if (++i <= MAX_COMMON) rows[i] = row;
      }
      known = Math.min(i, MAX_COMMON);
      if (length === 0) passes[at] = Number(empty);
      else if (row === MATCHED) passes[at] = 1;
      else passes[at] = i === length ? atEnd[row] : Number(slowly(text.slice(start, start + length)));
    }
    return passes;
  };
  return { test, testAll };

  function slowly(text: string): boolean {
    let set = begin;
    for (let i = 0; i < text.length && !set.includes(0); i++) set = after(set, text.charCodeAt(i));
    return matchesAtEnd(set);
  }
}
