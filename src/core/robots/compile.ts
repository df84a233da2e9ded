/**
 * Many patterns made one automaton, so that an address is read once, however many rules there are. Patterns that begin
 * alike share the nodes of a trie; the states of the automaton are sets of nodes, made when they are first met (lazy
 * determinisation, as in Aho, Sethi and Ullman, Compilers, 1986, §3.7).
 */

/** All characters that no pattern has are of this class. */
const OTHER = 0;
const MOST_CLASSES = 128;
/** Numbers that are held in all states together: then they are forgotten, and made again as they are met. */
const MAX_HELD = 8_000_000;
/** Nodes that are looked at for one address at most. */
const MAX_LOOKED_AT = 20_000;
const NONE = Infinity;

interface State {
  /** Nodes up to which patterns have been read, ascending. */
  nodes: Int32Array;
  /** The best pattern that has matched already. */
  best: number;
  /** The best pattern when the text ends here. */
  atEnd: number;
  /** By the class of the next character. */
  next: (State | undefined)[];
}

/** What the patterns have in common, from their beginnings on. */
function trieOf(patterns: readonly string[], classFor: (char: string) => number) {
  const children = new Map<number, number>();
  /** The child that is a run of any characters; 0 for none. */
  const star = [0];
  const isStar = [false];
  /** The best pattern that ends at a node, whatever follows, and the best that ends there with the text. */
  const ends = [NONE];
  const endsAnchored = [NONE];
  /** The best pattern that ends at a node or below it. */
  const bestBelow = [NONE];
  const add = (isRun: boolean) => {
    star.push(0);
    isStar.push(isRun);
    for (const of of [ends, endsAnchored, bestBelow]) of.push(NONE);
    return star.length - 1;
  };
  patterns.forEach((pattern, number) => {
    const isAnchored = pattern.endsWith('$');
    let node = 0;
    for (const char of isAnchored ? pattern.slice(0, -1) : pattern) {
      bestBelow[node] = Math.min(bestBelow[node], number);
      if (char === '*') {
        // A run of stars is one.
        if (!isStar[node]) node = star[node] ||= add(true);
        continue;
      }
      const key = node * MOST_CLASSES + classFor(char);
      let child = children.get(key);
      if (child === undefined) children.set(key, (child = add(false)));
      node = child;
    }
    const at = isAnchored ? endsAnchored : ends;
    at[node] = Math.min(at[node], number);
    bestBelow[node] = Math.min(bestBelow[node], number);
  });
  return { children, star, isStar, ends, endsAnchored, bestBelow };
}

/**
 * Compiles patterns (RFC 9309 §2.2.3): `*` is any run of characters, a `$` at the end is the end of the address.
 * @param patterns in the order in which they win
 * @returns for an address, read from a position on, the number of the first pattern that matches, −1 for none, and null
 *   where finding it takes more than a bounded number of steps. A literal `*` or `$` of the address is compared as its
 *   escape
 */
export function compilePatterns(patterns: readonly string[]): (text: string, from: number) => number | null {
  const classOf = new Uint8Array(128);
  let classes = 1;
  const classFor = (char: string): number => {
    const code = char.charCodeAt(0);
    // Addresses in normal form and patterns have no others.
    if (code >= classOf.length) return OTHER;
    return classOf[code] || (classOf[code] = classes++);
  };
  const [percent, two, a, four] = [...'%2A4'].map(classFor);
  const escapes = new Map([
    ['*'.charCodeAt(0), [percent, two, a]],
    ['$'.charCodeAt(0), [percent, two, four]],
  ]);
  const { children, star, isStar, ends, endsAnchored, bestBelow } = trieOf(patterns, classFor);

  /** By a hash of their nodes. */
  let states = new Map<number, State[]>();
  let held = 0;
  let start: State | null = null;
  let lookedAt = 0;
  /** When each node was last added to a set: nodes come once. */
  const added = new Uint32Array(star.length);
  let round = 0;

  /** The state with these nodes, and those that runs of no characters lead to. */
  function stateOf(reached: readonly number[], before: number): State {
    let best = before;
    const all: number[] = [];
    round++;
    for (const first of reached)
      for (const node of [first, star[first]]) {
        if (node === 0 && first !== 0) continue;
        if (added[node] === round) continue;
        added[node] = round;
        all.push(node);
        best = Math.min(best, ends[node]);
      }
    // What has matched wins over all patterns behind it; they need not be followed.
    const nodes = Int32Array.from(all.filter((node) => bestBelow[node] < best)).sort();
    let hash = best === NONE ? 0 : best + 1;
    for (const node of nodes) hash = Math.imul(hash ^ node, 0x01000193);
    const alike = states.get(hash) ?? [];
    const known = alike.find(
      (state) =>
        state.best === best && state.nodes.length === nodes.length && nodes.every((node, i) => node === state.nodes[i]),
    );
    if (known) return known;
    const atEnd = nodes.reduce((least, node) => Math.min(least, endsAnchored[node]), best);
    const state: State = { nodes, best, atEnd, next: new Array<State | undefined>(classes) };
    held += nodes.length + classes;
    if (held > MAX_HELD) {
      states = new Map();
      held = nodes.length + classes;
      start = null;
    }
    states.set(hash, [...alike, state]);
    return state;
  }

  function step(state: State, read: number): State {
    const reached: number[] = [];
    lookedAt += state.nodes.length;
    for (const node of state.nodes) {
      if (isStar[node]) reached.push(node);
      const child = read === OTHER ? undefined : children.get(node * MOST_CLASSES + read);
      if (child !== undefined) reached.push(child);
    }
    return (state.next[read] = stateOf(reached, state.best));
  }

  return (text, from) => {
    let state = (start ??= stateOf([0], NONE));
    lookedAt = 0;
    for (let at = from; at < text.length && state.nodes.length > 0; at++) {
      if (lookedAt > MAX_LOOKED_AT) return null;
      const code = text.charCodeAt(at);
      const escape = code === 42 || code === 36 ? escapes.get(code)! : null;
      if (escape) {
        for (const read of escape) state = state.next[read] ?? step(state, read);
        continue;
      }
      const read = code < classOf.length ? classOf[code] : OTHER;
      state = state.next[read] ?? step(state, read);
    }
    return state.atEnd === NONE ? -1 : state.atEnd;
  };
}
