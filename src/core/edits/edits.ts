/** Links that come from one template or block, so that one edit mends them all (docs/MEANINGS.md, "Anchors"). */
import type { Snapshot } from '../snapshot';
import { groupEqual } from './group';
import type { Groups } from './group';

const mixed = (a: number, b: number) => Math.imul(a ^ (b >>> 15), 0x9e3779b1) ^ Math.imul(b, 0x85ebca6b);

/**
 * Groups links by the edit that mends them: the same target, words, place in the page and kind.
 * @param chosen numbers of links
 */
export function groupByEdit({ links }: Snapshot, chosen: ArrayLike<number>): Groups {
  const { target, anchor, path, landmark, kind } = links;
  return groupEqual(
    chosen,
    // The path ends in the landmark the link stands in, but for those given by a role.
    (link) => mixed(mixed(target[link], anchor[link]), mixed(path[link], landmark[link] * 16 + kind[link])),
    (a, b) =>
      target[a] === target[b] &&
      anchor[a] === anchor[b] &&
      path[a] === path[b] &&
      landmark[a] === landmark[b] &&
      kind[a] === kind[b],
  );
}

/** Groups links by their words and target. */
export const groupByAnchor = ({ links: { target, anchor } }: Snapshot, chosen: ArrayLike<number>): Groups =>
  groupEqual(
    chosen,
    (link) => mixed(target[link], anchor[link]),
    (a, b) => target[a] === target[b] && anchor[a] === anchor[b],
  );
