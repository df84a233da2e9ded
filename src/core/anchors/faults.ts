/** Faults of links (docs/MEANINGS.md, "Anchors" and "Verdict"), a bit each. */
import { anchorFaults, BARE_IMAGE, CLICK_KIND, faultBit, linkKinds, MISSING_FRAGMENT, templatePages } from '../links';
import { languageOf } from '../language';
import { bareHost } from '../scope';
import { textAt } from '../snapshot';
import { addressParts } from '../url';
import { haveCommon, mayHaveAny, stems } from '../words';
import { clicksByTarget, COMPARED, CONTENT, PART, PHRASE_SHIFT, WITHHELD } from './clicks';
import type { Clicks } from './clicks';
import { comparedTest, conflictTest } from './conflicts';
import type { ConflictTest } from './conflicts';
import type { FaultBase } from './faultBase';
import { isLanguageCode } from './languageCodes';
import { wordsOf } from './phrases';
import type { Words } from './phrases';
import { countedLanguages } from './words';

const ANCHOR_FAULTS = (1 << anchorFaults.length) - 1;
const HREFLANG = linkKinds.indexOf('hreflang');

const [EMPTY, NO_ALT, GENERIC, ADDRESS] = (['empty', 'image_no_alt', 'generic', 'address'] as const).map(faultBit);
const [OVERLONG, OFF_TOPIC, CONFLICT] = (['overlong', 'off_topic', 'conflict'] as const).map(faultBit);
const [SPLIT, MIX, FRAGMENT] = (['split', 'nofollow_mix', 'fragment'] as const).map(faultBit);
const [NO_RETURN, BAD_CODE, INSECURE] = (['no_return', 'bad_code', 'insecure'] as const).map(faultBit);

/** Words are used often when so many links of the main content to one page have them. */
const OFTEN = 3;

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
  const faults = markLinks(base, words);
  markReturns(base, faults);
  const anchors = new Int32Array(base.count);
  const clicks = clicksByTarget(base, words, comparedTest(base, words, finalTargets));
  const isConflict = conflictTest(base, words, clicks, finalTargets);
  const judge = judgeOf(base, words, isConflict);
  const marks = new Uint16Array(clicks.entries.length);
  for (let page = 0; page < base.count; page++) anchors[page] = judge(page, clicks, marks);
  return { linkFaults: faults, anchors, anchor_faults: addMarks(base, words, clicks, marks, faults) };
}

/** Marks what shows of a link by itself. */
function markLinks(base: FaultBase, words: Words): Uint16Array {
  const { count, links, phrases } = base;
  // Read once each: a lookup for each of many millions of links takes longer than the work.
  const { offsets, target: targets, kind: kinds, marks, anchor: anchors } = links;
  const faults = new Uint16Array(targets.length);
  const secure = addressBits(base, 'https:');
  const plain = addressBits(base, 'http:');
  const hosts = hostsOf(base);
  for (let page = 0; page < count; page++)
    for (let link = offsets[page]; link < offsets[page + 1]; link++) {
      const target = targets[link];
      const anchor = anchors[link];
      if (kinds[link] === HREFLANG && !isLanguageCode(phrases[anchor])) faults[link] |= BAD_CODE;
      if (kinds[link] !== CLICK_KIND) continue;
      if (secure[page] && plain[target]) faults[link] |= INSECURE;
      if (marks[link] & MISSING_FRAGMENT) faults[link] |= FRAGMENT;
      if (anchor === 0) faults[link] |= marks[link] & BARE_IMAGE ? NO_ALT : EMPTY;
      // In a table of contents the words are those of the heading.
      if (words.overlong[anchor] && target !== page) faults[link] |= OVERLONG;
      const named = words.hosts.size ? words.hosts.get(anchor) : undefined;
      if (named !== undefined && named === hosts(target)) faults[link] |= ADDRESS;
    }
  return faults;
}

/** Gives the host of an address by its number, `www.` apart. */
function hostsOf({ count, column, outside }: FaultBase): (number: number) => string {
  const url = column('url');
  return (number) =>
    bareHost(addressParts(number < count ? url.values[url.codes[number]] : outside[number - count]).host);
}

