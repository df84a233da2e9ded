/** Places on a site that could link to a page: sentences of other pages that mention it and do not link. */
import { CLICK_KIND } from '../links';
import { blockKinds } from '../html';
import { isInCapitals, isLinkWord } from '../language';
import { DAMPING } from '../share';
import { IN_CODE, IN_LINK, IS_APART, pageWords } from '../textIndex';
import type { PageWords, TextIndex } from '../textIndex';
import type { View } from '../view';
import { likenessTo } from './likeness';
import { codeName, keyPhrases } from './phrases';
import type { Phrase } from './phrases';
import { contentSources, readSite } from './site';
import type { Site } from './site';
import { phraseTrie } from './trie';

export interface PlaceOptions {
  /** Whether words in code may become links. */
  inCode?: boolean;
  /** Whether pages count that link to the target from their content already. */
  linkedToo?: boolean;
  /** The least score; {@link LEAST_SCORE} without. */
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

/** A place that was found, by the words of the index. */
export interface FoundPlace extends Mentioned {
  source: number;
  target: number;
  /** All in all, from 0 to 1: the higher the better. */
  score: number;
  /** How precisely the words name the target, and how alike the two pages are, from 0 to 1. */
  phraseFit: number;
  relatedness: number;
  /** What the link would bring the target of share. */
  shareGain: number;
  /** Other pages that the same words could mean. */
  others: readonly number[];
  /** Other mentions on the same page, for when the words cannot be linked there. */
  also: readonly Mentioned[];
}

export interface Places {
  /** The places for each of some pages, the best first; no two of one source. */
  to: (targets: readonly number[], options?: PlaceOptions) => Map<number, FoundPlace[]>;
  /** The places on one page for links to others, the best first; no words twice. */
  from: (source: number, options?: PlaceOptions) => FoundPlace[];
  site: Site;
}

const TEXT = blockKinds.indexOf('text');
/** A phrase on more pages than this is collected no further. */
const MOST_PAGES = 3000;
/** So many sources of a target are compared with it. */
const MOST_COMPARED = 400;
/** Other mentions of a page that are kept. */
const MOST_ALSO = 5;
/** Words that a block needs besides those of the link: less is no sentence. */
const LEAST_BESIDE = 3;
/** How far around a mention longer names are looked for. */
const NAME_WORDS = 8;
/** Worse places are not worth a look. */
export const LEAST_SCORE = 0.15;
/** Better ones are counted as good: most of them are right. */
export const GOOD_SCORE = 0.3;
/** What names another page, and this one only in part, is rarely meant. */
const OTHERS_NAME = 0.3;
/** A word on so much of the site names nothing by itself. */
const COMMON_WORD = 0.03;
const COMMON_PART = 0.01;

/** A mention of a target, before its source is looked at. */
interface Mention extends Mentioned {
  source: number;
  fit: number;
}

/** What is looked for of one target. */
interface Task {
  target: number;
  linked: ReadonlySet<number>;
  mentions: Mention[];
  /** By source how many different phrases of the target it has. */
  phrasesOn: Map<number, number>;
}

/** What can be said of a phrase before texts are read. */
interface Wanted {
  task: Task;
  phrase: Phrase;
  /** How precisely it names the target, all that a mention adds aside. */
  fit: number;
  pages: number;
  last: number;
}

/** @param inGerman where all nouns have a capital, which says nothing */
function isCut(index: TextIndex, words: PageWords, first: number, last: number, end: number, start: number) {
  const text = (at: number) => index.formText(words.form[at]);
  const isName = (at: number) => /^\p{Lu}/u.test(text(at));
  const isNumber = (at: number) => /^\p{N}/u.test(text(at));
  const goesOn = (at: number) => at < end && !(words.flags[at] & IS_APART);
  if (goesOn(last + 1) && isName(last) && (isNumber(last + 1) || isName(last + 1))) return true;
  const before = first - 1;
  if (before < start || words.flags[first] & IS_APART || !isName(first) || !isName(before)) return false;
  // What begins a sentence has a capital anyhow.
  return before > start && !(words.flags[before] & IS_APART);
}

function fitOf(site: Site, phrase: Phrase, target: number): { fit: number; others: number[] } {
  const end = site.trie.find(phrase.stems);
  const others = end < 0 ? [] : (site.pagesOfName[end] ?? []).filter((page) => page !== target);
  const isOwn = phrase.source === 'title' || phrase.source === 'h1' || phrase.source === 'anchor';
  const ambiguity = (1 + others.length) ** -0.2 * (others.length > 0 && !isOwn ? OTHERS_NAME : 1);
  return { fit: phrase.weight * ambiguity, others };
}

/** Looks for places on a site. What is made of it at first is kept for all later questions. */
export function placesOf(view: View, index: TextIndex): Places {
  const site = readSite(view, index);
  const likeness = likenessTo(index);
  const words = pageWords();

  /** Whether the words stand within a longer name of another page. */
  function isWithinLonger(
    start: number,
    end: number,
    { first, last }: Pick<Mention, 'first' | 'last'>,
    target: number,
  ) {
    let found = false;
    for (let at = Math.max(start, first - NAME_WORDS); at <= first && !found; at++)
      site.trie.at(words, at, end, (name, to) => {
        const isLonger = to >= last && (at < first || to > last);
        if (isLonger && !site.pagesOfName[name].includes(target)) found = true;
      });
    return found;
  }

  function to(targets: readonly number[], options: PlaceOptions = {}): Map<number, FoundPlace[]> {
    const linked = contentSources(view, new Set(targets));
    const trie = phraseTrie(index);
    const wanted: Wanted[][] = [];
    const tasks = targets.map((target): Task => {
      const task: Task = {
        target,
        linked: options.linkedToo ? new Set() : linked.get(target)!,
        mentions: [],
        phrasesOn: new Map(),
      };
      const { anchors, isGeneric, rarity, pagesOfCode, languageOf } = site;
      const language = languageOf(target);
      if (language < 0) return task;
      const call = { page: target, language, anchors: anchors.get(target), isGeneric, rarity, pagesOfCode };
      for (const phrase of keyPhrases(view, index, site.names, call)) {
        const end = trie.add(phrase.stems);
        (wanted[end] ??= []).push({ task, phrase, fit: fitOf(site, phrase, target).fit, pages: 0, last: -1 });
      }
      return task;
    });
    /** Looks for all phrases on the page at hand. */
    function lookThrough(page: number): void {
      const isSource = site.isSource[page] === 1;
      for (let block = 0; block < words.blocks; block++) {
        const [start, end] = [words.first[block], words.first[block + 1]];
        const isText = isSource && words.kind[block] === TEXT && end - start > LEAST_BESIDE;
        let recurs: boolean | null = null;
        for (let first = start; first < end; first++) {
          const found: [number, number][] = [];
          trie.at(words, first, end, (name, last) => found.push([name, last]));
          // The longest match wins.
          for (const [name, last] of found.reverse()) {
            let isTaken = false;
            for (const one of wanted[name]) {
              if (!matches(one.phrase, first, last)) continue;
              note(one, page);
              if (!isText || one.pages > MOST_PAGES || one.task.linked.has(page) || one.task.target === page) continue;
              recurs ??= index.recurs(words.form, start, end);
              if (recurs || !isFree(start, end, first, last) || isCutName(start, end, first, last)) continue;
              if (isLoneCommon(one.phrase, first) || isWithinLonger(start, end, { first, last }, one.task.target))
                continue;
              const fit = one.fit * formFactor(one.phrase, first, last);
              one.task.mentions.push({
                source: page,
                block,
                first: first - start,
                last: last - start,
                phrase: one.phrase,
                fit,
              });
              isTaken = true;
            }
            if (isTaken) break;
          }
        }
      }
    }

    function note(one: Wanted, page: number): void {
      if (one.last === page) return;
      one.last = page;
      one.pages++;
      const { phrasesOn } = one.task;
      phrasesOn.set(page, (phrasesOn.get(page) ?? 0) + 1);
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
    function isFree(start: number, end: number, first: number, last: number): boolean {
      for (let at = first; at <= last; at++)
        if (words.flags[at] & (options.inCode ? IN_LINK : IN_LINK | IN_CODE)) return false;
      let beside = first - last - 1;
      for (let at = start; at < end; at++) if (!(words.flags[at] & IN_LINK)) beside++;
      return beside >= LEAST_BESIDE;
    }

    const isCutName = (start: number, end: number, first: number, last: number) =>
      index.languages[words.language] !== 'de' && isCut(index, words, first, last, end, start);

    /** Whether it is one word that is written as any other. */
    function isLoneCommon({ stems, source }: Phrase, first: number): boolean {
      if (stems.length > 1) return false;
      const text = index.formText(words.form[first]);
      const isSpecial =
        isInCapitals(text) || codeName.test(text) || /\p{N}/u.test(text) || (words.flags[first] & IN_CODE) !== 0;
      const most = source === 'part' || source === 'heading' ? COMMON_PART : COMMON_WORD;
      return !isSpecial && index.pagesOfStem[stems[0]] > most * index.pages;
    }

    function formFactor(phrase: Phrase, first: number, last: number): number {
      const said: string[] = [];
      for (let at = first; at <= last; at++) said.push(index.formText(words.form[at]));
      return said.join(' ').toLowerCase() === phrase.text.toLowerCase() ? 1 : 0.9;
    }

    for (const page of options.sources ?? index.pageNumbers) if (index.read(page, words)) lookThrough(page);
    const pagesWith = new Map<Phrase, number>();
    for (const some of wanted) for (const { phrase, pages } of some ?? []) pagesWith.set(phrase, pages);
    return new Map(tasks.map((task) => [task.target, rank(task, pagesWith, options.least ?? LEAST_SCORE)]));
  }

  const scale = Math.log(1 + index.pages);
  /** What is on few pages says more. */
  const rarityOf = (pages: number) => Math.sqrt(Math.max(0.05, 1 - Math.log(1 + pages) / scale));

  function rank(
    { target, mentions, phrasesOn }: Task,
    pagesWith: ReadonlyMap<Phrase, number>,
    least: number,
  ): FoundPlace[] {
    /** By source the best mention, then the others. */
    const best = new Map<number, Mention[]>();
    const fitted = mentions.map((one) => ({ ...one, fit: one.fit * rarityOf(pagesWith.get(one.phrase)!) }));
    for (const one of fitted.sort((a, b) => b.fit - a.fit)) {
      const known = best.get(one.source);
      if (!known) best.set(one.source, [one]);
      else if (known.length <= MOST_ALSO) known.push(one);
    }
    const most = [...best.values()].slice(0, MOST_COMPARED);
    if (most.length === 0) return [];
    const alike = likeness(target);
    const [share, linked, { offsets, kind, target: targets }] = [
      view.column('share'),
      view.column('pages_linked'),
      view.links,
    ];
    const back = new Set<number>();
    for (let link = offsets[target]; link < offsets[target + 1]; link++)
      if (kind[link] === CLICK_KIND) back.add(targets[link]);
    return most
      .map(([one, ...also]): FoundPlace => {
        const { source, block, first, last, phrase, fit } = one;
        const relatedness = alike(source);
        const more = 1 + 0.1 * Math.min(5, (phrasesOn.get(source) ?? 1) - 1);
        const score = fit * (0.35 + 0.65 * Math.min(1, relatedness / 0.5)) * more * (back.has(source) ? 1.1 : 1);
        return {
          source,
          target,
          block,
          first,
          last,
          phrase,
          score: Math.min(1, score),
          phraseFit: fit,
          relatedness,
          shareGain: (DAMPING * Math.max(0, share[source])) / (Math.max(0, linked[source]) + 1),
          others: fitOf(site, phrase, target).others,
          also,
        };
      })
      .filter(({ score }) => score >= least)
      .sort((a, b) => b.score - a.score || a.source - b.source);
  }

  function from(source: number, options: PlaceOptions = {}): FoundPlace[] {
    if (!index.read(source, words)) return [];
    const stems = new Set(Array.from(words.form.subarray(0, words.words), (form) => index.stemOfForm[form]));
    // Pages of whose name every word is there, or whose links are called so.
    const targets = site.pagesNamedBy(stems).filter((page) => page !== source);
    const found = [...to(targets, { ...options, sources: [source] }).values()].flat();
    const taken = new Set<string>();
    return found
      .sort((a, b) => b.score - a.score || a.target - b.target)
      .filter(({ block, first, last }) => {
        const own = Array.from({ length: last - first + 1 }, (_, i) => `${block} ${first + i}`);
        const isFree = own.every((word) => !taken.has(word));
        if (isFree) own.forEach((word) => taken.add(word));
        return isFree;
      });
  }

  return { to, from, site };
}
