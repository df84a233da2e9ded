/** Mentions of pages in the texts of others: words that name a page and could become a link to it. */
import { blockKinds } from '../html';
import { isInCapitals, isLinkWord } from '../language';
import { IN_CODE, IN_LINK, IS_APART, pageWords } from '../textIndex';
import type { PageWords, TextIndex } from '../textIndex';
import { keyPhrases } from './keyPhrases';
import { codeName } from './phrases';
import type { Phrase } from './phrases';
import { contentSources } from './site';
import type { Site } from './site';
import { phraseTrie } from './trie';

export interface PlaceOptions {
  /** Whether words in code may become links. */
  inCode?: boolean;
  /** Whether pages count that link to the target from their content already. */
  linkedToo?: boolean;
  /** The least score; `LEAST_SCORE` without. */
  least?: number;
  /** Only these pages are looked through; all without. */
  sources?: Iterable<number>;
}

/** Words of a page's text that name a target. */
export interface Mentioned {
  /** The block of the source, and the first and last word in it. */
  block: number;
  first: number;
  last: number;
  phrase: Phrase;
}

/** A mention of a target, before its source is looked at. */
export interface Mention extends Mentioned {
  source: number;
  /** How precisely the words name the target, from 0 to 1. */
  fit: number;
}

/** What is found of one target. */
export interface TargetMentions {
  target: number;
  mentions: Mention[];
  /** By source how many different phrases of the target it has. */
  phrasesOn: Map<number, number>;
}

/** A phrase of a target that is looked for. */
interface Wanted {
  of: TargetMentions;
  linked: ReadonlySet<number>;
  phrase: Phrase;
  /** How precisely it names the target, all that a mention adds aside. */
  fit: number;
  /** Pages that have it, and the last of them. */
  pages: number;
  last: number;
  /** By the stem beside it, the pages that have it there. */
  beside: Map<number, Set<number>>;
}

const TEXT = blockKinds.indexOf('text');
/** A phrase on more pages than this is collected no further. */
const MOST_PAGES = 3000;
/** Words that a block needs besides those of the link: less is no sentence. */
const LEAST_BESIDE = 3;
/** How far around a mention longer names are looked for. */
const NAME_WORDS = 8;
/** What names another page, and this one only in part, is rarely meant. */
const OTHERS_NAME = 0.3;
/** A word on so much of the site names nothing by itself; less where it is only part of a name. */
const COMMON_WORD = 0.03;
const COMMON_PART = 0.01;
/** Words that are the same but for their inflection. */
const INFLECTED = 0.9;
/** How much less a mention names a target when its words are always of one kind of it. */
const NARROWED = 0.6;
/** In these languages the word that narrows another follows it. */
const narrowsAfter = new Set(['fr', 'es', 'it', 'pt']);

/** A part of the words of a page: from one to before another. */
type Span = readonly [start: number, end: number];

/** Whether words are cut out of a longer name, as capitals and numbers tell; in German all nouns have capitals. */
function isCut(index: TextIndex, words: PageWords, [start, end]: Span, first: number, last: number): boolean {
  if (index.languages[words.language] === 'de') return false;
  const text = (at: number) => index.formText(words.form[at]);
  const isName = (at: number) => /^\p{Lu}/u.test(text(at));
  const isNumber = (at: number) => /^\p{N}/u.test(text(at));
  const isApart = (at: number) => (words.flags[at] & IS_APART) !== 0;
  const next = last + 1;
  if (next < end && !isApart(next) && isName(last) && (isNumber(next) || isName(next))) return true;
  const before = first - 1;
  if (before < start || isApart(first) || !isName(first) || !isName(before)) return false;
  // What begins a sentence has a capital anyhow.
  return before > start && !isApart(before);
}

/** Other pages that are called by a phrase, and how precisely it names its own beside them. */
export function othersOf({ trie, pagesOfName }: Site, phrase: Phrase, target: number) {
  const end = trie.find(phrase.stems);
  const others = end < 0 ? [] : (pagesOfName[end] ?? []).filter((page) => page !== target);
  const isOwn = phrase.source === 'title' || phrase.source === 'h1' || phrase.source === 'anchor';
  const ambiguity = (1 + others.length) ** -0.2 * (others.length > 0 && !isOwn ? OTHERS_NAME : 1);
  return { fit: phrase.weight * ambiguity, others };
}

