/** Links that come from one template or block, so that one edit mends them all (docs/MEANINGS.md, "Anchors"). */
import { groupEqual } from '../grouping';
import type { Groups } from '../grouping';
import type { Base } from '../snapshot';

const mixed = (a: number, b: number) => Math.imul(a ^ (b >>> 15), 0x9e3779b1) ^ Math.imul(b, 0x85ebca6b);

/**
 * Groups links by the edit that mends them: the same target, words, place in the page and kind.
 * @param chosen numbers of links
 */
export function groupByEdit({ links }: Pick<Base, 'links'>, chosen: ArrayLike<number>): Groups {
  const { target, anchor, above, placement, kind } = links;
  return groupEqual(
    chosen,
    // What is above ends in the landmark the link stands in, but for those given by a role.
    (link) => mixed(mixed(target[link], anchor[link]), mixed(above[link], placement[link] * 16 + kind[link])),
    (a, b) =>
      target[a] === target[b] &&
      anchor[a] === anchor[b] &&
      above[a] === above[b] &&
      placement[a] === placement[b] &&
      kind[a] === kind[b],
  );
}

/** Groups links by their words and target. */
export const groupByAnchor = ({ links: { target, anchor } }: Pick<Base, 'links'>, chosen: ArrayLike<number>): Groups =>
  groupEqual(
    chosen,
    (link) => mixed(target[link], anchor[link]),
    (a, b) => target[a] === target[b] && anchor[a] === anchor[b],
  );
