/** Works out everything that a snapshot says about its pages, from what was found and from all links together. */
import { countEqual, findVariants, nearDuplicates } from '../alike';
import { findLinkFaults } from '../anchors';
import { fragmentName } from '../html';
import { anchorFaults, faultBit, isResource, linkKinds } from '../links';
import type { LinkKind } from '../links';
import {
  clickDepths,
  countLinks,
  dominators,
  gatesOf,
  heldBackBy,
  incomingPages,
  islandNumbers,
  pageGraph,
  reachOf,
} from '../reach';
import { patternTest } from '../scope';
import { siteShare } from '../share';
import { addressParts } from '../url';
import { canonicalState, canonicalStates, followRedirects, judge, verdicts } from '../verdict';
import type { PageRecord, SnapshotRest } from './build';
import { textColumn } from './column';
import type { NumberColumn } from './column';
import { sources } from './facts';
import type { Source } from './facts';
import { crawlerGraph, crawlerStarts, incomingLinks, visitorGraph } from './snapshot';
import type { IncomingLinks, LinkColumns, Snapshot } from './snapshot';

const CLICK_KIND = linkKinds.indexOf('click');
const CANONICAL_KIND = linkKinds.indexOf('canonical');

const sourceOfKind = (kind: LinkKind): Source | null => {
  if (kind === 'click') return 'links';
  if (kind === 'refresh') return 'redirect';
  if (kind === 'redirect' || kind === 'canonical' || kind === 'hreflang') return kind;
  return isResource(kind) ? null : 'declared';
};

/** Which sources know each page, as the bits of `seen_in`. */
function seenIn(count: number, links: LinkColumns, known: Partial<Record<Source, readonly number[]>>): NumberColumn {
  const bit = (source: Source | null) => (source ? 1 << sources.indexOf(source) : 0);
  const bitOfKind = linkKinds.map((kind) => bit(sourceOfKind(kind)));
  const seen = new Int32Array(count);
  for (const source of sources) for (const page of known[source] ?? []) seen[page] |= bit(source);
  for (let page = 0; page < count; page++)
    for (let link = links.offsets[page]; link < links.offsets[page + 1]; link++) {
      const target = links.target[link];
      // A page that names itself was known before.
      if (target < count && target !== page) seen[target] |= bitOfKind[links.kind[link]];
    }
  return seen;
}

/**
 * Marks the click links whose fragment names nothing on their target, as far as that is known. An empty fragment and
 * `top` name the top of any page (HTML, "find a potential indicated element"); text directives name no element.
 * @returns how many there are on each page
 */
function findLostFragments(pages: readonly PageRecord[], links: LinkColumns, phrases: readonly string[]): Int32Array {
  const counts = new Int32Array(pages.length).fill(-1);
  const lost = faultBit('fragment');
  const names = new Map<number, Set<string>>();
  const named = (page: number) => {
    let ids = names.get(page);
    if (!ids) names.set(page, (ids = new Set(pages[page].ids!.split('\n'))));
    return ids;
  };
  pages.forEach((record, page) => {
    if (record.html && record.ids !== null) counts[page] = 0;
    for (let link = links.offsets[page]; link < links.offsets[page + 1]; link++) {
      const to = links.target[link];
      const fragment = phrases[links.fragment[link]];
      if (!fragment || links.kind[link] !== CLICK_KIND || to >= pages.length || pages[to].ids === null) continue;
      if (/^top$/i.test(fragment) || fragment.includes(':~:')) continue;
      if (named(to).has(fragment) || named(to).has(fragmentName(fragment))) continue;
      links.faults[link] |= lost;
      if (counts[page] >= 0) counts[page]++;
    }
  });
  return counts;
}

type Numbers = (address: string | null) => number;

/** Where redirects lead, and the verdicts. */
function judgements(pages: readonly PageRecord[], numberOf: Numbers) {
  const nextHop = (page: number) => numberOf(pages[page].redirectTo);
  const chains = pages.map(({ redirectTo }, page) => {
    if (redirectTo === null) return null;
    const { final, hops, loop } = followRedirects(page, nextHop);
    if (loop) return { hops, reason: `A loop of ${hops} redirects.` };
    // A chain that leaves the known pages has one hop more, to the address outside.
    const beyond = pages[final].redirectTo;
    const all = hops + (beyond === null ? 0 : 1);
    const end = beyond ?? pages[final].address;
    return { hops: all, reason: all > 1 ? `${end} after ${all} redirects` : end };
  });
  const verdict = new Int32Array(pages.length);
  const reasons = pages.map((page, i) => {
    const judgement = judge(page);
    verdict[i] = verdicts.indexOf(judgement.verdict);
    return (judgement.verdict === 'redirect' && chains[i]?.reason) || judgement.reason || null;
  });
  return { chains, verdict, reasons };
}

