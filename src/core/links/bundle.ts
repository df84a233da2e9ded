import type { Link } from './link';
import { numbering } from './numbering';
import { packLinks } from './pack';

/** The links of one page, packed, beside the texts that they name: so they wait until the texts have their numbers. */
export interface LinkBundle {
  packed: Uint8Array;
  /** Targets, at the numbers by which the links name them. */
  addresses: string[];
  /** Anchors, rels, paths and fragments, likewise; the first is ''. */
  phrases: string[];
}

export function bundleLinks(links: readonly Link[]): LinkBundle {
  const addresses = numbering<string>();
  const phrases = numbering<string>();
  phrases.of('');
  // Most links have no rel and no fragment.
  const packed = packLinks(links, addresses.of, (text) => (text === '' ? 0 : phrases.of(text)));
  return { packed, addresses: [...addresses.numbers.keys()], phrases: [...phrases.numbers.keys()] };
}
