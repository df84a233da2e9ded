/**
 * What is worked out of a base, as a table: each derivation says what it reads and what it gives, so that a change of
 * some inputs is followed by only what depends on them. The order is one in which everything is there when it is read.
 */
import { anchorFacts, missingFragments } from '../anchors';
import { communityNumbers } from '../communities';
import { countEqual, nearDuplicates, variantColumns } from '../duplicates';
import { columnNames, INDEXABLE, sources } from '../facts';
import type { ColumnName, DerivedFact, Source } from '../facts';
import { isResource, linkInputs, linkKinds } from '../links';
import type { LinkKind } from '../links';
import {
  clickDepths,
  countLinks,
  countTextLinks,
  pagingPages,
  crawlerGraph,
  crawlerIsVisitor,
  crawlerStarts,
  dominators,
  gatesOf,
  heldBackBy,
  incomingPages,
  islandNumbers,
  islandSizes,
  pageGraph,
  parentOf,
  reachOf,
  visitorGraph,
} from '../reach';
import type { Depths, PageGraph } from '../reach';
import { patternTest } from '../scope';
import { findFinalTargets, peerShares, siteShare } from '../share';
import type { PlacementWeights } from '../share';
import { partNames, textColumn, textsAt } from '../snapshot';
import type { Columns, Read, Snapshot, TextColumn } from '../snapshot';
import { templateColumn } from '../templates';
import { addressParts } from '../url';
import { canonicalColumns, redirectColumns, verdictColumn } from '../verdict';

/** Settings that decide what is made of a crawl once it is there. */
export interface AnalysisSettings {
  /** Names of sections by patterns of addresses, the first that matches; else the first folder is the section. */
  sections: readonly { pattern: string; name: string }[];
  /** In how many of 64 bits fingerprints of near-duplicates may differ. */
  nearTolerance: number;
  weights: PlacementWeights;
}

/** Results that other derivations need and that are not kept after the analysis. */
export interface Interim {
  linkFaults: Uint16Array;
  visitor: { graph: PageGraph; depths: Depths };
  finalTargets: Int32Array;
}
/** What derivations read besides the facts, links and other parts of a site. */
export interface Context extends Interim {
  settings: AnalysisSettings;
}
/** Something that a derivation reads and that may change. */
export type Input = Read | keyof Interim | `settings.${keyof AnalysisSettings}`;

export type Given = Columns<DerivedFact> & Interim;

export interface Derivation {
  /** Named for progress: what is being worked out. */
  name: string;
  reads: readonly Input[];
  gives: readonly (keyof Given)[];
  /** @param model a base with what has been worked out of it so far */
  run: (model: Snapshot, context: Context) => Partial<Given>;
}

const step = <G extends keyof Given>(
  name: string,
  reads: readonly Input[],
  gives: readonly G[],
  run: (model: Snapshot, context: Context) => Pick<Given, G>,
): Derivation => ({ name, reads, gives, run });

const sourceOfKind = (kind: LinkKind): Source | null => {
  if (kind === 'click') return 'links';
  if (kind === 'refresh') return 'redirect';
  if (kind === 'redirect' || kind === 'canonical' || kind === 'hreflang') return kind;
  return isResource(kind) ? null : 'declared';
};
const sourceBit = (source: Source | null) => (source ? 1 << sources.indexOf(source) : 0);
const bitOfKind = linkKinds.map((kind) => sourceBit(sourceOfKind(kind)));

/** Which sources know each page, as the bits of `seen_in`. */
function seenIn({ count, links: { offsets, target: targets, kind }, starts, listed, listings }: Snapshot): Int32Array {
  const seen = new Int32Array(count);
  for (const page of starts) seen[page] |= sourceBit('start');
  for (const page of listed) seen[page] |= sourceBit('list');
  for (const { page } of listings) seen[page] |= sourceBit('sitemap');
  for (let page = 0; page < count; page++)
    for (let link = offsets[page]; link < offsets[page + 1]; link++) {
      const target = targets[link];
      // A page that names itself was known before.
      if (target < count && target !== page) seen[target] |= bitOfKind[kind[link]];
    }
  return seen;
}

/** Host, path and query of every address. */
function addressColumns({ count, column }: Snapshot): Record<'host' | 'path' | 'query', TextColumn> {
  const host: string[] = [];
  const path: string[] = [];
  const query: string[] = [];
  const url = column('url');
  for (let page = 0; page < count; page++) {
    const parts = addressParts(url.values[url.codes[page]]);
    host.push(parts.host);
    path.push(parts.path);
    query.push(parts.query);
  }
  return { host: textColumn(host), path: textColumn(path), query: textColumn(query) };
}