/** What becomes of each canonical, and how many different ones each page declares. */
function canonicalsOf(pages: readonly PageRecord[], links: LinkColumns, verdict: Int32Array, numberOf: Numbers) {
  const at = (page: number) => {
    const name = verdicts[verdict[page]];
    return { verdict: name, next: numberOf(name === 'redirect' ? pages[page].redirectTo : pages[page].canonical) };
  };
  const states = pages.map(({ canonical }, page) =>
    canonical === null ? -1 : canonicalStates.indexOf(canonicalState(page, numberOf(canonical), at)),
  );
  const different = pages.map(({ html }, page) => {
    if (!html) return -1;
    const targets = new Set<number>();
    for (let link = links.offsets[page]; link < links.offsets[page + 1]; link++)
      if (links.kind[link] === CANONICAL_KIND) targets.add(links.target[link]);
    return targets.size;
  });
  return { states: Int32Array.from(states), different: Int32Array.from(different) };
}

/** How far a visitor gets, and by which pages. Its graphs are large, and are given back when it is done. */
function* visitorReach(count: number, links: LinkColumns, starts: number[]) {
  const visitor = visitorGraph(count, links);
  const walk = pageGraph(visitor);
  const depths = clickDepths(walk, starts);
  const counts = countLinks(visitor);
  yield;
  const islands = islandNumbers(visitor, depths.depth);
  const gates = gatesOf(dominators(walk, incomingPages(walk), depths, starts), depths.depth);
  return { depth: depths.depth, counts, islands, gates };
}

/** Depths of the search crawler, and what keeps it from what a visitor reaches. */
function crawlerReach(snapshot: Snapshot, depth: Int32Array) {
  const visitor = visitorGraph(snapshot.count, snapshot.links);
  const walk = (nofollow: boolean, robots: boolean) => {
    const graph = crawlerGraph(snapshot, visitor, { nofollow, robots });
    return clickDepths(pageGraph(graph), robots ? crawlerStarts(snapshot) : snapshot.starts).depth;
  };
  const crawler = walk(true, true);
  // Most sites keep nothing back; then there is nothing to explain.
  const same = depth.every((clicks, page) => clicks < 0 || crawler[page] >= 0);
  const held = same
    ? new Int32Array(depth.length).fill(-1)
    : heldBackBy(depth, crawler, walk(false, true), walk(true, false));
  return { crawler, held };
}

/** How many different words lead to each page, and the faults among the links with them. */
function anchorsOf({ count, links }: Snapshot, incoming: IncomingLinks) {
  const different = new Int32Array(count);
  const faults = new Int32Array(count);
  const mask = (1 << anchorFaults.length) - 1;
  const seen = new Set<number>();
  for (let page = 0; page < count; page++) {
    seen.clear();
    for (let i = incoming.offsets[page]; i < incoming.offsets[page + 1]; i++) {
      const link = incoming.links[i];
      if (links.kind[link] !== CLICK_KIND || incoming.source[link] === page) continue;
      seen.add(links.anchor[link]);
      faults[page] |= links.faults[link] & mask;
    }
    different[page] = seen.size;
  }
  return { different, faults };
}

/** Pages of fewer words say too little to be called alike. */
const MIN_WORDS = 20;

/**
 * Works out the measures of a snapshot. Pages come in the order of their addresses. It pauses between its steps, so that
 * whoever runs it can do something else on the way: a large crawl takes a minute.
 */
