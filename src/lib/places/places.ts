/** Places for links, as they are worked with: their words, and how they are narrowed down. */
import type { PlaceRow } from '$core/places';
import type { Range } from './range';

/** A place as it comes: a row of a screen. */
export const keyOf = ({ source, target, line, column }: PlaceRow) => `${source} ${target.address} ${line}:${column}`;
export const sentenceOf = ({ before, anchor, after }: PlaceRow) => before + anchor + after;
/** The words that are proposed. */
export const proposed = ({ before, anchor }: PlaceRow): Range => [before.length, before.length + anchor.length];
/** How far words may be widened. */
export const roomOf = ({ before, anchor, room }: PlaceRow): Range => [
  before.length - room[0],
  before.length + anchor.length + room[1],
];

/** What narrows places down; '' for any. */
export interface Narrowing {
  section: string;
  language: string;
  /** Of the two pages, at least. */
  likeness: number;
  contains: string;
}

export const narrowedTo = (
  places: readonly PlaceRow[],
  { section, language, likeness, contains }: Narrowing,
): PlaceRow[] =>
  places.filter(
    (one) =>
      (section === '' || one.section === section) &&
      (language === '' || one.language === language) &&
      one.relatedness >= likeness &&
      `${one.source} ${one.target.address} ${sentenceOf(one)}`.toLowerCase().includes(contains.toLowerCase()),
  );

/** The different values of places that there are, in order. */
export const valuesOf = (places: readonly PlaceRow[], of: 'section' | 'language'): string[] =>
  [...new Set(places.map((one) => one[of] ?? ''))].filter((value) => value !== '').sort();
