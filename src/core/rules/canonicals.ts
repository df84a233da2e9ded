/** Canonicals in detail: what becomes of each, and the clusters of pages that name one address (RFC 6596). */
import { verdicts } from '../facts';
import type { Verdict } from '../facts';
import { linkElements, linkKinds, RELATIVE } from '../links';
import { addressAt, memoOf, pageOf, pagesNamed, textAt } from '../snapshot';
import type { Reading } from '../snapshot';
import { NEARLY_ALL } from './pageRules';

/** What becomes of a canonical; `agrees` names the page itself, `other` another page that may be indexed. */
export const canonicalOutcomes = [
  'agrees',
  'other',
  'chain',
  'loop',
  'to_redirect',
  'to_broken',
  'to_noindex',
  'to_blocked',
  'to_other',
  'unknown',
  'outside',
  'missing',
] as const;
export type CanonicalOutcome = (typeof canonicalOutcomes)[number];

/** What is odd about how a canonical is given. */
export const canonicalFlags = ['several', 'relative', 'in_body', 'header_against_tag'] as const;
export type CanonicalFlag = (typeof canonicalFlags)[number];

export interface PageCanonical {
  page: number;
  /** The address that is named; null when none is. */
  canonical: string | null;
  /** The page that is named; −1 when it is none of the site. */
  target: number;
  outcome: CanonicalOutcome;
  flags: CanonicalFlag[];
  /** Where the chain of canonicals and redirects ends; the page itself when it names none. */
  end: string;
}

const canonicalReads = [
  'url',
  'html',
  'status',
  'verdict',
  'canonical',
  'redirect_to',
  'outside',
  'targets',
  'places',
  'fragments',
  'phrases',
] as const;
type CanonicalBase = Reading<(typeof canonicalReads)[number]>;

const CANONICAL = linkKinds.indexOf('canonical');
const HTTP = linkElements.indexOf('http');

const byVerdict: Partial<Record<Verdict, CanonicalOutcome>> = {
  indexable: 'other',
  unvisited: 'unknown',
  redirect: 'to_redirect',
  broken: 'to_broken',
  noindex: 'to_noindex',
  blocked: 'to_blocked',
};

function flagsOf({ links, phrases }: CanonicalBase, page: number): CanonicalFlag[] {
  const [inHeader, inDocument] = [new Set<number>(), new Set<number>()];
  const flags = new Set<CanonicalFlag>();
  for (let link = links.offsets[page]; link < links.offsets[page + 1]; link++) {
    if (links.kind[link] !== CANONICAL) continue;
    const isHeader = links.element[link] === HTTP;
    (isHeader ? inHeader : inDocument).add(links.target[link]);
    if (links.marks[link] & RELATIVE) flags.add('relative');
    if (!isHeader && phrases[links.above[link]]?.startsWith('body')) flags.add('in_body');
  }
  if (new Set([...inHeader, ...inDocument]).size > 1) {
    flags.add('several');
    if (inHeader.size && [...inDocument].some((target) => !inHeader.has(target))) flags.add('header_against_tag');
  }
  return canonicalFlags.filter((flag) => flags.has(flag));
}

/** Every page that was read and answered 200, with what becomes of its canonical. */
export const canonicalsOf = memoOf(canonicalReads, (snapshot): PageCanonical[] => {
  const html = snapshot.column('html');
  const status = snapshot.column('status');
  const verdict = snapshot.column('verdict');
  const named = pagesNamed(snapshot, 'canonical');
  const redirected = pagesNamed(snapshot, 'redirect_to');
  const verdictAt = (page: number) => verdicts[verdict[page]];
  /** Where a page leads on to; −1 when to none of the site. */
  const nextOf = (page: number) => {
    if (verdictAt(page) === 'redirect') return redirected[page];
    return verdictAt(page) === 'canonicalised' ? named[page] : -1;
  };
  const endOf = (page: number, target: number, address: string): { end: string; isLoop: boolean } => {
    const seen = new Set([page]);
    let at = target;
    while (at >= 0 && !seen.has(at)) {
      seen.add(at);
      const next = nextOf(at);
      if (next < 0) return { end: addressAt(snapshot, at), isLoop: false };
      at = next;
    }
    return { end: at < 0 ? address : addressAt(snapshot, at), isLoop: at >= 0 };
  };
  const found: PageCanonical[] = [];
  for (let page = 0; page < snapshot.count; page++) {
    if (html[page] !== 1 || status[page] !== 200) continue;
    const own = addressAt(snapshot, page);
    const address = textAt(snapshot, 'canonical', page);
    const flags = flagsOf(snapshot, page);
    if (address === null) {
      found.push({ page, canonical: null, target: -1, outcome: 'missing', flags, end: own });
      continue;
    }
    const target = named[page];
    if (target === page) {
      found.push({ page, canonical: address, target, outcome: 'agrees', flags, end: own });
      continue;
    }
    const { end, isLoop } = endOf(page, target, address);
    const to = target < 0 ? null : verdictAt(target);
    const outcome =
      to === null ? 'outside' : isLoop ? 'loop' : to === 'canonicalised' ? 'chain' : (byVerdict[to] ?? 'to_other');
    found.push({ page, canonical: address, target, outcome, flags, end });
  }
  return found;
});

