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

const sentenceOf = ({ at }: ShownPlace) => at.before + at.anchor + at.after;

/** Whether a link of the same sentence is on some of the same words. */
function overlaps(place: ShownPlace, { anchor }: DraftEdit): boolean {
  const from = place.at.before.length;
  const start = sentenceOf(place).indexOf(anchor);
  return start >= 0 && start < from + place.at.anchor.length && start + anchor.length > from;
}

/** @param taken links of the draft */
export function placeRow(view: View, place: ShownPlace, taken: readonly DraftEdit[]) {
  const { source, target, at, score, shareGain, relatedness, phrase, others } = place;
  const from = source < view.count ? addressAt(view, source) : '';
  const ofSource = taken.filter((edit) => edit.source === from);
  const to = named(view, target);
  const beside = ofSource.filter((edit) => edit.target !== to.address && edit.value === sentenceOf(place).trim());
  return {
    ...at,
    links: at.links + beside.length,
    source: from,
    target: to,
    depth: from ? (factAt(view, 'depth', source) as number | null) : null,
    section: from ? (factAt(view, 'section', source) as string | null) : null,
    language: from ? (factAt(view, 'language', source) as string | null) : null,
    /** The edit of the draft that adds this link, and where the same words lead by another one. */
    taken: ofSource.find((edit) => edit.target === to.address)?.id ?? null,
    clash: beside.find((edit) => overlaps(place, edit))?.target ?? null,
    from: phrase.source,
    score,
    shareGain,
    relatedness,
    others: others.slice(0, MOST_OTHERS).map((page) => named(view, page)),
  };
}
export type PlaceRow = ReturnType<typeof placeRow>;
