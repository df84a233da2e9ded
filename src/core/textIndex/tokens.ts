/**
 * The words of pages as numbers, packed: what a page's main content says, block by block, in about a byte and a half a
 * word. Numbers below {@link FIRST_FORM} tell of what follows them.
 */
import { blockKinds } from '../html';
import type { BlockKind } from '../html';

const APART = 0;
const LINK_BEGINS = 1;
const LINK_ENDS = 2;
const CODE_BEGINS = 3;
const CODE_ENDS = 4;
/** A block begins; one number for each kind. */
const BLOCK = 5;
export const FIRST_FORM = BLOCK + blockKinds.length;

/** What is said of a word, in bits. */
export const IN_LINK = 1;
export const IN_CODE = 2;
export const IS_APART = 4;

/** Bytes that grow. */
export function byteWriter(size = 1 << 16) {
  let bytes = new Uint8Array(size);
  let length = 0;
  const room = (more: number) => {
    if (length + more <= bytes.length) return;
    const grown = new Uint8Array(Math.max(2 * bytes.length, length + more));
    grown.set(bytes);
    bytes = grown;
  };
  return {
    get length() {
      return length;
    },
    /** In groups of seven bits, the lowest first. */
    number(value: number): void {
      room(5);
      for (; value > 127; value >>>= 7) bytes[length++] = (value & 127) | 128;
      bytes[length++] = value;
    },
    bytes(more: Uint8Array): void {
      room(more.length);
      bytes.set(more, length);
      length += more.length;
    },
    /** What has been written, which is then forgotten. */
    take(): Uint8Array {
      const taken = bytes.slice(0, length);
      length = 0;
      return taken;
    },
  };
}
export type ByteWriter = ReturnType<typeof byteWriter>;

/** Reads the number at a place of bytes. */
export function numberReader(bytes: Uint8Array, at = 0) {
  return {
    get at() {
      return at;
    },
    number(): number {
      let value = 0;
      for (let shift = 0; ; shift += 7) {
        const byte = bytes[at++];
        value |= (byte & 127) << shift;
        if (byte < 128) return value >>> 0;
      }
    },
    skip(length: number): void {
      at += length;
    },
  };
}

/** A block as it is packed. */
export interface PackedBlock {
  kind: BlockKind;
  /** By word its number and the bits that are said of it. */
  forms: readonly number[];
  flags: readonly number[];
}

export function packBlock(out: ByteWriter, { kind, forms, flags }: PackedBlock): void {
  out.number(BLOCK + blockKinds.indexOf(kind));
  let state = 0;
  forms.forEach((form, i) => {
    const changed = state ^ flags[i];
    state = flags[i] & (IN_LINK | IN_CODE);
    if (changed & IN_LINK) out.number(state & IN_LINK ? LINK_BEGINS : LINK_ENDS);
    if (changed & IN_CODE) out.number(state & IN_CODE ? CODE_BEGINS : CODE_ENDS);
    if (flags[i] & IS_APART) out.number(APART);
    out.number(FIRST_FORM + form);
  });
}

/** The words of one page; the arrays are longer than it, and are filled anew for the next. */
export interface PageWords {
  page: number;
  /** Number of its language. */
  language: number;
  words: number;
  /** By word: its form and what is said of it. */
  form: Int32Array;
  flags: Uint8Array;
  blocks: number;
  /** By block: what it is, and its first word; with one more at the end. */
  kind: Uint8Array;
  first: Int32Array;
}

export const pageWords = (): PageWords => ({
  page: -1,
  language: 0,
  words: 0,
  form: new Int32Array(4096),
  flags: new Uint8Array(4096),
  blocks: 0,
  kind: new Uint8Array(256),
  first: new Int32Array(257),
});

function grow(into: PageWords, words: number, blocks: number): void {
  if (words > into.form.length) {
    into.form = new Int32Array(2 * words);
    into.flags = new Uint8Array(2 * words);
  }
  if (blocks > into.kind.length) {
    const [kind, first] = [into.kind, into.first];
    into.kind = new Uint8Array(2 * blocks);
    into.kind.set(kind);
    into.first = new Int32Array(2 * blocks + 1);
    into.first.set(first);
  }
}

/** Reads the words of a page that stand in some bytes. */
export function unpackWords(bytes: Uint8Array, from: number, to: number, into: PageWords): void {
  // No more words than bytes.
  grow(into, to - from, 0);
  const { form, flags } = into;
  let [words, blocks, state] = [0, 0, 0];
  let isApart = 0;
  for (let at = from; at < to;) {
    let token = bytes[at++];
    if (token > 127) {
      token &= 127;
      for (let shift = 7; ; shift += 7) {
        const byte = bytes[at++];
        token |= (byte & 127) << shift;
        if (byte < 128) break;
      }
    }
    if (token >= FIRST_FORM) {
      form[words] = token - FIRST_FORM;
      flags[words++] = state | isApart;
      isApart = 0;
    } else if (token >= BLOCK) {
      grow(into, 0, blocks + 1);
      into.kind[blocks] = token - BLOCK;
      into.first[blocks++] = words;
      state = 0;
    } else if (token === APART) isApart = IS_APART;
    else if (token === LINK_BEGINS) state |= IN_LINK;
    else if (token === LINK_ENDS) state &= ~IN_LINK;
    else if (token === CODE_BEGINS) state |= IN_CODE;
    else state &= ~IN_CODE;
  }
  into.first[blocks] = words;
  into.words = words;
  into.blocks = blocks;
}

/** A hash (FNV-1a) of the words of a block, to find those that recur. */
export function blockHash(form: ArrayLike<number>, from: number, to: number): number {
  let hash = 0x811c9dc5;
  for (let i = from; i < to; i++) hash = Math.imul(hash ^ form[i], 0x01000193);
  return hash >>> 0;
}
