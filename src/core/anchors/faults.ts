/** Faults of links (docs/MEANINGS.md, "Anchors" and "Verdict"), a bit each. */
import { BARE_IMAGE, CLICK_KIND, faultBit, linkKinds, MISSING_FRAGMENT } from '../links';
import { nofollowRels } from '../reach';
import { textAt } from '../snapshot';
import type { Base, Columns, IncomingLinks } from '../snapshot';
import { haveCommon, isGeneric, isWayfinding, plainWords, stems } from './words';

const MAX_ANCHOR = 100;
const HREFLANG = linkKinds.indexOf('hreflang');
const bareAddress = /^(https?:\/\/|www\.)\S+$|^[\w-]+(\.[\w-]+)*\.[a-z]{2,}(\/\S*)?$/i;
/** BCP 47: language, script, region, as hreflang takes them; or x-default. */
const languageCode = /^(x-default|[a-z]{2,3}(-[a-z]{4})?(-([a-z]{2}|\d{3}))?)$/i;

/** What the words of an anchor are by themselves. */
function faultsOfWords(text: string): number {
  let faults = 0;
  if (isGeneric(plainWords(text))) faults |= faultBit('generic');
  if (bareAddress.test(text)) faults |= faultBit('address');
  if ([...text.slice(0, 3 * MAX_ANCHOR)].length > MAX_ANCHOR) faults |= faultBit('overlong');
  return faults;
}

/** What the faults of links are found in. */
export interface FaultBase extends Pick<Base, 'count' | 'links' | 'phrases' | 'outside'> {
  columns: Columns<'url' | 'path' | 'title' | 'h1' | 'page_nofollow' | 'html'>;
}

const NOTHING = -1;
const SEVERAL = -2;

/**
 * Marks the faults of all links.
 * @param finalTargets where redirects and canonicals end, so that two ways to one page are no conflict
 * @returns one entry a link, the bits of {@link linkFaults}
 */
export function findLinkFaults(base: FaultBase, incoming: IncomingLinks, finalTargets: Int32Array): Uint16Array {
  const { count, links, phrases } = base;
  const faults = new Uint16Array(links.target.length);
  const wordFaults = Uint16Array.from(phrases, faultsOfWords);
  const endOf = (page: number) => (finalTargets[page] >= 0 ? finalTargets[page] : page);
  const wordsOf = numberWords(phrases);
  const leadsTo = new Int32Array(wordsOf.reduce((most, words) => Math.max(most, words), -1) + 1).fill(NOTHING);
  const secure = addressBits(base, 'https:');
  const plain = addressBits(base, 'http:');
  const [EMPTY, NO_ALT] = [faultBit('empty'), faultBit('image_no_alt')];
  const [INSECURE, BAD_CODE, FRAGMENT] = [faultBit('insecure'), faultBit('bad_code'), faultBit('fragment')];

  for (let page = 0; page < count; page++)
    for (let link = links.offsets[page]; link < links.offsets[page + 1]; link++) {
      const target = links.target[link];
      const kind = links.kind[link];
      if (kind === HREFLANG && !languageCode.test(phrases[links.anchor[link]])) faults[link] |= BAD_CODE;
      if (kind !== CLICK_KIND) continue;
      let own = 0;
      if (secure[page] && plain[target]) own |= INSECURE;
      if (links.marks[link] & MISSING_FRAGMENT) own |= FRAGMENT;
      const anchor = links.anchor[link];
      if (anchor === 0) own |= links.marks[link] & BARE_IMAGE ? NO_ALT : EMPTY;
      else own |= wordFaults[anchor];
      faults[link] |= own;
      const words = wordsOf[anchor];
      if (words < 0 || target >= count || target === page) continue;
      const end = endOf(target);
      if (leadsTo[words] === NOTHING) leadsTo[words] = end;
      else if (leadsTo[words] !== end) leadsTo[words] = SEVERAL;
    }
  markTargets(base, incoming, { faults, wordFaults, wordsOf, isConflict: (words) => leadsTo[words] === SEVERAL });
  return faults;
}

/** Equal words may be written differently; −1 for words that fit anything, or number a series: they tell nothing apart. */
function numberWords(phrases: readonly string[]): Int32Array {
  const numbers = new Map<string, number>();
  return Int32Array.from(phrases, (text) => {
    const words = plainWords(text);
    if (words === '' || isGeneric(words) || isWayfinding(words)) return -1;
    if (!numbers.has(words)) numbers.set(words, numbers.size);
    return numbers.get(words)!;
  });
}

