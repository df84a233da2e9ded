/**
 * Many patterns made one automaton, so that an address is read once, however many rules there are. Its states are sets of
 * places in patterns, made when they are first met (lazy determinisation, as in Aho, Sethi and Ullman, Compilers, 1986, §3.7).
 */

/** What stands at a place of a pattern besides the class of a character. */
const STAR = -1;
const END = -2;
/** All characters that no pattern has are of this class. */
const OTHER = 0;
/** Places that are held in all states together: then they are forgotten, and made again as they are met. */
const MAX_HELD = 8_000_000;

interface State {
  /** Places that may be next, ascending; the places of a pattern that wins over another come before those of that. */
  places: Int32Array;
  /** The best pattern that has matched already; −1 for none. */
  best: number;
  /** The best pattern when the text ends here. */
  atEnd: number;
  /** By the class of the next character. */
  next: (State | undefined)[];
}

/**
 * Compiles patterns (RFC 9309 §2.2.3): `*` is any run of characters, a `$` at the end is the end of the address.
 * @param patterns in the order in which they win
 * @returns for an address, read from a position on, the number of the first pattern that matches; −1 for none. A literal `*` or
 *   `$` of the address is compared as its escape
 */
export function compilePatterns(patterns: readonly string[]): (text: string, from: number) => number {
  const classOf = new Uint8Array(128);
  let classes = 1;
  const classFor = (char: string): number => {
    const code = char.charCodeAt(0);
    // Addresses in normal form and patterns have no others.
    if (code >= 128) return OTHER;
    return classOf[code] || (classOf[code] = classes++);
  };
  for (const char of '%2A4') classFor(char);
  const tokens: number[] = [];
  const starts: number[] = [];
  const isAnchored = patterns.map((pattern) => pattern.endsWith('$'));
  /** The pattern of each place. */
  const patternOf: number[] = [];
  patterns.forEach((pattern, number) => {
    starts.push(tokens.length);
    const body = isAnchored[number] ? pattern.slice(0, -1) : pattern;
    for (const char of body) {
      // A run of stars is one.
      if (char === '*' && tokens.length > starts[number] && tokens.at(-1) === STAR) continue;
      tokens.push(char === '*' ? STAR : classFor(char));
      patternOf.push(number);
    }
    tokens.push(END);
    patternOf.push(number);
  });

  /** By a hash of their places. */
  let states = new Map<number, State[]>();
  let held = 0;
  let start: State | null = null;
  /** When each place was last added to a set: places come once. */
  const added = new Uint32Array(tokens.length);
  let round = 0;
  const list = new Int32Array(tokens.length);

  const isSame = ({ best, places }: State, of: number, length: number) =>
    best === of && places.length === length && places.every((place, i) => place === list[i]);

  /** The state with these places, ascending, each with what follows it at once. */
  function stateOf(reached: Iterable<number>, before: number): State {
    let best = before;
    let length = 0;
    round++;
    for (const first of reached)
      for (let place = first; added[place] !== round; place++) {
        added[place] = round;
        list[length++] = place;
        if (tokens[place] === END && !isAnchored[patternOf[place]] && (best < 0 || patternOf[place] < best))
          best = patternOf[place];
        if (tokens[place] !== STAR) break;
      }
    // What has matched wins over all patterns behind it; they need not be followed.
    if (best >= 0) while (length > 0 && list[length - 1] >= starts[best]) length--;
    let hash = best + 1;
    for (let i = 0; i < length; i++) hash = Math.imul(hash ^ list[i], 0x01000193);
    const alike = states.get(hash) ?? [];
    const known = alike.find((state) => isSame(state, best, length));
    if (known) return known;
    const places = list.slice(0, length);
    let atEnd = best;
    for (const place of places)
      if (tokens[place] === END && (atEnd < 0 || patternOf[place] < atEnd)) atEnd = patternOf[place];
    const state: State = { places, best, atEnd, next: new Array<State | undefined>(classes) };
    held += length + classes;
    if (held > MAX_HELD) {
      states = new Map();
      held = length + classes;
      start = null;
    }
    states.set(hash, [...alike, state]);
    return state;
  }

  function step(state: State, read: number): State {
    const reached: number[] = [];
    for (const place of state.places) {
      const token = tokens[place];
      if (token === STAR) reached.push(place);
      else if (token === read && read !== OTHER) reached.push(place + 1);
    }
    return (state.next[read] = stateOf(reached, state.best));
  }

  const [percent, two, a, four] = [...'%2A4'].map(classFor);
  const escapes = new Map([
    ['*'.charCodeAt(0), [percent, two, a]],
    ['$'.charCodeAt(0), [percent, two, four]],
  ]);

  return (text, from) => {
    let state = (start ??= stateOf(starts, -1));
    for (let at = from; at < text.length && state.places.length > 0; at++) {
      const code = text.charCodeAt(at);
      const escape = code === 42 || code === 36 ? escapes.get(code)! : null;
      if (escape) {
        for (const read of escape) state = state.next[read] ?? step(state, read);
        continue;
      }
      const read = code < 128 ? classOf[code] : OTHER;
      state = state.next[read] ?? step(state, read);
    }
    return state.atEnd;
  };
}