/** The section of every address, by the first pattern that it matches, or its first folder. */
function sectionColumn({ count, column }: Snapshot, { settings }: Context): TextColumn {
  const url = column('url');
  const named = settings.sections.map(({ pattern, name }) => ({ test: patternTest(pattern), name }));
  const sections: string[] = [];
  for (let page = 0; page < count; page++) {
    const address = url.values[url.codes[page]];
    sections.push(named.find(({ test }) => test(address))?.name ?? addressParts(address).section);
  }
  return textColumn(sections);
}

/** The values of a column for the pages that were read; −1 for all others. */
function ofHtml({ column }: Snapshot, values: Int32Array) {
  const html = column('html');
  return values.map((value, page) => (html[page] === 1 ? value : -1));
}

/** Pages of fewer words say too little to be called alike. */
const MIN_WORDS = 20;

/** Fingerprints of the pages that are compared; 0 for those that are not. */
function comparedFingerprints({ column, fingerprints }: Snapshot): Uint32Array {
  const verdict = column('verdict');
  const words = column('word_count');
  return fingerprints.map((half, at) => {
    const page = at >> 1;
    return verdict[page] === INDEXABLE && words[page] >= MIN_WORDS ? half : 0;
  });
}

function htmlContent({ column }: Snapshot) {
  const html = column('html');
  return column('content_hash').codes.map((code, page) => (html[page] === 1 ? code : 0));
}

/** Depths of the search crawler, and what keeps it from what a visitor reaches. */
function crawlerColumns(model: Snapshot): { crawler_depth: Int32Array; held_back: Int32Array } {
  const depth = model.column('depth');
  const unheld = () => new Int32Array(depth.length).fill(-1);
  if (crawlerIsVisitor(model)) return { crawler_depth: depth.slice(), held_back: unheld() };
  const walk = (nofollow: boolean, robots: boolean) =>
    clickDepths(pageGraph(crawlerGraph(model, { nofollow, robots })), robots ? crawlerStarts(model) : model.starts)
      .depth;
  const crawler = walk(true, true);
  // Most sites keep nothing back; then there is nothing to explain.
  const same = depth.every((clicks, page) => clicks < 0 || crawler[page] >= 0);
  return {
    crawler_depth: crawler,
    held_back: same ? unheld() : heldBackBy(depth, crawler, walk(false, true), walk(true, false)),
  };
}

const verdictReads = [
  'url',
  'unvisited_reason',
  'robots_rule',
  'error',
  'status',
  'redirect_to',
  'html',
  'noindex',
  'canonical',
] as const satisfies readonly ColumnName[];

