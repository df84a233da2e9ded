/** Links that came and went between two crawls, folded into the edits that made them. */
import { groupEqual } from '../grouping';
import { CLICK_KIND } from '../links';
import { addressAt, keptOf } from '../snapshot';
import type { Comparison } from './pages';

/**
 * Targets and texts of the links of the old crawl, in the numbers of the new one; what only the old one has comes
 * after.
 */
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
  const targets = new Uint32Array(old.count + old.outside.length).map((_, number) => {
    if (number < old.count && sameAt[number] >= 0) return sameAt[number];
    const address = map(addressAt(old, number));
    return known.get(address) ?? (number < old.count ? undefined : pageAt(address)) ?? next++;
  });
  const words = new Map(fresh.phrases.map((phrase, i) => [phrase, i]));
  next = fresh.phrases.length;
  return { targets, phrases: new Uint32Array(old.phrases.length).map((_, i) => words.get(old.phrases[i]) ?? next++) };
}

/** Kept as long as the comparison. */
export const commonNumbersOf = keptOf(commonNumbers);

export interface LinkChanges {
  /** Links of the new crawl, and of the old one, in the order of their pages. */
  added: Uint32Array;
  removed: Uint32Array;
  /**
   * The edit of each: equal for links with the same target, words, placement and elements above that have come, or
   * gone, together.
   */
  editOfAdded: Uint32Array;
  editOfRemoved: Uint32Array;
  edits: number;
}

/** What tells a link from the others of its page, whichever crawl has it, and what stands above it. */
interface LinkReader {
  target: (link: number) => number;
  anchor: (link: number) => number;
  above: (link: number) => number;
  placement: (link: number) => number;
}

/** The columns are taken out first: they are looked up for every link of both crawls. */
function linkReaders(comparison: Comparison): { old: LinkReader; fresh: LinkReader } {
  const { targets, phrases } = commonNumbersOf(comparison);
  const { target, anchor, above, placement } = comparison.old.links;
  const now = comparison.fresh.links;
  const [targetNow, anchorNow, aboveNow, placementNow] = [now.target, now.anchor, now.above, now.placement];
  return {
    old: {
      target: (link) => targets[target[link]],
      anchor: (link) => phrases[anchor[link]],
      above: (link) => phrases[above[link]],
      placement: (link) => placement[link],
    },
    fresh: {
      target: (link) => targetNow[link],
      anchor: (link) => anchorNow[link],
      above: (link) => aboveNow[link],
      placement: (link) => placementNow[link],
    },
  };
}

const mixed = (a: number, b: number) => Math.imul(a ^ (b >>> 15), 0x9e3779b1) ^ Math.imul(b, 0x85ebca6b);

/** The next click link from a place on; `to` when there is none. */
function nextClick(kind: Uint8Array, from: number, to: number): number {
  let link = from;
  while (link < to && kind[link] !== CLICK_KIND) link++;
  return link;
}

/**
 * The click links of all pages between those that both crawls have at the beginning and at the end, page by page, and
 * where those of each page end: most pages are as they were, or differ in a few places.
 */