/** The pages whose canonicals lead to one address. */
export interface CanonicalCluster {
  /** Where they lead. */
  end: string;
  /** Its page; −1 when it is none of the site. */
  page: number;
  /** Those that name another address than their own. */
  members: PageCanonical[];
  /** How many of them have an outcome other than `other`, or a flag. */
  odd: number;
}

/** Whether nothing is wrong with a canonical. */
export const isFine = ({ outcome, flags }: Pick<PageCanonical, 'outcome' | 'flags'>) =>
  (outcome === 'agrees' || outcome === 'other') && flags.length === 0;

/** Clusters of pages, those with most that is odd first. */
export const canonicalClustersOf = memoOf(canonicalReads, (snapshot): CanonicalCluster[] => {
  const clusters = new Map<string, PageCanonical[]>();
  for (const one of canonicalsOf(snapshot)) {
    if (one.outcome === 'missing' || one.outcome === 'agrees') continue;
    const members = clusters.get(one.end) ?? [];
    clusters.set(one.end, members);
    members.push(one);
  }
  return [...clusters]
    .map(([end, members]) => ({
      end,
      page: pageOf(snapshot, end),
      members,
      odd: members.filter((one) => !isFine(one)).length,
    }))
    .sort((a, b) => b.odd - a.odd || b.members.length - a.members.length || (a.end < b.end ? -1 : 1));
});

/**
 * Pages whose canonicals have the same outcome or flag, and that one edit of a template mends where all of its pages
 * have it.
 */
export interface CanonicalGroup {
  kind: CanonicalOutcome | CanonicalFlag;
  /** Null when nearly all pages of the site have it, whatever their template. */
  template: string | null;
  pages: number[];
  /**
   * How many pages of the template, or of the site, answered 200: the template is the cause where that is all of them.
   */
  of: number;
}

function addTo<K>(pages: Map<K, number[]>, key: K, page: number): void {
  const known = pages.get(key);
  if (known) known.push(page);
  else pages.set(key, [page]);
}

/** What is wrong with canonicals, by kind and template, the most frequent first. */
export const canonicalGroupsOf = memoOf([...canonicalReads, 'template'], (snapshot): CanonicalGroup[] => {
  const all = canonicalsOf(snapshot);
  const templateOf = (page: number) => textAt(snapshot, 'template', page) ?? '';
  const sizes = new Map<string, number>();
  const byKind = new Map<CanonicalGroup['kind'], number[]>();
  for (const { page, outcome, flags } of all) {
    sizes.set(templateOf(page), (sizes.get(templateOf(page)) ?? 0) + 1);
    const odd = outcome === 'agrees' || outcome === 'other' ? [] : [outcome];
    for (const kind of [...odd, ...flags]) addTo(byKind, kind, page);
  }
  return [...byKind]
    .flatMap(([kind, pages]): CanonicalGroup[] => {
      if (pages.length >= NEARLY_ALL * all.length && sizes.size > 1)
        return [{ kind, template: null, pages, of: all.length }];
      const byTemplate = new Map<string, number[]>();
      for (const page of pages) addTo(byTemplate, templateOf(page), page);
      return [...byTemplate].map(([template, of]) => ({ kind, template, pages: of, of: sizes.get(template)! }));
    })
    .sort((a, b) => b.pages.length - a.pages.length);
});
