import type { Link } from './link';
import { packLinks } from './pack';

/** The links of one page, packed, beside the texts that they name: so they wait until the texts have their numbers. */
export interface LinkBundle {
  packed: Uint8Array;
  /** Targets, at the numbers by which the links name them. */
  addresses: string[];
  /** Anchors, rels, paths and fragments, likewise; the first is ''. */
  phrases: string[];
}

/** Gives texts numbers in the order in which they are first asked for, beside those that have one. */
function numbering(texts: string[]) {
  const numbers = new Map(texts.map((text, i) => [text, i]));
  return (text: string): number => {
    let number = numbers.get(text);
    if (number === undefined) numbers.set(text, (number = texts.push(text) - 1));
    return number;
  };
}

export function bundleLinks(links: readonly Link[]): LinkBundle {
  const addresses: string[] = [];
  const phrases = [''];
  const numberOf = numbering(phrases);
  // Most links have no rel and no fragment.
  const phrase = (text: string) => (text === '' ? 0 : numberOf(text));
  return { packed: packLinks(links, numbering(addresses), phrase), addresses, phrases };
}
