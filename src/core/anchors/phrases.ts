/** What the words of links are, whatever they lead to. */
import { isAroundContent } from '../links';
import { hostOfText } from './address';
import { genericIn, isName, isReference, isWayfinding, plainWords } from './words';

const MAX_ANCHOR = 100;

/** By phrase: the words of links, and the paths of elements above them. */
export interface Words {
  /**
   * By phrase, the number of its words, which may be written differently; −1 for words that are not judged by what they
   * lead to: they fit anything, show the way, refer to a numbered part, or are a name of code.
   */
  numbers: Int32Array;
  count: number;
  /** By phrase, in which languages it fits any link; 0 for none. */
  generic: Uint8Array;
  /** By phrase, whether it is a path through elements that hold code, or are around the content of the page. */
  apart: Uint8Array;
  /** By phrase, whether it is overlong. */
  overlong: Uint8Array;
  /** By phrase, the host that it names when it is an address and nothing else. */
  hosts: Map<number, string>;
}

const holdsCode = /(^|>)(pre|code|kbd|samp|tt)([.>]|$)|\.(code|codehilite|highlight|source-?code|syntax)([.>]|$)/i;

/** Looks at the words of all links once each. */
export function wordsOf(phrases: readonly string[]): Words {
  const known = new Map<string, number>();
  const hosts = new Map<number, string>();
  const generic = new Uint8Array(phrases.length);
  const overlong = new Uint8Array(phrases.length);
  const apart = Uint8Array.from(phrases, (text) => Number(holdsCode.test(text) || isAroundContent(text)));
  const numbers = Int32Array.from(phrases, (text, phrase) => {
    // A name of code is as long as it is.
    const isLong = text.length > MAX_ANCHOR && [...text.slice(0, 3 * MAX_ANCHOR)].length > MAX_ANCHOR;
    if (isLong && !isName(text)) overlong[phrase] = 1;
    const host = text.includes('.') || text.includes('://') ? hostOfText(text) : null;
    if (host) hosts.set(phrase, host);
    const words = plainWords(text);
    if (isName(text)) return -1;
    if ((generic[phrase] = genericIn(words))) return -1;
    if (words === '' || isWayfinding(words) || isReference(words)) return -1;
    if (!known.has(words)) known.set(words, known.size);
    return known.get(words)!;
  });
  return { numbers, count: known.size, generic, apart, overlong, hosts };
}
