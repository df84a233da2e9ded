/** Links that came and went between two crawls, folded into the edits that made them. */
import { CLICK_KIND, placements } from '../links';
import type { Placement } from '../links';
import { addressAt } from '../snapshot';
import type { Snapshot } from '../snapshot';
import type { AddressMap, PageChange } from './pages';

export interface LinkChange {
  change: 'added' | 'removed';
  source: string;
  target: string;
  anchor: string;
  placement: Placement;
  /** Equal for links with the same target, words and place in the page: one edit has made them. */
  edit: number;
}

/** Numbers that are the same for the same text, whichever crawl has it. */
function commonNumbers() {
  const numbers = new Map<string, number>();
  const texts: string[] = [];
  const of = (text: string) => {
    let number = numbers.get(text);
    if (number === undefined) {
      numbers.set(text, (number = texts.length));
      texts.push(text);
    }
    return number;
  };
  return { of, textOf: (number: number) => texts[number] };
}

/** The click links of a page, each as one text of numbers. */
function linkKeys(
  { links: { offsets, target, anchor, above, placement, kind } }: Snapshot,
  page: number,
  targets: Int32Array,
  words: Int32Array,
): string[] {
  const keys: string[] = [];
  for (let link = offsets[page]; link < offsets[page + 1]; link++)
    if (kind[link] === CLICK_KIND)
      keys.push(`${targets[target[link]]} ${words[anchor[link]]} ${placement[link]} ${words[above[link]]}`);
  return keys;
}

/**
 * Compares the click links of pages that were read in both crawls; those of other pages came and went with them.
 * @param pages as `comparePages` gives them
 */
export function compareLinks(
  old: Snapshot,
  fresh: Snapshot,
  pages: readonly PageChange[],
  map: AddressMap = (address) => address,
): LinkChange[] {
  const addresses = commonNumbers();
  const phrases = commonNumbers();
  const targetsOf = (snapshot: Snapshot) =>
    Int32Array.from({ length: snapshot.count + snapshot.outside.length }, (_, number) =>
      addresses.of(map(addressAt(snapshot, number))),
    );
  const wordsOf = (snapshot: Snapshot) => Int32Array.from(snapshot.phrases, phrases.of);
  const [oldTargets, freshTargets] = [targetsOf(old), targetsOf(fresh)];
  const [oldWords, freshWords] = [wordsOf(old), wordsOf(fresh)];
  const edits = new Map<string, number>();
  const changes: LinkChange[] = [];
  const tell = (change: LinkChange['change'], source: string, key: string) => {
    const [target, anchor, placement] = key.split(' ').map(Number);
    const name = `${change} ${key}`;
    if (!edits.has(name)) edits.set(name, edits.size + 1);
    changes.push({
      change,
      source,
      target: addresses.textOf(target),
      anchor: phrases.textOf(anchor),
      placement: placements[placement],
      edit: edits.get(name)!,
    });
  };
  for (const { address, old: a, fresh: b } of pages) {
    if (a < 0 || b < 0 || old.columns.html[a] !== 1 || fresh.columns.html[b] !== 1) continue;
    const counts = new Map<string, number>();
    const before = linkKeys(old, a, oldTargets, oldWords);
    const after = linkKeys(fresh, b, freshTargets, freshWords);
    if (before.length === after.length && before.every((key, i) => key === after[i])) continue;
    for (const key of before) counts.set(key, (counts.get(key) ?? 0) + 1);
    for (const key of after) counts.set(key, (counts.get(key) ?? 0) - 1);
    for (const [key, count] of counts)
      for (let n = Math.abs(count); n > 0; n--) tell(count > 0 ? 'removed' : 'added', address, key);
  }
  return changes;
}
