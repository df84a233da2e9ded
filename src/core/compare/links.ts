/** Links that came and went between two crawls, folded into the edits that made them. */
import { groupEqual } from '../grouping';
import { CLICK_KIND } from '../links';
import { addressAt, memoOf } from '../snapshot';
import type { Snapshot } from '../snapshot';
import type { Comparison } from './pages';

/** Targets and texts of the links of the old crawl, in the numbers of the new one; what only the old one has comes after. */
export interface CommonNumbers {
  targets: Uint32Array;
  phrases: Uint32Array;
}

function commonNumbers({ old, fresh, map, sameAt }: Comparison): CommonNumbers {
  const known = new Map<string, number>();
  fresh.outside.forEach((address, i) => known.set(map(address), fresh.count + i));
  let pages: Map<string, number> | null = null;
  /** A page of the new crawl that the old one knew as an outside address, when its scope was another. */
  const pageAt = (address: string) => {
    pages ??= new Map(Array.from({ length: fresh.count }, (_, page) => [map(addressAt(fresh, page)), page]));
    return pages.get(address);
  };
  let next = fresh.count + fresh.outside.length;
  const targets = Uint32Array.from({ length: old.count + old.outside.length }, (_, number) => {
    if (number < old.count && sameAt[number] >= 0) return sameAt[number];
    const address = map(addressAt(old, number));
    return known.get(address) ?? (number < old.count ? undefined : pageAt(address)) ?? next++;
  });
  const words = new Map(fresh.phrases.map((phrase, i) => [phrase, i]));
  next = fresh.phrases.length;
  return { targets, phrases: Uint32Array.from(old.phrases, (phrase) => words.get(phrase) ?? next++) };
}

/** Kept as long as the comparison. */
export const commonNumbersOf = memoOf<CommonNumbers, Comparison>(commonNumbers);

export interface LinkChanges {
  /** Links of the new crawl, and of the old one, in the order of their pages. */
  added: Uint32Array;
  removed: Uint32Array;
  /** The edit of each: equal for links with the same target, words and place that have come, or gone, together. */
  editOfAdded: Uint32Array;
  editOfRemoved: Uint32Array;
  edits: number;
}

/** What tells a link from the others of its page, whichever crawl has it. */
interface LinkReader {
  target: (link: number) => number;
  anchor: (link: number) => number;
  above: (link: number) => number;
  placement: (link: number) => number;
}

function linkReaders(comparison: Comparison): { old: LinkReader; fresh: LinkReader } {
  const { targets, phrases } = commonNumbersOf(comparison);
  const [before, after] = [comparison.old.links, comparison.fresh.links];
  return {
    old: {
      target: (link) => targets[before.target[link]],
      anchor: (link) => phrases[before.anchor[link]],
      above: (link) => phrases[before.above[link]],
      placement: (link) => before.placement[link],
    },
    fresh: {
      target: (link) => after.target[link],
      anchor: (link) => after.anchor[link],
      above: (link) => after.above[link],
      placement: (link) => after.placement[link],
    },
  };
}

/** The click links of a page, without those at its beginning and end that both crawls have there. */
function betweenEqual(
  [before, after]: [Uint32Array, Uint32Array],
  equal: (was: number, is: number) => boolean,
): [Uint32Array, Uint32Array] {
  const most = Math.min(before.length, after.length);
  let head = 0;
  while (head < most && equal(before[head], after[head])) head++;
  let tail = 0;
  while (tail < most - head && equal(before[before.length - 1 - tail], after[after.length - 1 - tail])) tail++;
  return [before.subarray(head, before.length - tail), after.subarray(head, after.length - tail)];
}

const mixed = (a: number, b: number) => Math.imul(a ^ (b >>> 15), 0x9e3779b1) ^ Math.imul(b, 0x85ebca6b);

