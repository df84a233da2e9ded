/** Places for links, as a screen is given them. */
import type { DraftEdit } from '../draft';
import { addressAt, factAt } from '../snapshot';
import type { View } from '../view';
import type { FoundPlace } from './places';
import type { Place } from './show';

/** A place with its words in the source. */
export interface ShownPlace extends FoundPlace {
  at: Place;
}

/** Other pages that the same words could mean, which are named. */
const MOST_OTHERS = 5;

const named = (view: View, page: number) => ({
  address: addressAt(view, page),
  title: factAt(view, 'title', page) as string | null,
});

/** What the screen needs to know of links that are taken already. */
export const takenLinks = (edits: readonly DraftEdit[]): DraftEdit[] =>
  edits.filter(({ op, on }) => op === 'add_link' && on);

/** A link to another page on some of the same words of the same sentence. */
function clashOf({ at }: ShownPlace, target: string, taken: readonly DraftEdit[]): string | null {
  const sentence = at.before + at.anchor + at.after;
  const from = at.before.length;
  const overlaps = ({ value, anchor }: DraftEdit) => {
    const start = value === sentence.trim() ? sentence.indexOf(anchor) : -1;
    return start >= 0 && start < from + at.anchor.length && start + anchor.length > from;
  };
  return taken.find((edit) => edit.target !== target && overlaps(edit))?.target ?? null;
}

/** @param taken links of the draft */
export function placeRow(view: View, place: ShownPlace, taken: readonly DraftEdit[]) {
  const { source, target, at, score, shareGain, relatedness, phrase, others } = place;
  const from = source < view.count ? addressAt(view, source) : '';
  const ofSource = taken.filter((edit) => edit.source === from);
  const to = named(view, target);
  return {
    ...at,
    source: from,
    target: to,
    depth: from ? (factAt(view, 'depth', source) as number | null) : null,
    section: from ? (factAt(view, 'section', source) as string | null) : null,
    language: from ? (factAt(view, 'language', source) as string | null) : null,
    /** The edit of the draft that adds this link, and where the same words lead by another one. */
    taken: ofSource.find((edit) => edit.target === to.address)?.id ?? null,
    clash: clashOf(place, to.address, ofSource),
    from: phrase.source,
    score,
    shareGain,
    relatedness,
    others: others.slice(0, MOST_OTHERS).map((page) => named(view, page)),
  };
}
export type PlaceRow = ReturnType<typeof placeRow>;
