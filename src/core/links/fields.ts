/**
 * The one description of what is kept of a link: its packed form, its columns in a snapshot, and what an analysis reads
 * of links are made from it.
 */
import { linkElements, linkKinds, placements } from './link';

/**
 * What derivations and layers name as read or changed of links: where they lead, whether they are followed, what they
 * say, where on the page they are, and the fragments that they name.
 */
export const linkInputs = ['targets', 'follow', 'words', 'places', 'fragments'] as const;
export type LinkInput = (typeof linkInputs)[number];

interface LinkField {
  /** What its number stands for: an index of a list, an address, a phrase (0 is none), or just a number. */
  holds: 'choice' | 'address' | 'phrase' | 'number';
  values?: readonly string[];
  /** Bytes of a number in its column; `any` for as many as the largest of them needs. */
  width: 1 | 2 | 4 | 'any';
  input: LinkInput;
}

export const linkFields = {
  kind: { holds: 'choice', values: linkKinds, width: 1, input: 'targets' },
  element: { holds: 'choice', values: linkElements, width: 1, input: 'places' },
  placement: { holds: 'choice', values: placements, width: 1, input: 'places' },
  target: { holds: 'address', width: 4, input: 'targets' },
  anchor: { holds: 'phrase', width: 'any', input: 'words' },
  rel: { holds: 'phrase', width: 'any', input: 'follow' },
  above: { holds: 'phrase', width: 'any', input: 'places' },
  fragment: { holds: 'phrase', width: 'any', input: 'fragments' },
  line: { holds: 'number', width: 'any', input: 'places' },
  column: { holds: 'number', width: 'any', input: 'places' },
  /** Bits of what else was observed (BARE_IMAGE, RELATIVE, BESIDE, MISSING_FRAGMENT). */
  marks: { holds: 'number', width: 1, input: 'fragments' },
} as const satisfies Record<string, LinkField>;

export type LinkFieldName = keyof typeof linkFields;
export const linkFieldNames = Object.keys(linkFields) as LinkFieldName[];

type HoldingName<H extends LinkField['holds']> = {
  [N in LinkFieldName]: (typeof linkFields)[N]['holds'] extends H ? N : never;
}[LinkFieldName];
/** The fields that name phrases. */
export const phraseFields = linkFieldNames.filter(
  (name): name is HoldingName<'phrase'> => linkFields[name].holds === 'phrase',
);

/** A link as numbers, one a field. */
export type LinkNumbers = Record<LinkFieldName, number>;

export const noNumbers = () => Object.fromEntries(linkFieldNames.map((name) => [name, 0])) as LinkNumbers;