/** The pages that may have any of some phrases: those with the rarest word of one. */
function pagesWithAny(index: TextIndex, wanted: readonly (readonly Wanted[])[]): Iterable<number> {
  const found = new Set<number>();
  for (const [{ phrase }] of wanted) {
    const rarest = phrase.stems.reduce((a, b) => (index.pagesOfStem[b] < index.pagesOfStem[a] ? b : a));
    const pages = index.pagesWith(rarest);
    if (!pages) return index.pageNumbers;
    for (const page of pages) found.add(page);
  }
  return [...found].sort((a, b) => a - b);
}

/** So many words are looked through, or targets read, before others may have the processor. */
const SLICE_WORDS = 200_000;
const SLICE_TARGETS = 20;

/** Finds the mentions of some pages in all texts, or those of some sources, in one pass over them, in slices. */
export function* findMentions(
  site: Site,
  targets: readonly number[],
  options: PlaceOptions,
): Generator<void, TargetMentions[]> {
  const { view, index } = site;
  const words = pageWords();
  const linked = contentSources(view, new Set(targets));
  const trie = phraseTrie(index);
  /** By the end of each phrase, whose it is. */
  const wanted: Wanted[][] = [];
  const found: TargetMentions[] = [];
  for (const target of targets) {
    const of: TargetMentions = { target, mentions: [], phrasesOn: new Map() };
    if (found.push(of) % SLICE_TARGETS === 0) yield;
    for (const phrase of keyPhrases(site, target)) {
      const end = trie.add(phrase.stems);
      const { fit } = othersOf(site, phrase, target);
      const already = options.linkedToo ? new Set<number>() : linked.get(target)!;
      (wanted[end] ??= []).push({ of, linked: already, phrase, fit, pages: 0, last: -1, beside: new Map() });
    }
  }
  const begins = trie.beginnings();
  const read: { mention: Mention; one: Wanted; beside: number }[] = [];
  let left = SLICE_WORDS;
  for (const page of options.sources ?? pagesWithAny(index, wanted)) {
    if (!index.read(page, words)) continue;
    for (let block = 0; block < words.blocks; block++) lookThrough(page, block);
    if ((left -= words.words) > 0) continue;
    yield;
    left = SLICE_WORDS;
  }
  for (const { mention, one, beside } of read) mention.fit *= rarityOf(one) * (1 - NARROWED * narrowing(one, beside));
  return found;

  /** What is on few pages says more. Where only some are looked through, its rarest word tells. */
  function rarityOf({ phrase: { stems }, pages: seen }: Wanted): number {
    const pages = options.sources ? Math.min(...stems.map((stem) => index.pagesOfStem[stem])) : seen;
    return Math.sqrt(Math.max(0.05, 1 - Math.log(1 + pages) / Math.log(1 + index.pages)));
  }

  /**
   * How far a word beside a phrase narrows it to one kind of what it names, as “steam” does “trams”: how much of the
   * site that has the word has it there. On few pages it is not known whether the two belong together.
   */
  function narrowing({ beside }: Wanted, stem: number): number {
    return stem < 0 ? 0 : beside.get(stem)!.size / (1 + index.pagesOfStem[stem]);
  }

  /** Looks for all phrases in a block of the page at hand. */
  function lookThrough(page: number, block: number): void {
    const span: Span = [words.first[block], words.first[block + 1]];
    const [start, end] = span;
    let isPlace: boolean | null =
      site.isSource[page] === 1 && words.kind[block] === TEXT && end - start > LEAST_BESIDE ? null : false;
    for (let first = start; first < end; first++) {
      if (begins[words.form[first]] === 0) continue;
      const ends: [number, number][] = [];
      trie.at(words, first, end, (name, last) => ends.push([name, last]));
      // The longest match wins.
      for (const [name, last] of ends.reverse()) {
        const matching = wanted[name].filter(({ phrase }) => matches(phrase, first, last));
        const beside = stemBeside(span, first, last);
        matching.forEach((one) => note(one, page, beside));
        if (matching.length === 0 || isPlace === false) continue;
        isPlace ??= !index.recurs(words.form, start, end);
        if (!isPlace || !isFree(span, first, last) || isCut(index, words, span, first, last)) continue;
        const taken = matching.filter((one) => isWanted(one, page, span, first, last));
        for (const one of taken) {
          const { of, phrase } = one;
          const fit = one.fit * (isSame(phrase, first, last) ? 1 : INFLECTED);
          const mention = { source: page, block, first: first - start, last: last - start, phrase, fit };
          of.mentions.push(mention);
          read.push({ mention, one, beside });
        }
        if (taken.length > 0) break;
      }
    }
  }

  /** The word that may narrow others to one kind of what they name; -1 for none. */
  function stemBeside([start, end]: Span, first: number, last: number): number {
    const after = narrowsAfter.has(index.languages[words.language]);
    const at = after ? last + 1 : first - 1;
    if (at < start || at >= end || words.flags[after ? at : first] & IS_APART) return -1;
    return index.isSmall[words.form[at]] ? -1 : index.stemOfForm[words.form[at]];
  }

  function note(one: Wanted, page: number, beside: number): void {
    if (beside >= 0) one.beside.set(beside, (one.beside.get(beside) ?? new Set()).add(page));
    if (one.last === page) return;
    one.last = page;
    one.pages++;
    one.of.phrasesOn.set(page, (one.of.phrasesOn.get(page) ?? 0) + 1);
  }

  function isWanted({ of, linked, phrase, pages }: Wanted, page: number, span: Span, first: number, last: number) {
    if (pages > MOST_PAGES || linked.has(page) || of.target === page) return false;
    return !isLoneCommon(phrase, first) && !isWithinLonger(span, first, last, of.target);
  }

  /** A name in capitals matches only capitals, and no other small words are within than those of its own. */
  function matches({ inCapitals, small }: Phrase, first: number, last: number): boolean {
    let at = first;
    for (const capitals of inCapitals) {
      for (; at <= last && index.isSmall[words.form[at]]; at++) {
        const word = index.formText(words.form[at]).toLowerCase();
        if (!small.has(word) && !isLinkWord(word)) return false;
      }
      if (capitals && !isInCapitals(index.formText(words.form[at]))) return false;
      at++;
    }
    return true;
  }

  /** Whether no word is in a link, or in code, and some words of the block are in none. */
  function isFree([start, end]: Span, first: number, last: number): boolean {
    for (let at = first; at <= last; at++)
      if (words.flags[at] & (options.inCode ? IN_LINK : IN_LINK | IN_CODE)) return false;
    let beside = first - last - 1;
    for (let at = start; at < end; at++) if (!(words.flags[at] & IN_LINK)) beside++;
    return beside >= LEAST_BESIDE;
  }

  /** Whether it is one word that is written as any other. */
  function isLoneCommon({ stems, source }: Phrase, first: number): boolean {
    if (stems.length > 1) return false;
    const text = index.formText(words.form[first]);
    const isSpecial =
      isInCapitals(text) || codeName.test(text) || /\p{N}/u.test(text) || (words.flags[first] & IN_CODE) !== 0;
    const most = source === 'part' || source === 'heading' ? COMMON_PART : COMMON_WORD;
    return !isSpecial && index.pagesOfStem[stems[0]] > most * index.pages;
  }

  /** Whether the words stand within a longer name of another page. */
  function isWithinLonger([start, end]: Span, first: number, last: number, target: number): boolean {
    let isWithin = false;
    for (let at = Math.max(start, first - NAME_WORDS); at <= first && !isWithin; at++)
      site.trie.at(words, at, end, (name, to) => {
        const isLonger = to >= last && (at < first || to > last);
        if (isLonger && !site.pagesOfName[name].includes(target)) isWithin = true;
      });
    return isWithin;
  }

  /** Whether words are those of a phrase, case apart. */
  function isSame({ text }: Phrase, first: number, last: number): boolean {
    const said = Array.from(words.form.subarray(first, last + 1), (form) => index.formText(form));
    return said.join(' ').toLowerCase() === text.toLowerCase();
  }
}
