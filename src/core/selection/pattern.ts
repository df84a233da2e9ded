/**
 * Regular expressions for `matches`, in time linear in the text whatever the pattern: no way back is ever taken
 * (Thompson, "Regular expression search algorithm", 1968; the states met are kept as a table, so that a character costs
 * one step). Characters, `.`, classes `[a-z]` `[^…]` `\d` `\w` `\s`, groups, `|`, `*` `+` `?` `{m,n}`, `^` and `$`.
 * Case is not regarded. The pattern may match anywhere in the text.
 */
import { MAX_COMMON } from '../snapshot/column';
import type { JoinedTexts } from '../snapshot/column';
import { selectionFault } from '../errors';
import { statesOf } from './patternStates';
import { MAX_CHAR, parsePattern } from './patternSyntax';

/** States that are looked at, at most, beyond the steps in the table: about a second of work. */
const MAX_VISITS = 20_000_000;
const tooMuchWork =
  'This pattern takes too much work on these texts. Write it with fewer repetitions or alternatives, or search a part with “has” first.';
/** Rows of the table that are kept. */
const MAX_ROWS = 1000;

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
 * @throws selection with the place of what cannot be read, in characters of the pattern; its functions, when they take
 *   too much work
 */
export function patternMatcher(pattern: string): Matcher {
  const { states, first } = statesOf(parsePattern(pattern));
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
