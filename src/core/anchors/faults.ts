/** Faults of links (docs/MEANINGS.md, "Anchors" and "Verdict"), a bit each. */
import { anchorFaults, BARE_IMAGE, CLICK_KIND, faultBit, linkKinds, MISSING_FRAGMENT } from '../links';
import { nofollowRels } from '../reach';
import { textAt } from '../snapshot';
import type { Base, Columns } from '../snapshot';
import { haveCommon, isGeneric, isWayfinding, plainWords, stems } from './words';

const ANCHOR_FAULTS = (1 << anchorFaults.length) - 1;
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

export interface AnchorFacts {
  /** One entry a link, the bits of `linkFaults`. */
  linkFaults: Uint16Array;
  /** How many different words lead to each page, and the faults among the links with them. */
  anchors: Int32Array;
  anchor_faults: Int32Array;
}

/**
 * Finds the faults of all links, and what they come to for the page that is linked to.
 * @param finalTargets where redirects and canonicals end, so that two ways to one page are no conflict
 */
export function anchorFacts(base: FaultBase, finalTargets: Int32Array): AnchorFacts {
  const words = wordsOf(base.phrases);
  const { faults, leadsTo } = markLinks(base, words, finalTargets);
  markReturns(base, faults);
  const anchors = new Int32Array(base.count);
  const anchorFaultsOf = new Int32Array(base.count);
  const clicks = clicksByTarget(base);
  const judge = judgeOf(base, words, (number) => leadsTo[number] === SEVERAL);
  const marks = new Uint16Array(clicks.entries.length);
  for (let page = 0; page < base.count; page++) {
    const { found, different } = judge(page, clicks, marks);
    anchors[page] = different;
    anchorFaultsOf[page] = found & ANCHOR_FAULTS;
  }
  addMarks(base, clicks, marks, faults);
  return { linkFaults: faults, anchors, anchor_faults: anchorFaultsOf };
}

interface Words {
  /** By phrase, the faults that its words have by themselves. */
  faults: Uint16Array;
  /**
   * By phrase, the number of its words, which may be written differently; −1 for words that fit anything, or number a
   * series: they tell nothing apart.
   */
  numbers: Int32Array;
  count: number;
}

function wordsOf(phrases: readonly string[]): Words {
  const known = new Map<string, number>();
  const numbers = Int32Array.from(phrases, (text) => {
    const words = plainWords(text);
    if (words === '' || isGeneric(words) || isWayfinding(words)) return -1;
    if (!known.has(words)) known.set(words, known.size);
    return known.get(words)!;
  });
  return { faults: Uint16Array.from(phrases, faultsOfWords), numbers, count: known.size };
}

const NOTHING = -1;
const SEVERAL = -2;

/** Marks what shows of a link by itself, and tells for all words where the links with them end. */
function markLinks(base: FaultBase, words: Words, finalTargets: Int32Array) {
  const { count, links, phrases } = base;
  // Read once each: a lookup for each of many millions of links takes longer than the work.
  const { offsets, target: targets, kind: kinds, marks, anchor: anchors } = links;
  const faults = new Uint16Array(targets.length);
  const leadsTo = new Int32Array(words.count).fill(NOTHING);
  const secure = addressBits(base, 'https:');
  const plain = addressBits(base, 'http:');
  const [EMPTY, NO_ALT] = [faultBit('empty'), faultBit('image_no_alt')];
  const [INSECURE, BAD_CODE, FRAGMENT] = [faultBit('insecure'), faultBit('bad_code'), faultBit('fragment')];
  for (let page = 0; page < count; page++)
    for (let link = offsets[page]; link < offsets[page + 1]; link++) {
      const target = targets[link];
      const anchor = anchors[link];
      if (kinds[link] === HREFLANG && !languageCode.test(phrases[anchor])) faults[link] |= BAD_CODE;
      if (kinds[link] !== CLICK_KIND) continue;
      if (secure[page] && plain[target]) faults[link] |= INSECURE;
      if (marks[link] & MISSING_FRAGMENT) faults[link] |= FRAGMENT;
      if (anchor === 0) faults[link] |= marks[link] & BARE_IMAGE ? NO_ALT : EMPTY;
      else faults[link] |= words.faults[anchor];
      const number = words.numbers[anchor];
      if (number < 0 || target >= count || target === page) continue;
      const end = finalTargets[target] >= 0 ? finalTargets[target] : target;
      if (leadsTo[number] === NOTHING) leadsTo[number] = end;
      else if (leadsTo[number] !== end) leadsTo[number] = SEVERAL;
    }
  return { faults, leadsTo };
}

/** Marks the hreflang links whose target was read and names no edition in return. */
function markReturns({ count, links, columns }: FaultBase, faults: Uint16Array): void {
  const { offsets, target: targets, kind } = links;
  const { html } = columns;
  const NO_RETURN = faultBit('no_return');
  const returns = (page: number, other: number): boolean => {
    if (page === other || html[page] !== 1) return true;
    for (let link = offsets[page]; link < offsets[page + 1]; link++)
      if (kind[link] === HREFLANG && targets[link] === other) return true;
    return false;
  };
  for (let page = 0; page < count; page++)
    for (let link = offsets[page]; link < offsets[page + 1]; link++)
      if (kind[link] === HREFLANG && targets[link] < count && !returns(targets[link], page)) faults[link] |= NO_RETURN;
}

