/** The same words for different pages. */
import { INDEXABLE } from '../facts';
import { BESIDE, isContentPlacement } from '../links';
import { COMPARED, PHRASE_SHIFT } from './clicks';
import type { Clicks } from './clicks';
import type { FaultBase } from './faultBase';
import type { Words } from './phrases';

/**
 * Makes the test whether the words of a link must tell its target from others: it stands in the content of its page
 * with no words beside it, leads to another page as a whole, and to one that may be indexed. A page below the one that
 * the link is on is named by where the link stands.
 */
export function comparedTest({ links, column }: FaultBase, words: Words, finalTargets: Int32Array) {
  // Read once each: a lookup for each of many millions of links takes longer than the work. What is looked up by target
  // is a byte, as targets lie all over memory.
  const { fragment, placement, marks, above, anchor, target: targets } = links;
  const path = column('path');
  const verdict = column('verdict');
  const host = column('host');
  const isFolder = new Uint8Array(path.values.length).map((_, code) =>
    Number(path.values[code].length > 1 && path.values[code].endsWith('/')),
  );
  const pagesOfPath = new Uint32Array(path.values.length);
  for (const code of path.codes) pagesOfPath[code]++;
  const leadsToIndexable = new Uint8Array(finalTargets.length).map((_, page) =>
    Number(verdict[finalTargets[page] >= 0 ? finalTargets[page] : page] === INDEXABLE),
  );
  const isBelow = (page: number, target: number) => {
    const own = path.codes[page];
    // Most paths are no folder, and those of one page each.
    if (isFolder[own] === 0 && pagesOfPath[own] === 1) return false;
    const other = path.codes[target];
    if (host.codes[page] !== host.codes[target]) return false;
    return own === other || (isFolder[own] === 1 && path.values[other].startsWith(path.values[own]));
  };
  return (page: number, link: number): boolean => {
    if (fragment[link] !== 0 || !isContentPlacement[placement[link]] || marks[link] & BESIDE) return false;
    if (words.numbers[anchor[link]] < 0 || words.apart[above[link]]) return false;
    const target = targets[link];
    return leadsToIndexable[target] === 1 && !isBelow(page, target);
  };
}

/**
 * Numbers the contents of pages: pages whose redirects and canonicals end alike, or that are equal, have one number.
 */
function contentsOf({ column }: FaultBase, finalTargets: Int32Array): (page: number) => number {
  const { codes, values } = column('content_hash');
  return (page) => {
    const end = finalTargets[page] >= 0 ? finalTargets[page] : page;
    return codes[end] > 0 ? codes[end] : values.length + end;
  };
}

const NOTHING = -1;
const SEVERAL = -2;
/**
 * A page to which this part of the links with some words lead is what they stand for; only the others are a conflict.
 */
const MEANT_PART = 0.8;
/** Words that lead to so many pages, each from about one place, stand for something that each page has of its own. */
const OWN_TARGETS = 5;
const OWN_PART = 0.5;

/** Whether words lead to several pages, and not nearly always to the one to which they lead so many times. */
export type ConflictTest = (words: number, times: number) => boolean;

/**
 * Finds the words that lead to several pages. Hosts, and languages, are compared apart: each has its “Contact”. Words
 * that lead from many pages to a page each, such as “List of all members”, are none of them.
 */
export function conflictTest(base: FaultBase, words: Words, clicks: Clicks, finalTargets: Int32Array): ConflictTest {
  const { offsets, entries } = clicks;
  const host = base.column('host');
  const language = base.column('language');
  const content = contentsOf(base, finalTargets);
  const leadsTo = new Int32Array(words.count).fill(NOTHING);
  const used = new Uint32Array(words.count);
  const targets = new Uint32Array(words.count);
  const last = new Int32Array(words.count).fill(NOTHING);
  const differ = (a: number, b: number) =>
    content(a) !== content(b) && host.codes[a] === host.codes[b] && language.codes[a] === language.codes[b];
  for (let page = 0; page < base.count; page++)
    for (let i = offsets[page]; i < offsets[page + 1]; i++) {
      if (!(entries[i] & COMPARED)) continue;
      const number = words.numbers[entries[i] >>> PHRASE_SHIFT];
      if (number < 0) continue;
      used[number]++;
      if (last[number] === page) continue;
      last[number] = page;
      targets[number]++;
      if (leadsTo[number] === NOTHING) leadsTo[number] = page;
      else if (leadsTo[number] !== SEVERAL && differ(leadsTo[number], page)) leadsTo[number] = SEVERAL;
    }
  const isOwn = (number: number) => targets[number] >= OWN_TARGETS && targets[number] > OWN_PART * used[number];
  return (number, times) =>
    times > 0 && leadsTo[number] === SEVERAL && !isOwn(number) && times < MEANT_PART * used[number];
}
