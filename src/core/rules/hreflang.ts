/** hreflang: which pages are editions of one another, and where they do not agree. */
import { isLanguageCode } from '../anchors';
import { INDEXABLE } from '../facts';
import { faultBit, linkElements, linkKinds } from '../links';
import { addressAt, memoOf, pageOf } from '../snapshot';
import type { Reading } from '../snapshot';

export const hreflangFaults = [
  'no_return',
  'bad_code',
  'not_indexable',
  'several',
  'no_self',
  'no_default',
  'header_against_tag',
  'sitemap_against_page',
] as const;
export type HreflangFault = (typeof hreflangFaults)[number];

/** One edition that a page names. */
export interface HreflangLink {
  page: number;
  /** As written, in lower case. */
  language: string;
  target: string;
  /** The page that is named; −1 when it is none of the site. */
  targetPage: number;
  source: 'tag' | 'header' | 'sitemap';
  faults: HreflangFault[];
}

/** Pages that name each other as editions. */
export interface HreflangSet {
  /** Pages of the site, ascending. */
  pages: number[];
  /** Languages that occur, `x-default` last. */
  languages: string[];
  links: HreflangLink[];
  /** Faults of a page as a whole: `several`, `no_self`, `no_default`, `header_against_tag`, `sitemap_against_page`. */
  pageFaults: Map<number, HreflangFault[]>;
}

const setReads = [
  'targets',
  'words',
  'places',
  'faults',
  'phrases',
  'outside',
  'alternates',
  'url',
  'verdict',
] as const;
type HreflangBase = Reading<(typeof setReads)[number]>;

const HREFLANG = linkKinds.indexOf('hreflang');
const HTTP = linkElements.indexOf('http');
const [NO_RETURN, BAD_CODE] = (['no_return', 'bad_code'] as const).map(faultBit);

function linksOf(snapshot: HreflangBase, page: number): HreflangLink[] {
  const { links, count, phrases, column } = snapshot;
  const verdict = column('verdict');
  const found: HreflangLink[] = [];
  for (let link = links.offsets[page]; link < links.offsets[page + 1]; link++) {
    if (links.kind[link] !== HREFLANG) continue;
    const target = links.target[link];
    const inside = target < count;
    const faults: HreflangFault[] = [];
    if (links.faults[link] & NO_RETURN) faults.push('no_return');
    if (links.faults[link] & BAD_CODE) faults.push('bad_code');
    if (inside && verdict[target] !== INDEXABLE) faults.push('not_indexable');
    found.push({
      page,
      language: phrases[links.anchor[link]].toLowerCase(),
      target: addressAt(snapshot, target),
      targetPage: inside ? target : -1,
      source: links.element[link] === HTTP ? 'header' : 'tag',
      faults,
    });
  }
  return found;
}

/**
 * The editions that sitemaps name, by page. A page is named in return when the one that it names does so in a sitemap
 * or in its own document.
 */
function listedLinks(snapshot: HreflangBase): Map<number, HreflangLink[]> {
  const { alternates, count, column, links } = snapshot;
  const verdict = column('verdict');
  const targets = alternates.map(({ address }) => pageOf(snapshot, address));
  const named = new Set(alternates.map(({ page }, i) => page * count + targets[i]));
  const namesBack = (page: number, target: number) => {
    if (named.has(target * count + page)) return true;
    for (let link = links.offsets[target]; link < links.offsets[target + 1]; link++)
      if (links.kind[link] === HREFLANG && links.target[link] === page) return true;
    return false;
  };
  const found = new Map<number, HreflangLink[]>();
  alternates.forEach(({ page, language, address }, i) => {
    const target = targets[i];
    const faults: HreflangFault[] = [];
    if (target >= 0 && target !== page && !namesBack(page, target)) faults.push('no_return');
    if (!isLanguageCode(language)) faults.push('bad_code');
    if (target >= 0 && verdict[target] !== INDEXABLE) faults.push('not_indexable');
    const own = found.get(page) ?? [];
    found.set(page, own);
    own.push({ page, language, target: address, targetPage: target, source: 'sitemap', faults });
  });
  return found;
}

function faultsOfPage(page: number, links: readonly HreflangLink[]): HreflangFault[] {
  const faults: HreflangFault[] = [];
  const targets = new Map<string, Set<string>>();
  for (const { language, target } of links) targets.set(language, (targets.get(language) ?? new Set()).add(target));
  if ([...targets.values()].some(({ size }) => size > 1)) faults.push('several');
  if (!links.some(({ targetPage }) => targetPage === page)) faults.push('no_self');
  if (!targets.has('x-default')) faults.push('no_default');
  const said = (...from: HreflangLink['source'][]) =>
    links
      .filter(({ source }) => from.includes(source))
      .map(({ language, target }) => `${language} ${target}`)
      .sort();
  const [tag, header] = [said('tag'), said('header')];
  if (tag.length && header.length && tag.join('\n') !== header.join('\n')) faults.push('header_against_tag');
  const [listed, own] = [said('sitemap'), [...new Set(said('tag', 'header'))]];
  if (listed.length && own.length && [...new Set(listed)].join('\n') !== own.join('\n'))
    faults.push('sitemap_against_page');
  return faults;
}

const last = 'x-default';
const byLanguage = (a: string, b: string) => Number(a === last) - Number(b === last) || (a < b ? -1 : Number(a > b));

/** The sets of editions of a site, the largest first. Pages are of one set when one names the other. */
export const hreflangSetsOf = memoOf(setReads, (snapshot): HreflangSet[] => {
  const parent = new Map<number, number>();
  const rootOf = (page: number): number => {
    let at = page;
    while (parent.get(at) !== at) at = parent.get(at)!;
    for (let step = page; step !== at;) {
      const next = parent.get(step)!;
      parent.set(step, at);
      step = next;
    }
    return at;
  };
  const add = (page: number) => parent.has(page) || parent.set(page, page);
  const byPage = new Map<number, HreflangLink[]>();
  const listed = listedLinks(snapshot);
  for (let page = 0; page < snapshot.count; page++) {
    const links = [...linksOf(snapshot, page), ...(listed.get(page) ?? [])];
    if (links.length === 0) continue;
    byPage.set(page, links);
    add(page);
    for (const { targetPage } of links) {
      if (targetPage < 0) continue;
      add(targetPage);
      parent.set(rootOf(targetPage), rootOf(page));
    }
  }
  const sets = new Map<number, number[]>();
  for (const page of [...parent.keys()].sort((a, b) => a - b)) {
    const pages = sets.get(rootOf(page)) ?? [];
    sets.set(rootOf(page), pages);
    pages.push(page);
  }
  return [...sets.values()]
    .map((pages) => {
      const links = pages.flatMap((page) => byPage.get(page) ?? []);
      const languages = [...new Set(links.map(({ language }) => language))].sort(byLanguage);
      const pageFaults = new Map<number, HreflangFault[]>();
      for (const page of pages) {
        const own = byPage.get(page);
        const faults = own ? faultsOfPage(page, own) : [];
        if (faults.length) pageFaults.set(page, faults);
      }
      return { pages, languages, links, pageFaults };
    })
    .sort((a, b) => b.pages.length - a.pages.length || a.pages[0] - b.pages[0]);
});

/** Whether something is wrong with a set; that no page is named for all other languages is none, only told. */
export const isFaulty = ({ links, pageFaults }: HreflangSet): boolean =>
  links.some(({ faults }) => faults.length > 0) ||
  [...pageFaults.values()].some((faults) => faults.some((fault) => fault !== 'no_default'));
