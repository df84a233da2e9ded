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
  const add: LinkVisitor = (kind, element, placement, target, anchor, rel, above, fragment, line, column, marks) => {
    const ascending = line >= lastLine;
    out[at++] = kind * 16 + element;
    out[at++] = placement * 2 + (ascending ? ASCENDING : 0) + (fragment ? HAS_FRAGMENT : 0) + marks;
    put(target);
    put(anchor);
    put(rel);
    put(above);
    if (fragment) put(fragment);
    put(ascending ? line - lastLine : line);
    put(column);
    lastLine = line;
  };
  return { add, packed: () => out.slice(0, at) };
}

/**
 * Packs the links of one page: a version byte, the number of links, then for each link one byte of kind and element,
 * one of landmark and marks, and LEB128 varints of target, anchor, rel, above, fragment (where there is one), line (as a difference
 * where lines ascend), column. Version 1 had no fragments,
 * version 2 no marks.
 * @param address the number of a target
 * @param phrase the number of an anchor, rel, above or fragment
 */
export function packLinks<Text>(
  links: readonly LinkOf<Text>[],
  address: (text: Text) => number,
  phrase: (text: Text) => number,
): Uint8Array {
  const { add, packed } = packer(links.length);
  for (const link of links)
    add(
      linkKinds.indexOf(link.kind),
      linkElements.indexOf(link.element),
      placements.indexOf(link.placement),
      address(link.target),
      phrase(link.anchor),
      phrase(link.rel),
      phrase(link.above),
      phrase(link.fragment),
      link.line,
      link.column,
      (link.bareImage ? BARE_IMAGE : 0) + (link.relative ? RELATIVE : 0) + (link.beside ? BESIDE : 0),
    );
  return packed();
}

/**
 * Packs packed links again under other numbers.
 * @param addresses the new number of a target, by its old one
 * @param phrases likewise of anchors, rels, paths and fragments; 0 stays 0
 * @throws as {@link eachPackedLink}
 */
export function renumberLinks(bytes: Uint8Array, addresses: readonly number[], phrases: readonly number[]): Uint8Array {
  const { add, packed } = packer(countPackedLinks(bytes));
  eachPackedLink(bytes, (kind, element, placement, target, anchor, rel, above, fragment, line, column, marks) =>
    add(
      kind,
      element,
      placement,
      addresses[target],
      phrases[anchor],
      phrases[rel],
      phrases[above],
      phrases[fragment],
      line,
      column,
      marks,
    ),
  );
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

/** Receives one link: kind, element and landmark as indexes of their lists, texts as numbers, marks as bits. */
export type LinkVisitor = (
  kind: number,
  element: number,
  placement: number,
  target: number,
  anchor: number,
  rel: number,
  above: number,
  fragment: number,
  line: number,
  column: number,
  marks: number,
) => void;

/**
 * Goes through packed links without making anything of them; a crawl may hold millions.
 * @throws Error when the bytes are of a newer version, or end too early
 */
export function eachPackedLink(bytes: Uint8Array, visit: LinkVisitor): void {
  const { byte, take } = reader(bytes);
  let line = 0;
  for (let left = take(); left > 0; left--) {
    const kind = byte();
    const placement = byte();
    const target = take();
    const anchor = take();
    const rel = take();
    const above = take();
    const fragment = placement & HAS_FRAGMENT ? take() : 0;
    const lineField = take();
    line = placement & ASCENDING ? line + lineField : lineField;
    const marks = placement & MARKS;
    visit(
      kind >> 4,
      kind & 15,
      (placement & PLACEMENT) >> 1,
      target,
      anchor,
      rel,
      above,
      fragment,
      line,
      take(),
      marks,
    );
  }
}