function differences({ old, fresh, before: pageBefore }: Comparison, { targets, phrases }: CommonNumbers) {
  const { offsets: oldOffsets, kind: oldKind, target, anchor, placement } = old.links;
  const { offsets: freshOffsets, kind: freshKind } = fresh.links;
  const { target: targetNow, anchor: anchorNow, placement: placementNow } = fresh.links;
  const before: number[] = [];
  const after: number[] = [];
  // Two lists of numbers: a pair for each of many pages would take more memory than the links.
  const ends = { before: [] as number[], after: [] as number[] };
  const equal = (then: number, now: number) =>
    targets[target[then]] === targetNow[now] &&
    phrases[anchor[then]] === anchorNow[now] &&
    placement[then] === placementNow[now];
  const [oldHtml, freshHtml] = [old.column('html'), fresh.column('html')];
  for (let page = 0; page < freshHtml.length; page++) {
    const earlier = pageBefore[page];
    if (earlier < 0 || oldHtml[earlier] !== 1 || freshHtml[page] !== 1) continue;
    let [from, to] = [oldOffsets[earlier], oldOffsets[earlier + 1]];
    let [start, end] = [freshOffsets[page], freshOffsets[page + 1]];
    const [beforeThis, afterThis] = [before.length, after.length];
    from = nextClick(oldKind, from, to);
    start = nextClick(freshKind, start, end);
    while (from < to && start < end) {
      const [from2, start2] = [nextClick(oldKind, from + 1, to), nextClick(freshKind, start + 1, end)];
      if (!equal(from, start)) {
        // One may have come, gone or been put in place of another: whatever equal links are paired, what is left is the
        // same.
        if (from2 < to && equal(from2, start)) {
          before.push(from);
          from = from2;
          continue;
        }
        if (start2 < end && equal(from, start2)) {
          after.push(start);
          start = start2;
          continue;
        }
        if (from2 === to || start2 === end || !equal(from2, start2)) break;
        before.push(from);
        after.push(start);
      }
      [from, start] = [from2, start2];
    }
    for (;;) {
      while (to > from && oldKind[to - 1] !== CLICK_KIND) to--;
      while (end > start && freshKind[end - 1] !== CLICK_KIND) end--;
      if (from === to || start === end || !equal(to - 1, end - 1)) break;
      to--;
      end--;
    }
    for (let link = from; link < to; link++) if (oldKind[link] === CLICK_KIND) before.push(link);
    for (let link = start; link < end; link++) if (freshKind[link] === CLICK_KIND) after.push(link);
    if (before.length === beforeThis && after.length === afterThis) continue;
    ends.before.push(before.length);
    ends.after.push(after.length);
  }
  return { before, after, ends };
}

/**
 * Compares the click links of pages that were read in both crawls; those of other pages came and went with them. A link
 * is the same while its target, words and placement are: another element around it is no change.
 */
export function compareLinks(comparison: Comparison): LinkChanges {
  const readers = linkReaders(comparison);
  const { before, after, ends } = differences(comparison, commonNumbersOf(comparison));
  const linkOf = (entry: number) => (entry < before.length ? before[entry] : after[entry - before.length]);
  const readerOf = (entry: number) => (entry < before.length ? readers.old : readers.fresh);
  const all = new Uint32Array(before.length + after.length).map((_, entry) => entry);
  const groups = groupEqual(
    all,
    (entry) => {
      const { target, anchor, placement } = readerOf(entry);
      const link = linkOf(entry);
      return mixed(mixed(target(link), anchor(link)), placement(link));
    },
    (x, y) => {
      const [a, b, i, j] = [readerOf(x), readerOf(y), linkOf(x), linkOf(y)];
      return a.target(i) === b.target(j) && a.anchor(i) === b.anchor(j) && a.placement(i) === b.placement(j);
    },
  );
  const balance = new Int32Array(groups.count);
  const editNumbers = new Map<number, number>();
  const texts = comparison.fresh.phrases.length + comparison.old.phrases.length;
  /** Links with other elements above them are of another template or block, which is another edit. */
  const editOf = (group: number, above: number, isAdded: boolean) => {
    const name = 2 * (group * texts + above) + Number(isAdded);
    let edit = editNumbers.get(name);
    if (edit === undefined) editNumbers.set(name, (edit = editNumbers.size));
    return edit;
  };
  const found = { added: [] as number[], removed: [] as number[], ofAdded: [] as number[], ofRemoved: [] as number[] };
  let [fromBefore, fromAfter] = [0, 0];
  for (let page = 0; page < ends.before.length; page++) {
    const [toBefore, toAfter] = [ends.before[page], ends.after[page]];
    // Of those that are equal as many as the other crawl lacks.
    for (let i = fromBefore; i < toBefore; i++) balance[groups.of[i]]++;
    for (let i = fromAfter; i < toAfter; i++) balance[groups.of[before.length + i]]--;
    for (let i = fromBefore; i < toBefore; i++) {
      const group = groups.of[i];
      if (balance[group] <= 0) continue;
      balance[group]--;
      found.removed.push(before[i]);
      found.ofRemoved.push(editOf(group, readers.old.above(before[i]), false));
    }
    for (let i = fromAfter; i < toAfter; i++) {
      const group = groups.of[before.length + i];
      if (balance[group] >= 0) continue;
      balance[group]++;
      found.added.push(after[i]);
      found.ofAdded.push(editOf(group, readers.fresh.above(after[i]), true));
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
export const linkChangesOf = keptOf(compareLinks);
