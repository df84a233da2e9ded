/** How a robots.txt judges the known addresses of its host. */
import { parseRobots, rankedRules, ruleFinder } from '../robots';
import type { RankedRule } from '../robots';
import { addressAt } from '../snapshot';
import type { Snapshot } from '../snapshot';
import { originOf } from '../url';

/** The pages of a snapshot that a robots.txt holds for. */
export function pagesOfOrigin(snapshot: Snapshot, origin: string): Uint32Array {
  const pages: number[] = [];
  for (let page = 0; page < snapshot.count; page++)
    if (originOf(addressAt(snapshot, page)) === origin) pages.push(page);
  return Uint32Array.from(pages);
}

/** How a file judges some addresses. */
export interface Judged {
  /** Its rules for the crawler, in the order in which they win. */
  rules: readonly RankedRule[];
  /** The place of the rule that decides about each address; −1 where none matches. */
  deciding: Int32Array;
  rest?: Rest;
}

/**
 * What the rules that an edit leaves alone decide. Whoever writes a rule edits one line again and again, so this is kept from one
 * keystroke to the next.
 */
interface Rest {
  rules: readonly RankedRule[];
  find: (address: string) => number;
  /** As in {@link Judged}; filled when an address is asked for. */
  deciding: Int32Array;
}
const NOT_ASKED = -2;

/** An edit of so many new rules is judged anew. */
const MOST_ADDED = 16;

const keyOf = ({ allows, pattern }: RankedRule) => `${allows ? '+' : '-'}${pattern}`;
const areSame = (a: readonly RankedRule[], b: readonly RankedRule[]) =>
  a.length === b.length && a.every((rule, i) => keyOf(rule) === keyOf(b[i]));

/** What became of each earlier rule (−1: gone), and the places of those that are new; null when more than some are. */
function editOf(before: readonly RankedRule[], after: readonly RankedRule[]) {
  const places = new Map<string, number>();
  // Of equal rules the first decides.
  after.forEach((rule, place) => places.has(keyOf(rule)) || places.set(keyOf(rule), place));
  const moved = Int32Array.from(before, (rule) => places.get(keyOf(rule)) ?? -1);
  const known = new Set(before.map(keyOf));
  const added = [...places].flatMap(([key, place]) => (known.has(key) ? [] : [place]));
  // Rules of one length that changed places may decide for each other.
  let last = -1;
  for (const place of new Set(moved)) {
    if (place < 0) continue;
    if (place < last) return null;
    last = place;
  }
  return added.length > MOST_ADDED ? null : { moved, added };
}

/**
 * Judges addresses as a robots.txt tells one crawler.
 * @param addresses of one host, in their order
 * @param text the robots.txt; null where there is none, which opens everything
 * @param before how an earlier text of it judged the same addresses: then only what the edit touches is judged anew
 */
export function judge(addresses: readonly string[], text: string | null, token: string, before?: Judged): Judged {
  const rules = text === null ? [] : rankedRules(parseRobots(text), token);
  const edit = before && editOf(before.rules, rules);
  if (!edit) return { rules, deciding: Int32Array.from(addresses, ruleFinder(rules)) };
  const { moved, added } = edit;
  const isAdded = new Set(added);
  const left = rules.flatMap((_, place) => (isAdded.has(place) ? [] : [place]));
  const rest = restOf(
    left.map((place) => rules[place]),
    addresses.length,
    before.rest,
  );
  const deciding = new Int32Array(addresses.length);
  for (let i = 0; i < addresses.length; i++) {
    const earlier = before.deciding[i];
    deciding[i] = earlier < 0 ? -1 : moved[earlier];
    if (earlier < 0 || deciding[i] >= 0) continue;
    if (rest.deciding[i] === NOT_ASKED) rest.deciding[i] = rest.find(addresses[i]);
    deciding[i] = rest.deciding[i] < 0 ? -1 : left[rest.deciding[i]];
  }
  for (const place of added) {
    const find = ruleFinder([rules[place]]);
    const [from, to] = rangeOf(addresses, rules[place]);
    for (let i = from; i < to; i++)
      if ((deciding[i] < 0 || deciding[i] > place) && find(addresses[i]) === 0) deciding[i] = place;
  }
  return { rules, deciding, rest };
}

/**
 * Finds out beforehand what becomes of the addresses that one rule decides, for whoever is about to edit it.
 * @param line of the rule
 */
export function beforeEdit(addresses: readonly string[], judged: Judged, line: number): Judged {
  const place = judged.rules.findIndex(({ rule }) => rule.line === line);
  if (place < 0) return judged;
  const rest = restOf(judged.rules.toSpliced(place, 1), addresses.length, judged.rest);
  judged.deciding.forEach((deciding, i) => {
    if (deciding === place && rest.deciding[i] === NOT_ASKED) rest.deciding[i] = rest.find(addresses[i]);
  });
  return { ...judged, rest };
}

/** Where the addresses stand that a rule can match. */
function rangeOf(addresses: readonly string[], { prefix }: RankedRule): [from: number, to: number] {
  if (addresses.length === 0) return [0, 0];
  // Escapes in a rule may stand for a character of an address.
  const begins = originOf(addresses[0]) + prefix.replace(/%.*/, '');
  const first = (holds: (address: string) => boolean) => {
    let [low, high] = [0, addresses.length];
    while (low < high) {
      const middle = (low + high) >> 1;
      if (holds(addresses[middle])) high = middle;
      else low = middle + 1;
    }
    return low;
  };
  return [first((address) => address >= begins), first((address) => address > begins && !address.startsWith(begins))];
}

function restOf(rules: readonly RankedRule[], count: number, before: Rest | undefined): Rest {
  if (before && areSame(before.rules, rules)) return before;
  return { rules, find: ruleFinder(rules), deciding: new Int32Array(count).fill(NOT_ASKED) };
}

/** For each address the line of the rule that decides: below zero where it closes, above where it opens, 0 where none matches. */
export function decidingLines({ rules, deciding }: Judged): Int32Array {
  const lines = rules.map(({ allows, rule }) => (allows ? rule.line : -rule.line));
  return deciding.map((place) => (place < 0 ? 0 : lines[place]));
}

/** What an address became: positions in the list of addresses. */
export interface JudgedChange {
  closed: number[];
  opened: number[];
  /** How many were closed before and still are. */
  still: number;
}

/** Compares how two files judge the same addresses. */
export function compareJudged(before: Int32Array, after: Int32Array): JudgedChange {
  const change: JudgedChange = { closed: [], opened: [], still: 0 };
  for (let i = 0; i < before.length; i++) {
    if (before[i] >= 0 && after[i] < 0) change.closed.push(i);
    else if (before[i] < 0 && after[i] >= 0) change.opened.push(i);
    else if (before[i] < 0) change.still++;
  }
  return change;
}
