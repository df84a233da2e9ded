/** Places on a site that could link to a page: sentences of other pages that mention it and do not link. */
import { CLICK_KIND } from '../links';
import { DAMPING } from '../share';
import type { TextBlock } from '../html';
import { pageWords, withGivenText } from '../textIndex';
import type { TextIndex } from '../textIndex';
import type { View } from '../view';
import { likenessTo } from './likeness';
import { findMentions, othersOf } from './mentions';
import type { Mention, Mentioned, PlaceOptions, TargetMentions } from './mentions';
import { readSite } from './site';
import type { Site } from './site';

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
  /** The places for each of some pages, the best first; no two of one source. They come in slices of a moment each. */
  to: (targets: readonly number[], options?: PlaceOptions) => Generator<void, Map<number, FoundPlace[]>>;
  /** The places on one page for links to others, the best first; no words twice. Likewise. */
  from: (source: number, options?: PlaceOptions) => Generator<void, FoundPlace[]>;
  /** The places in a text that is not on the site, in the language of the site that it seems to be in. */
  inText: (
    blocks: readonly TextBlock[],
    options?: PlaceOptions,
  ) => Generator<void, { language: string; found: FoundPlace[] }>;
  site: Site;
}

/** Worse places are not worth a look. */
export const LEAST_SCORE = 0.15;
/** Better ones are counted as good: most of them are right. */
export const GOOD_SCORE = 0.3;
/** So many sources of a target are compared with it. */
const MOST_COMPARED = 400;
/** Other mentions of a page that are kept. */
const MOST_ALSO = 5;

/** Places whose scores differ by less are as good: then what the link would bring decides. */
const GRADE = 0.02;
const gradeOf = ({ score }: FoundPlace) => Math.round(score / GRADE);

/** The mentions of one target by their sources, the best first, and so the sources. */
function bySource(mentions: readonly Mention[]): Mention[][] {
  const found = new Map<number, Mention[]>();
  for (const one of [...mentions].sort((a, b) => b.fit - a.fit)) {
    const known = found.get(one.source);
    if (!known) found.set(one.source, [one]);
    else if (known.length <= MOST_ALSO) known.push(one);
  }
  return [...found.values()];
}

/** Looks for places with what is known of a site. */
function finderOf(site: Site): Pick<Places, 'to' | 'from'> {
  const { view, index } = site;
  const likeness = likenessTo(index);
  const [share, linked] = [view.column('share'), view.column('pages_linked')];

  /** The pages that a page links to. */
  function linkedFrom(page: number): Set<number> {
    const { offsets, kind, target } = view.links;
    const found = new Set<number>();
    for (let link = offsets[page]; link < offsets[page + 1]; link++)
      if (kind[link] === CLICK_KIND) found.add(target[link]);
    return found;
  }

  function rank({ target, mentions, phrasesOn }: TargetMentions, least: number): FoundPlace[] {
    const sources = bySource(mentions).slice(0, MOST_COMPARED);
    if (sources.length === 0) return [];
    const alike = likeness(target);
    const back = linkedFrom(target);
    const found: FoundPlace[] = [];
    for (const [{ source, fit, ...mentioned }, ...also] of sources) {
      const more = 1 + 0.1 * Math.min(5, (phrasesOn.get(source) ?? 1) - 1);
      const most = fit * more * (back.has(source) ? 1.1 : 1);
      // However alike the pages are, it comes to no more.
      if (most < least) continue;
      const relatedness = alike(source);
      const score = most * (0.35 + 0.65 * Math.min(1, relatedness / 0.5));
      if (score < least) continue;
      found.push({
        ...mentioned,
        source,
        target,
        score: Math.min(1, score),
        phraseFit: fit,
        relatedness,
        // A text that is given has no share yet.
        shareGain: source < view.count ? (DAMPING * Math.max(0, share[source])) / (Math.max(0, linked[source]) + 1) : 0,
        others: othersOf(site, mentioned.phrase, target).others,
        also,
      });
    }
    return found.sort((a, b) => gradeOf(b) - gradeOf(a) || b.shareGain - a.shareGain || a.source - b.source);
  }

  function* to(targets: readonly number[], options: PlaceOptions = {}): Generator<void, Map<number, FoundPlace[]>> {
    const found = new Map<number, FoundPlace[]>();
    for (const one of yield* findMentions(site, targets, options)) {
      found.set(one.target, rank(one, options.least ?? LEAST_SCORE));
      yield;
    }
    return found;
  }

  function* from(source: number, options: PlaceOptions = {}): Generator<void, FoundPlace[]> {
    const words = pageWords();
    if (!index.read(source, words)) return [];
    const stems = new Set(Array.from(words.form.subarray(0, words.words), (form) => index.stemOfForm[form]));
    const targets = (yield* site.pagesNamedBy(stems)).filter((page) => page !== source);
    const found = [...(yield* to(targets, { ...options, sources: [source] })).values()].flat();
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

  return { to, from };
}

/** Looks for places on a site. What is made of it at first is kept for all later questions. */
export function placesOf(view: View, index: TextIndex): Places {
  const site = readSite(view, index);
  return {
    ...finderOf(site),
    site,
    *inText(blocks, options) {
      const page = view.count;
      const given = withGivenText(index, page, blocks);
      const isSource = new Uint8Array(page + 1);
      isSource.set(site.isSource);
      isSource[page] = 1;
      const languageOf = (one: number) => (one === page ? given.languageNumber(page) : site.languageOf(one));
      return {
        language: index.languages[given.languageNumber(page)],
        found: yield* finderOf({ ...site, index: given, isSource, languageOf }).from(page, options),
      };
    },
  };
}

/** Targets whose places are looked for in one pass over all texts. */
const TOGETHER = 300;

/**
 * Targets in batches, each for one pass over all texts: only the first ones, where more passes would be too much.
 * @param mostWords words that are looked at in all passes together
 */
export function targetBatches({ site }: Places, targets: readonly number[], mostWords: number): number[][] {
  const passes = Math.max(1, Math.floor(mostWords / Math.max(1, site.index.words)));
  const batches: number[][] = [];
  for (let at = 0; at < targets.length && batches.length < passes; at += TOGETHER)
    batches.push(targets.slice(at, at + TOGETHER));
  return batches;
}