export function* measure(
  pages: readonly PageRecord[],
  pageNumbers: ReadonlyMap<number, number>,
  input: SnapshotRest,
  found: Pick<Snapshot, 'links' | 'outside' | 'checks' | 'phrases'>,
): Generator<undefined, Snapshot> {
  const { links, phrases } = found;
  const count = pages.length;
  const pageByAddress = new Map(pages.map(({ address }, i) => [address, i]));
  const numberOf: Numbers = (address) => (address === null ? -1 : (pageByAddress.get(address) ?? -1));
  const numbersOf = (addresses: readonly string[]) => addresses.map(numberOf).filter((page) => page >= 0);
  const starts = numbersOf(input.starts);

  const text = (of: (page: PageRecord, i: number) => string | null) => textColumn(pages.map(of));
  const number = (of: (page: PageRecord, i: number) => number | null): NumberColumn =>
    Int32Array.from(pages, (page, i) => of(page, i) ?? -1);
  const flag = (of: (page: PageRecord, i: number) => boolean | null) =>
    number((page, i) => {
      const value = of(page, i);
      return value === null ? null : Number(value);
    });
  const unknown = new Int32Array(0);

  const { chains, verdict, reasons } = judgements(pages, numberOf);
  const canonicals = canonicalsOf(pages, links, verdict, numberOf);
  yield;
  const { depth, counts, islands, gates } = yield* visitorReach(count, links, starts);
  yield;
  const islandSizes = new Map<number, number>();
  for (const island of islands) islandSizes.set(island, (islandSizes.get(island) ?? 0) + 1);

  const listings = input.listings.flatMap(({ number, sitemap, line, lastmod }) => {
    const page = pageNumbers.get(number);
    return page === undefined ? [] : [{ page, sitemap, line, lastmod }];
  });
  const lastmods = new Map(listings.map(({ page, lastmod }) => [page, lastmod]));
  const named = input.reading.sections.map(({ pattern, name }) => ({ test: patternTest(pattern), name }));
  const content = pages.map(({ html, contentHash }) => (html ? contentHash : null));
  const near = nearDuplicates(
    pages.map(({ html, words, fingerprint }) =>
      html && (words ?? 0) >= MIN_WORDS ? readFingerprint(fingerprint) : null,
    ),
    content,
    input.reading.nearTolerance,
  );
  yield;
  const variants = findVariants(
    pages.map(({ address }, i) => ({ address, content: content[i], stands: verdicts[verdict[i]] === 'indexable' })),
  );

  yield;

  const snapshot: Snapshot = {
    ...found,
    count,
    starts,
    listings: listings.map(({ page, sitemap, line }) => ({ page, sitemap, line })),
    files: input.files,
    columns: {
      url: text(({ address }) => address),
      host: text(({ address }) => addressParts(address).host),
      path: text(({ address }) => addressParts(address).path),
      query: text(({ address }) => addressParts(address).query),
      section: text(({ address }) => named.find(({ test }) => test(address))?.name ?? addressParts(address).section),
      status: number(({ status }) => status),
      content_type: text(({ contentType }) => contentType),
      bytes: number(({ bytes }) => bytes),
      response_ms: number(({ responseMs }) => responseMs),
      error: text(({ error }) => error),
      redirect_to: text(({ redirectTo }) => redirectTo),
      redirect_hops: number((_, i) => chains[i]?.hops ?? null),
      title: text(({ title }) => title),
      description: text(({ description }) => description),
      h1: text(({ h1 }) => h1),
      language: text(({ language }) => language),
      robots: text(({ robots }) => robots),
      robots_rule: text(({ blockedBy }) => blockedBy),
      noindex: flag(({ noindex }) => noindex),
      page_nofollow: flag(({ pageNofollow }) => pageNofollow),
      canonical: text(({ canonical }) => canonical),
      canonical_state: canonicals.states,
      canonicals: canonicals.different,
      verdict,
      verdict_reason: textColumn(reasons),
      seen_in: seenIn(count, links, {
        start: starts,
        sitemap: listings.map(({ page }) => page),
        list: numbersOf(input.listed),
      }),
      depth,
      reach: Int32Array.from(reachOf(depth, counts.pagesLinking)),
      island: islands,
      island_size: islands.map((island) => (island < 0 ? -1 : islandSizes.get(island)!)),
      gate_for: gates,
      links_in: counts.linksIn,
      pages_linking: counts.pagesLinking,
      // What a page links to is known only when it was read.
      links_out: number(({ html }, i) => (html ? counts.linksOut[i] : null)),
      pages_linked: number(({ html }, i) => (html ? counts.pagesLinked[i] : null)),
      external_links: number(({ html }, i) => (html ? counts.externalLinks[i] : null)),
      missing_fragments: findLostFragments(pages, links, phrases),
      words: number(({ words }) => words),
      content_hash: text(({ contentHash }) => contentHash),
      breadcrumb: text(({ breadcrumb }) => breadcrumb && breadcrumb.map(({ name }) => name).join(' › ')),
      breadcrumb_parent: text(
        ({ breadcrumb, address }) =>
          breadcrumb?.findLast((crumb) => crumb.address && crumb.address !== address)?.address ?? null,
      ),
      duplicates: countEqual(content),
      near_duplicates: near.alike,
      near_group: near.group,
      variants: variants.variants,
      variants_unsettled: variants.unsettled,
      page_rules: text(({ directives }) => directives),
      truncated: flag(({ status, truncated }) => (status === null ? null : truncated)),
      carried: flag(({ carried }) => carried),
      fetched_at: text(({ fetchedAt }) => fetchedAt && fetchedAt.toISOString().replace(/\.\d+Z/, 'Z')),
      sitemap_lastmod: text((_, i) => lastmods.get(i) ?? null),
      // These are worked out from the others.
      crawler_depth: unknown,
      held_back: unknown,
      share: unknown,
      anchors: unknown,
      anchor_faults: unknown,
    },
  };
  yield;
  const { columns } = snapshot;
  const reached = crawlerReach(snapshot, depth);
  columns.crawler_depth = reached.crawler;
  columns.held_back = reached.held;
  yield;
  const { share, settled } = siteShare(snapshot, input.reading.weights);
  columns.share = share;
  yield;
  const incoming = incomingLinks(snapshot);
  const faults = findLinkFaults(snapshot, incoming, settled);
  for (let link = 0; link < faults.length; link++) links.faults[link] |= faults[link];
  yield;
  const anchors = anchorsOf(snapshot, incoming);
  columns.anchors = anchors.different;
  columns.anchor_faults = anchors.faults;
  return snapshot;
}

function readFingerprint(bytes: Uint8Array | null): [number, number] | null {
  if (!bytes) return null;
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  return [view.getUint32(0), view.getUint32(4)];
}