/**
 * The click links between different inside pages, by their targets: those to page `i` are `entries[offsets[i]]` to
 * `entries[offsets[i + 1] − 1]`, each the number of its phrase above two bits. Gone through in the order in which memory
 * lies, many millions of links take a fraction of the time.
 */
interface Clicks {
  offsets: Uint32Array;
  entries: Uint32Array;
}
const WITHHELD = 1;
const BARE = 2;
const PHRASE_SHIFT = 2;

function clicksByTarget({ count, links, phrases, columns }: FaultBase): Clicks {
  const { offsets, target: targets, kind, anchor, rel, marks } = links;
  const pageNofollow = columns.page_nofollow;
  const nofollowRel = nofollowRels(phrases);
  const into = new Uint32Array(count + 1);
  const isCounted = (page: number, link: number) =>
    kind[link] === CLICK_KIND && targets[link] < count && targets[link] !== page;
  for (let page = 0; page < count; page++)
    for (let link = offsets[page]; link < offsets[page + 1]; link++)
      if (isCounted(page, link)) into[targets[link] + 1]++;
  for (let page = 0; page < count; page++) into[page + 1] += into[page];
  const next = into.slice(0, count);
  const entries = new Uint32Array(into[count]);
  for (let page = 0; page < count; page++)
    for (let link = offsets[page]; link < offsets[page + 1]; link++) {
      if (!isCounted(page, link)) continue;
      const withheld = pageNofollow[page] === 1 || nofollowRel[rel[link]] === 1 ? WITHHELD : 0;
      const bare = marks[link] & BARE_IMAGE ? BARE : 0;
      entries[next[targets[link]]++] = (anchor[link] << PHRASE_SHIFT) | withheld | bare;
    }
  return { offsets: into, entries };
}

/** Adds what was found of links by their targets to the faults of links. */
function addMarks({ count, links }: FaultBase, clicks: Clicks, marks: Uint16Array, faults: Uint16Array): void {
  const { offsets, target: targets, kind } = links;
  const next = clicks.offsets.slice(0, count);
  for (let page = 0; page < count; page++)
    for (let link = offsets[page]; link < offsets[page + 1]; link++) {
      const target = targets[link];
      if (kind[link] === CLICK_KIND && target < count && target !== page) faults[link] |= marks[next[target]++];
    }
}

/** Judges the links to one page at a time: what shows only when all of them are looked at. */
function judgeOf(base: FaultBase, words: Words, isConflict: (words: number) => boolean) {
  const { phrases } = base;
  const stemsOfPhrase = new Map<number, Set<string>>();
  const stemsOf = (phrase: number) => {
    let found = stemsOfPhrase.get(phrase);
    if (!found) stemsOfPhrase.set(phrase, (found = stems(phrases[phrase])));
    return found;
  };
  const [CONFLICT, OFF_TOPIC, SPLIT] = [faultBit('conflict'), faultBit('off_topic'), faultBit('split')];
  const [MIX, ADDRESS, EMPTY, NO_ALT] = (['nofollow_mix', 'address', 'empty', 'image_no_alt'] as const).map(faultBit);
  /** How often each phrase leads to the page at hand, and its faults there; emptied after each page. */
  const times = new Uint32Array(phrases.length);
  const faultsHere = new Uint16Array(phrases.length);
  const met: number[] = [];

  function judgeWords(page: number): number {
    const telling = met.filter((phrase) => words.numbers[phrase] >= 0);
    if (telling.length === 0) return 0;
    // The words that most links use say what the page is called; others should have something in common with them.
    let usual = telling[0];
    for (const phrase of telling) if (times[phrase] > times[usual]) usual = phrase;
    const topic = topicOf(base, page);
    let found = 0;
    for (const phrase of telling) {
      let own = isConflict(words.numbers[phrase]) ? CONFLICT : 0;
      if (topic && !(words.faults[phrase] & ADDRESS) && stemsOf(phrase).size && !haveCommon(stemsOf(phrase), topic))
        own |= OFF_TOPIC;
      if (phrase !== usual && stemsOf(phrase).size && !haveCommon(stemsOf(phrase), stemsOf(usual))) own |= SPLIT;
      faultsHere[phrase] = own;
      found |= own;
    }
    return found;
  }

  return (page: number, { offsets, entries }: Clicks, marks: Uint16Array): { found: number; different: number } => {
    const [from, to] = [offsets[page], offsets[page + 1]];
    let withheld = 0;
    let found = 0;
    met.length = 0;
    for (let i = from; i < to; i++) {
      const phrase = entries[i] >>> PHRASE_SHIFT;
      withheld += entries[i] & WITHHELD;
      found |= phrase === 0 ? (entries[i] & BARE ? NO_ALT : EMPTY) : words.faults[phrase];
      if (times[phrase]++ === 0) met.push(phrase);
    }
    const judged = judgeWords(page);
    const mixed = withheld > 0 && withheld < to - from ? MIX : 0;
    for (let i = from; (judged || mixed) && i < to; i++)
      marks[i] = faultsHere[entries[i] >>> PHRASE_SHIFT] | (entries[i] & WITHHELD ? mixed : 0);
    for (const phrase of met) times[phrase] = faultsHere[phrase] = 0;
    return { found: found | judged | mixed, different: met.length };
  };
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