export const derivations: readonly Derivation[] = [
  step('addresses', ['url'], ['host', 'path', 'query'], addressColumns),
  step('sections', ['url', 'settings.sections'], ['section'], (model, context) => ({
    section: sectionColumn(model, context),
  })),
  step(
    'redirects',
    ['url', 'redirect_to', 'status'],
    ['redirect_hops', 'redirect_state', 'redirect_end'],
    redirectColumns,
  ),
  step('verdicts', verdictReads, ['verdict'], (model) => ({ verdict: verdictColumn(model) })),
  step(
    'canonicals',
    ['url', 'verdict', 'redirect_to', 'canonical', 'html', 'targets'],
    ['canonical_state', 'canonicals'],
    canonicalColumns,
  ),
  step('sources', ['targets', 'starts', 'listed', 'listings'], ['seen_in'], (model) => ({ seen_in: seenIn(model) })),
  step(
    'link counts',
    ['targets', 'places', 'html'],
    ['links_in', 'pages_linking', 'links_out', 'pages_linked', 'external_links', 'content_links'],
    (model) => {
      const counts = countLinks(model);
      return {
        links_in: counts.linksIn,
        pages_linking: counts.pagesLinking,
        // What a page links to is known only when it was read.
        links_out: ofHtml(model, counts.linksOut),
        pages_linked: ofHtml(model, counts.pagesLinked),
        external_links: ofHtml(model, counts.externalLinks),
        content_links: ofHtml(model, counts.contentLinks),
      };
    },
  ),
  step(
    'links from text',
    ['targets', 'words', 'follow', 'places', 'fragments', 'phrases', 'html', 'page_nofollow'],
    ['text_links_in', 'pages_linking_text', 'pages_linking_followed'],
    (model) => {
      const counts = countTextLinks(model);
      return {
        text_links_in: counts.textLinksIn,
        pages_linking_text: counts.pagesLinkingText,
        pages_linking_followed: counts.pagesLinkingFollowed,
      };
    },
  ),
  step('depth', ['targets', 'starts'], ['depth', 'visitor'], (model) => {
    const graph = pageGraph(visitorGraph(model));
    const depths = clickDepths(graph, model.starts);
    return { depth: depths.depth, visitor: { graph, depths } };
  }),
  step('reach', ['depth', 'pages_linking', 'targets'], ['reach', 'island', 'island_size'], (model) => {
    const depth = model.column('depth');
    const island = islandNumbers(visitorGraph(model), depth);
    return { reach: reachOf(depth, model.column('pages_linking')), island, island_size: islandSizes(island) };
  }),
  step(
    'paging',
    ['url', 'title', 'targets', 'words', 'follow', 'phrases', 'visitor', 'starts'],
    ['paging', 'depth_without_paging', 'only_paging'],
    (model, { visitor: { graph, depths } }) => {
      const paging = pagingPages(model);
      const { starts } = model;
      const without = paging.includes(1) ? clickDepths(graph, starts, Infinity, -1, paging) : depths;
      const isOnly = (page: number) => depths.depth[page] >= 0 && without.depth[page] < 0 && paging[page] === 0;
      return {
        paging,
        depth_without_paging: without.depth,
        only_paging: paging.map((_, page) => Number(isOnly(page))),
      };
    },
  ),
  step('communities', ['visitor'], ['community'], (_, { visitor: { graph } }) => ({
    community: communityNumbers(graph),
  })),
  step('gates', ['visitor', 'starts'], ['gate_for'], ({ starts }, { visitor: { graph, depths } }) => ({
    gate_for: gatesOf(dominators(graph, incomingPages(graph), depths, starts), depths.depth),
  })),
  step(
    'crawler reach',
    ['targets', 'follow', 'phrases', 'starts', 'page_nofollow', 'verdict', 'depth'],
    ['crawler_depth', 'held_back'],
    crawlerColumns,
  ),
  step('final targets', ['url', 'verdict', 'redirect_to', 'canonical'], ['finalTargets'], (model) => ({
    finalTargets: findFinalTargets(model),
  })),
  step(
    'share',
    ['verdict', 'finalTargets', 'targets', 'follow', 'places', 'phrases', 'page_nofollow', 'settings.weights'],
    ['share'],
    (model, { settings, finalTargets }) => ({ share: siteShare(model, settings.weights, finalTargets).share }),
  ),
  step('parents', ['url', 'visitor', 'share'], ['parent'], ({ count, column }, { visitor: { graph, depths } }) => {
    const pages = incomingPages(graph);
    const share = column('share');
    const parents = new Int32Array(count).map((_, page) => parentOf(depths, pages, page, share));
    return { parent: textsAt(column('url'), parents) };
  }),
  step('peers', ['share', 'depth', 'section', 'verdict'], ['peer_share'], (model) => ({
    peer_share: peerShares(model),
  })),
  step('templates', ['targets', 'places', 'phrases', 'html'], ['template'], (model) => ({
    template: templateColumn(model),
  })),
  step('duplicates', ['content_hash', 'html', 'verdict'], ['duplicates'], (model) => {
    const verdict = model.column('verdict');
    return { duplicates: countEqual(htmlContent(model), (page) => verdict[page] === INDEXABLE) };
  }),
  step(
    'near-duplicates',
    ['fingerprints', 'html', 'verdict', 'word_count', 'content_hash', 'settings.nearTolerance'],
    ['near_duplicates', 'near_group'],
    (model, { settings }) => {
      const compared = { fingerprints: comparedFingerprints(model), content: htmlContent(model) };
      const { alike, group } = nearDuplicates(compared, settings.nearTolerance);
      return { near_duplicates: alike, near_group: group };
    },
  ),
  step(
    'variants',
    ['host', 'path', 'query', 'html', 'content_hash', 'verdict'],
    ['variants', 'variants_unsettled'],
    variantColumns,
  ),
  step(
    'anchors',
    [
      'targets',
      'follow',
      'words',
      'places',
      'fragments',
      'phrases',
      'outside',
      'url',
      'host',
      'path',
      'title',
      'h1',
      'description',
      'language',
      'content_hash',
      'html',
      'verdict',
      'wordFilters',
      'finalTargets',
    ],
    ['linkFaults', 'anchors', 'anchor_faults'],
    (model, { finalTargets }) => anchorFacts(model, finalTargets),
  ),
  step('fragments', ['targets', 'fragments', 'html'], ['missing_fragments'], (model) => ({
    missing_fragments: missingFragments(model),
  })),
];

const interim = new Set<string>(['linkFaults', 'visitor', 'finalTargets'] satisfies (keyof Interim)[]);
/** Whether a result is a column of the snapshot, not one that only other derivations need. */
export const isColumnGiven = (name: keyof Given): name is DerivedFact => !interim.has(name);

/** Everything that a layer may change and derivations read. */
export const inputs: readonly Read[] = [...columnNames, ...partNames, ...linkInputs];