/** Marks the hreflang links whose target was read and names no edition in return. */
function markReturns({ count, links, column }: FaultBase, faults: Uint16Array): void {
  const { offsets, target: targets, kind } = links;
  const html = column('html');
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

/** Whether the words of a link are among those of its fragment, as in “Colours” to `#colours-of-1938`. */
const namesFragment = (text: string, fragment: string) =>
  fragment !== '' && haveCommon(stems(text), stems(fragment.replace(/[^\p{L}\p{N}]+/gu, ' ')));

/** No mark: the links to a page have different ones. */
const VARIED = 0xffff;

/** By page the mark that all links to it have, as nearly everywhere; {@link VARIED} where they differ. */
const commonMarks = ({ offsets }: Clicks, marks: Uint16Array) =>
  new Uint16Array(offsets.length - 1).map((_, page) => {
    const [from, to] = [offsets[page], offsets[page + 1]];
    for (let i = from + 1; i < to; i++) if (marks[i] !== marks[from]) return VARIED;
    return from < to ? marks[from] : 0;
  });

/** Adds what was found of links by their targets to the faults of links. @returns the faults of anchors by target */
function addMarks(
  { count, links, phrases, column }: FaultBase,
  words: Words,
  clicks: Clicks,
  marks: Uint16Array,
  faults: Uint16Array,
): Int32Array {
  const { offsets, target: targets, kind, anchor, fragment } = links;
  // Pages lie all over memory, and the marks of their links more so: those are looked up only where they must be.
  const common = commonMarks(clicks, marks);
  const next = clicks.offsets.slice(0, count);
  const { codes, values } = column('language');
  const counted = Uint8Array.from(values, (language, code) => countedLanguages(code === 0 ? null : language));
  const byTarget = new Uint16Array(count);
  for (let page = 0; page < count; page++) {
    const languages = counted[codes[page]];
    for (let link = offsets[page]; link < offsets[page + 1]; link++) {
      const target = targets[link];
      if (kind[link] !== CLICK_KIND) continue;
      // With a fragment the words name a part of the page.
      const isWhole = fragment[link] === 0 && target !== page;
      let mark = isWhole && words.generic[anchor[link]] & languages ? GENERIC : 0;
      if (target < count && target !== page) {
        const found = common[target] === VARIED ? marks[next[target]++] : common[target];
        // What is called like the page that it leads to names it, whatever the words are.
        mark = (mark & found) | (found & ~GENERIC);
        if (mark & OFF_TOPIC && namesFragment(phrases[anchor[link]], phrases[fragment[link]])) mark &= ~OFF_TOPIC;
        const bits = (faults[link] | mark) & ANCHOR_FAULTS;
        if (bits !== 0) byTarget[target] |= bits;
      }
      faults[link] |= mark;
    }
  }
  return new Int32Array(byTarget);
}

/** Judges the links to one page at a time: what shows only when all of them are looked at. */
function judgeOf(base: FaultBase, words: Words, isConflict: ConflictTest) {
  const { phrases } = base;
  const pages = base.column('html').reduce((sum, html) => sum + Number(html === 1), 0);
  const isNavigation = (times: number) => times >= templatePages(pages);
  /** By language, then by phrase. */
  const stemsOfPhrases = new Map<string, Map<number, Set<string>>>();
  const stemsOf = (phrase: number, language: string) => {
    let known = stemsOfPhrases.get(language);
    if (!known) stemsOfPhrases.set(language, (known = new Map()));
    let found = known.get(phrase);
    if (!found) known.set(phrase, (found = stems(phrases[phrase], language)));
    return found;
  };
  /**
   * How often each phrase leads to the page at hand from contents, whether it does at all, how often to a part of it.
   */
  const times = new Uint32Array(phrases.length);
  const isMet = new Uint8Array(phrases.length);
  const partTimes = new Uint32Array(phrases.length);
  /** How often its words must tell the page from others. */
  const compared = new Uint32Array(phrases.length);
  const faultsHere = new Uint16Array(phrases.length);
  const met: number[] = [];

  function judgeWords(page: number): void {
    // A phrase that fits any link is a fault unless it is the name of the page.
    const own = met.some((phrase) => words.generic[phrase]) ? namesOf(base, page) : null;
    for (const phrase of met)
      if (words.generic[phrase] && !wordsIn(phrases[phrase]).every((word) => own!.has(word)))
        faultsHere[phrase] = GENERIC;
    const isTelling = (phrase: number, n: number) => words.numbers[phrase] >= 0 && n > 0 && !isNavigation(n);
    const telling = met.filter((phrase) => isTelling(phrase, times[phrase] + partTimes[phrase]));
    if (telling.length === 0) return;
    // The words that most links use say what the page is called; others should have something in common with them.
    let usual = telling[0];
    for (const phrase of telling) if (times[phrase] > times[usual]) usual = phrase;
    const language = languageOf(textAt(base, 'language', page));
    let topic: Set<string> | null | undefined;
    const isOfTopic = (said: Set<string>) => {
      if (topic === undefined) topic = topicOf(base, page, language);
      return topic === null || haveCommon(said, topic);
    };
    const text = base.wordFilters.bytes.subarray(base.wordFilters.offsets[page], base.wordFilters.offsets[page + 1]);
    for (const phrase of telling) {
      const said = stemsOf(phrase, language);
      let found = isConflict(words.numbers[phrase], compared[phrase]) ? CONFLICT : 0;
      // The text, in which most words are found, is looked at first: titles and headings have to be taken apart.
      const isOff = said.size > 0 && !words.hosts.has(phrase) && !mayHaveAny(text, said) && !isOfTopic(said);
      if (isOff) found |= OFF_TOPIC;
      const areOften = times[phrase] >= OFTEN && times[usual] >= OFTEN;
      if (phrase !== usual && isOff && areOften && !haveCommon(said, stemsOf(usual, language))) found |= SPLIT;
      faultsHere[phrase] = found;
    }
  }

  /** @returns how many different words lead to the page */
  return (page: number, { offsets, entries }: Clicks, marks: Uint16Array): number => {
    const [from, to] = [offsets[page], offsets[page + 1]];
    let withheld = 0;
    met.length = 0;
    for (let i = from; i < to; i++) {
      const phrase = entries[i] >>> PHRASE_SHIFT;
      withheld += entries[i] & WITHHELD;
      if (!isMet[phrase]) met.push(phrase);
      isMet[phrase] = 1;
      if (entries[i] & CONTENT) times[phrase]++;
      else if (entries[i] & PART) partTimes[phrase]++;
      if (entries[i] & COMPARED) compared[phrase]++;
    }
    judgeWords(page);
    const mixed = withheld > 0 && withheld < to - from ? MIX : 0;
    for (let i = from; i < to; i++) {
      const found = faultsHere[entries[i] >>> PHRASE_SHIFT];
      // Words that lead to a part of a page name that part: they are judged by the text in which it stands, and no
      // more.
      const whole = entries[i] & COMPARED ? found : found & ~CONFLICT;
      const judged = entries[i] & CONTENT ? whole : found & (entries[i] & PART ? GENERIC | OFF_TOPIC : GENERIC);
      marks[i] = judged | (entries[i] & WITHHELD ? mixed : 0);
    }
    for (const phrase of met)
      times[phrase] = partTimes[phrase] = compared[phrase] = isMet[phrase] = faultsHere[phrase] = 0;
    return met.length;
  };
}

const wordsIn = (text: string): string[] => text.toLowerCase().match(/[\p{L}\p{N}]+/gu) ?? [];

/** The words by which a page is called, in its title and headings. */
const namesOf = (base: FaultBase, page: number): Set<string> =>
  new Set(wordsIn(`${textAt(base, 'title', page) ?? ''} ${textAt(base, 'h1', page) ?? ''}`));

/** What a page is about, as far as its title, headings, description and address say; null when it has no title. */
function topicOf(base: FaultBase, page: number, language: string): Set<string> | null {
  const title = textAt(base, 'title', page);
  if (!title) return null;
  const [h1, description, path] = (['h1', 'description', 'path'] as const).map(
    (name) => textAt(base, name, page) ?? '',
  );
  return stems(`${title} ${h1} ${description} ${path.replace(/[^a-z0-9]+/gi, ' ')}`, language);
}

/** Which addresses, of pages and then of outside targets, begin so. */
function addressBits({ count, column, outside }: FaultBase, scheme: string): Uint8Array {
  const bits = new Uint8Array(count + outside.length);
  const url = column('url');
  for (let page = 0; page < count; page++) bits[page] = Number(url.values[url.codes[page]].startsWith(scheme));
  outside.forEach((address, i) => (bits[count + i] = Number(address.startsWith(scheme))));
  return bits;
}
