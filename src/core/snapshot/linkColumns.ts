/** The links of a site as columns, made from the description of link fields (src/core/links/fields.ts). */
import { linkFieldNames, linkFields } from '../links';
import type { LinkFieldName, LinkNumbers } from '../links';
import { widening, wholeNumbersAt } from './wholeNumbers';
import type { WholeNumbers } from './wholeNumbers';

interface ArrayOfWidth {
  1: Uint8Array;
  2: Uint16Array;
  4: Uint32Array;
  any: WholeNumbers;
}
/** One number a link and field, in the order of the links' sources and then of the document. */
export type LinkFieldColumns = { [N in LinkFieldName]: ArrayOfWidth[(typeof linkFields)[N]['width']] };

/**
 * The links of a site. `target` is a page number; `count` and above are entries of `outside`. Choices are indexes of
 * their lists; anchor, rel, above and fragment are indexes of `phrases`, 0 for none.
 */
export interface BaseLinks extends LinkFieldColumns {
  /** The links of page `i` are the entries `offsets[i]` to `offsets[i + 1] − 1`. */
  offsets: Uint32Array;
}

export interface LinkColumns extends BaseLinks {
  /** Bits of `linkFaults`; derived. */
  faults: Uint16Array;
}

/** Makes the column of each field. */
export const linkFieldColumns = (make: (name: LinkFieldName) => WholeNumbers) =>
  Object.fromEntries(linkFieldNames.map((name) => [name, make(name)])) as unknown as LinkFieldColumns;

const leastWidth = (name: LinkFieldName) => {
  const { width } = linkFields[name];
  return width === 'any' ? 1 : width;
};

/** Room for the numbers of some links, which are put down in any order. */
export function linkRoom(total: number) {
  const fields = linkFieldNames.map((name) => ({ name, ...widening(total, leastWidth(name)) }));
  return {
    put: (at: number, link: LinkNumbers): void => {
      for (const { name, put } of fields) put(at, link[name]);
    },
    columns: () => linkFieldColumns((name) => fields.find((field) => field.name === name)!.numbers()),
  };
}

/** The links that are kept, in their order. */
export function keepLinks({ offsets, ...columns }: BaseLinks, isKept: (link: number) => boolean): BaseLinks {
  const kept = columns.target.map((_, link) => Number(isKept(link)));
  const left = new Uint32Array(offsets.length);
  for (let page = 1; page < offsets.length; page++)
    left[page] = left[page - 1] + kept.subarray(offsets[page - 1], offsets[page]).reduce((sum, one) => sum + one, 0);
  return { offsets: left, ...linkFieldColumns((name) => columns[name].filter((_, link) => kept[link] === 1)) };
}

/** The column of a field as it lies in memory. @param links how many there are */
export function linkFieldAt(name: LinkFieldName, buffer: ArrayBuffer, from: number, bytes: number, links: number) {
  const { width } = linkFields[name];
  return wholeNumbersAt(buffer, from, width === 'any' ? bytes : width * links, links);
}