/** The links between what is equal, of all pages: those of the old crawl first, and where those of each page end. */
function differences(comparison: Comparison, { old, fresh }: ReturnType<typeof linkReaders>) {
  const { before: pageBefore } = comparison;
  const clicks = ({ links: { offsets, kind } }: Snapshot) => {
    let room = new Uint32Array(256);
    return (page: number): Uint32Array => {
      const [from, to] = [offsets[page], offsets[page + 1]];
      if (room.length < to - from) room = new Uint32Array(2 * (to - from));
      let n = 0;
      for (let link = from; link < to; link++) if (kind[link] === CLICK_KIND) room[n++] = link;
      return room.subarray(0, n);
    };
  };
  const [clicksBefore, clicksAfter] = [clicks(comparison.old), clicks(comparison.fresh)];
  const equal = (was: number, is: number) =>
    old.target(was) === fresh.target(is) &&
    old.anchor(was) === fresh.anchor(is) &&
    old.above(was) === fresh.above(is) &&
    old.placement(was) === fresh.placement(is);
  const before: number[] = [];
  const after: number[] = [];
  const ends: [before: number, after: number][] = [];
  for (let page = 0; page < comparison.fresh.count; page++) {
    const was = pageBefore[page];
    if (was < 0 || comparison.old.columns.html[was] !== 1 || comparison.fresh.columns.html[page] !== 1) continue;
    const [gone, come] = betweenEqual([clicksBefore(was), clicksAfter(page)], equal);
    if (gone.length + come.length === 0) continue;
    for (const link of gone) before.push(link);
    for (const link of come) after.push(link);
    ends.push([before.length, after.length]);
  }
  return { before, after, ends };
}

/** Compares the click links of pages that were read in both crawls; those of other pages came and went with them. */
export function compareLinks(comparison: Comparison): LinkChanges {
  const readers = linkReaders(comparison);
  const { before, after, ends } = differences(comparison, readers);
  const linkOf = (entry: number) => (entry < before.length ? before[entry] : after[entry - before.length]);
  const readerOf = (entry: number) => (entry < before.length ? readers.old : readers.fresh);
  const all = new Uint32Array(before.length + after.length).map((_, entry) => entry);
  const groups = groupEqual(
    all,
    (entry) => {
      const { target, anchor, above, placement } = readerOf(entry);
      const link = linkOf(entry);
      return mixed(mixed(target(link), anchor(link)), mixed(above(link), placement(link)));
    },
    (x, y) => {
      const [a, b, i, j] = [readerOf(x), readerOf(y), linkOf(x), linkOf(y)];
      return (
        a.target(i) === b.target(j) &&
        a.anchor(i) === b.anchor(j) &&
        a.above(i) === b.above(j) &&
        a.placement(i) === b.placement(j)
      );
    },
  );
  const balance = new Int32Array(groups.count);
  const editNumbers = new Map<number, number>();
  const editOf = (group: number, isAdded: boolean) => {
    const name = 2 * group + Number(isAdded);
    let edit = editNumbers.get(name);
    if (edit === undefined) editNumbers.set(name, (edit = editNumbers.size));
    return edit;
  };
  const found = { added: [] as number[], removed: [] as number[], ofAdded: [] as number[], ofRemoved: [] as number[] };
  let [fromBefore, fromAfter] = [0, 0];
  for (const [toBefore, toAfter] of ends) {
    // Of those that are equal as many as the other crawl lacks.
    for (let i = fromBefore; i < toBefore; i++) balance[groups.of[i]]++;
    for (let i = fromAfter; i < toAfter; i++) balance[groups.of[before.length + i]]--;
    for (let i = fromBefore; i < toBefore; i++) {
      const group = groups.of[i];
      if (balance[group] <= 0) continue;
      balance[group]--;
      found.removed.push(before[i]);
      found.ofRemoved.push(editOf(group, false));
    }
    for (let i = fromAfter; i < toAfter; i++) {
      const group = groups.of[before.length + i];
      if (balance[group] >= 0) continue;
      balance[group]++;
      found.added.push(after[i]);
      found.ofAdded.push(editOf(group, true));
    }
    [fromBefore, fromAfter] = [toBefore, toAfter];
  }
  return {
    added: Uint32Array.from(found.added),
    removed: Uint32Array.from(found.removed),
    editOfAdded: Uint32Array.from(found.ofAdded),
    editOfRemoved: Uint32Array.from(found.ofRemoved),
    edits: editNumbers.size,
  };
}

/** Kept as long as the comparison. */
export const linkChangesOf = memoOf<LinkChanges, Comparison>(compareLinks);
