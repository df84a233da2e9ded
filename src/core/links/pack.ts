import { noNumbers, phraseFields } from './fields';
import type { LinkNumbers } from './fields';
import { placements, linkElements, linkKinds } from './link';
import type { LinkOf } from './link';

const VERSION = 3;
const FIELDS = 7;
/** Bits of the byte that holds the landmark. */
const ASCENDING = 1;
const PLACEMENT = 14;
const HAS_FRAGMENT = 128;
/** Three more bits of that byte, as they are handed over. */
export const BARE_IMAGE = 16;
export const RELATIVE = 32;
/** Its block has other words. */
export const BESIDE = 64;
const MARKS = BARE_IMAGE | RELATIVE | BESIDE;
/** Set when a base is laid out, and never packed: the fragment names nothing on the target. */
export const MISSING_FRAGMENT = 128;

/** Room for `count` packed links, filled from the front. */
function packer(count: number) {
  const out = new Uint8Array(1 + 8 + count * (2 + FIELDS * 8));
  let at = 0;
  let lastLine = 0;
  const put = (value: number) => {
    while (value > 127) {
      out[at++] = (value % 128) | 128;
      value = Math.floor(value / 128);
    }
    out[at++] = value;
  };
  out[at++] = VERSION;
  put(count);
  const add = (link: LinkNumbers) => {
    const ascending = link.line >= lastLine;
    out[at++] = link.kind * 16 + link.element;
    out[at++] =
      link.placement * 2 + (ascending ? ASCENDING : 0) + (link.fragment ? HAS_FRAGMENT : 0) + (link.marks & MARKS);
    put(link.target);
    put(link.anchor);
    put(link.rel);
    put(link.above);
    if (link.fragment) put(link.fragment);
    put(ascending ? link.line - lastLine : link.line);
    put(link.column);
    lastLine = link.line;
  };
  return { add, packed: () => out.slice(0, at) };
}

/**
 * Packs the links of one page: a version byte, the number of links, then for each link one byte of kind and element,
 * one of landmark and marks, and LEB128 varints of target, anchor, rel, above, fragment (where there is one), line (as
 * a difference where lines ascend), column. Version 1 had no fragments, version 2 no marks.
 * @param address the number of a target
 * @param phrase the number of an anchor, rel, above or fragment
 */
export function packLinks<Text>(
  links: readonly LinkOf<Text>[],
  address: (text: Text) => number,
  phrase: (text: Text) => number,
): Uint8Array {
  const { add, packed } = packer(links.length);
  for (const link of links) add(numbersOf(link, address, phrase));
  return packed();
}

/** A link as numbers. */
export const numbersOf = <Text>(
  link: LinkOf<Text>,
  address: (text: Text) => number,
  phrase: (text: Text) => number,
): LinkNumbers => ({
  kind: linkKinds.indexOf(link.kind),
  element: linkElements.indexOf(link.element),
  placement: placements.indexOf(link.placement),
  target: address(link.target),
  anchor: phrase(link.anchor),
  rel: phrase(link.rel),
  above: phrase(link.above),
  fragment: phrase(link.fragment),
  line: link.line,
  column: link.column,
  marks: (link.bareImage ? BARE_IMAGE : 0) + (link.relative ? RELATIVE : 0) + (link.beside ? BESIDE : 0),
});

/**
 * Packs packed links again under other numbers.
 * @param addresses the new number of a target, by its old one
 * @param phrases likewise of anchors, rels, paths and fragments; 0 stays 0
 * @throws as {@link eachPackedLink}
 */
export function renumberLinks(bytes: Uint8Array, addresses: readonly number[], phrases: readonly number[]): Uint8Array {
  const { add, packed } = packer(countPackedLinks(bytes));
  eachPackedLink(bytes, (link) => {
    link.target = addresses[link.target];
    for (const name of phraseFields) link[name] = phrases[link[name]];
    add(link);
  });
  return packed();
}

/** Reads bytes and varints one after the other. */
function reader(bytes: Uint8Array) {
  let at = 0;
  const byte = () => {
    if (at >= bytes.length) throw new Error('Stored links end too early.');
    return bytes[at++];
  };
  const take = () => {
    let value = 0;
    let factor = 1;
    for (;;) {
      const next = byte();
      value += (next & 127) * factor;
      if (next < 128) return value;
      factor *= 128;
    }
  };
  const version = byte();
  if (version < 1 || version > VERSION)
    throw new Error(`Stored links have version ${version}; this program reads up to ${VERSION}.`);
  return { byte, take };
}

/** How many links are packed. */
export const countPackedLinks = (bytes: Uint8Array): number => reader(bytes).take();

/**
 * Goes through packed links without making anything of them; a crawl may hold millions.
 * @param visit is given one object, filled anew for each link
 * @throws Error when the bytes are of a newer version, or end too early
 */
export function eachPackedLink(bytes: Uint8Array, visit: (link: LinkNumbers) => void): void {
  const { byte, take } = reader(bytes);
  const link = noNumbers();
  let lastLine = 0;
  for (let left = take(); left > 0; left--) {
    const kind = byte();
    const place = byte();
    link.kind = kind >> 4;
    link.element = kind & 15;
    link.placement = (place & PLACEMENT) >> 1;
    link.marks = place & MARKS;
    link.target = take();
    link.anchor = take();
    link.rel = take();
    link.above = take();
    link.fragment = place & HAS_FRAGMENT ? take() : 0;
    const line = take();
    lastLine = place & ASCENDING ? lastLine + line : line;
    link.line = lastLine;
    link.column = take();
    visit(link);
  }
}