interface Marking {
  faults: Uint16Array;
  wordFaults: Uint16Array;
  wordsOf: Int32Array;
  isConflict: (words: number) => boolean;
}

/** Marks what shows only when all links to one page are looked at. */
function markTargets(base: FaultBase, incoming: IncomingLinks, { faults, wordFaults, wordsOf, isConflict }: Marking) {
  const { count, links, phrases, columns } = base;
  const nofollowRel = nofollowRels(phrases);
  const pageNofollow = columns.page_nofollow;
  const stemsOfPhrase = new Map<number, Set<string>>();
  const stemsOf = (phrase: number) => {
    let found = stemsOfPhrase.get(phrase);
    if (!found) stemsOfPhrase.set(phrase, (found = stems(phrases[phrase])));
    return found;
  };
  const [CONFLICT, OFF_TOPIC, SPLIT] = [faultBit('conflict'), faultBit('off_topic'), faultBit('split')];
  const [MIX, NO_RETURN, ADDRESS] = [faultBit('nofollow_mix'), faultBit('no_return'), faultBit('address')];
  /** How often each phrase leads to the page at hand, and its faults there; emptied after each page. */
  const times = new Uint32Array(phrases.length);
  const marks = new Uint16Array(phrases.length);
  const met: number[] = [];

  for (let page = 0; page < count; page++) {
    const [from, to] = [incoming.offsets[page], incoming.offsets[page + 1]];
    let followed = 0;
    let withheld = 0;
    met.length = 0;
    for (let i = from; i < to; i++) {
      const link = incoming.links[i];
      const source = incoming.source[link];
      if (links.kind[link] === HREFLANG && !returns(page, source)) faults[link] |= NO_RETURN;
      if (links.kind[link] !== CLICK_KIND || source === page) continue;
      if (nofollowRel[links.rel[link]] === 1 || pageNofollow[source] === 1) withheld++;
      else followed++;
      const phrase = links.anchor[link];
      if (wordsOf[phrase] >= 0 && times[phrase]++ === 0) met.push(phrase);
    }
    if (met.length) judgeWords(page);
    const mixed = followed > 0 && withheld > 0;
    for (let i = from; (met.length || mixed) && i < to; i++) {
      const link = incoming.links[i];
      const source = incoming.source[link];
      if (links.kind[link] !== CLICK_KIND || source === page) continue;
      faults[link] |= marks[links.anchor[link]];
      if (mixed && (nofollowRel[links.rel[link]] === 1 || pageNofollow[source] === 1)) faults[link] |= MIX;
    }
    for (const phrase of met) times[phrase] = marks[phrase] = 0;
  }

  /** What is wrong with each phrase that leads to a page. */
  function judgeWords(page: number): void {
    // The words that most links use say what the page is called; others should have something in common with them.
    let usual = met[0];
    for (const phrase of met) if (times[phrase] > times[usual]) usual = phrase;
    const topic = topicOf(base, page);
    for (const phrase of met) {
      if (isConflict(wordsOf[phrase])) marks[phrase] |= CONFLICT;
      if (topic && !(wordFaults[phrase] & ADDRESS) && stemsOf(phrase).size && !haveCommon(stemsOf(phrase), topic))
        marks[phrase] |= OFF_TOPIC;
      if (phrase !== usual && stemsOf(phrase).size && !haveCommon(stemsOf(phrase), stemsOf(usual)))
        marks[phrase] |= SPLIT;
    }
  }

  /** Whether a page names another one as an edition of itself, as far as it was read. */
  function returns(page: number, other: number): boolean {
    if (page === other || columns.html[page] !== 1) return true;
    for (let link = links.offsets[page]; link < links.offsets[page + 1]; link++)
      if (links.kind[link] === HREFLANG && links.target[link] === other) return true;
    return false;
  }
}

/** What a page is about, as far as its title, headings and address say; null when it says nothing. */
function topicOf(base: FaultBase, page: number): Set<string> | null {
  const title = textAt(base, 'title', page);
  if (!title) return null;
  const path = textAt(base, 'path', page) ?? '';
  return stems(`${title} ${textAt(base, 'h1', page) ?? ''} ${path.replace(/[^a-z0-9]+/gi, ' ')}`);
}

/** Which addresses, of pages and then of outside targets, begin so. */
function addressBits({ count, columns, outside }: FaultBase, scheme: string): Uint8Array {
  const bits = new Uint8Array(count + outside.length);
  const { url } = columns;
  for (let page = 0; page < count; page++) bits[page] = Number(url.values[url.codes[page]].startsWith(scheme));
  outside.forEach((address, i) => (bits[count + i] = Number(address.startsWith(scheme))));
  return bits;
}
