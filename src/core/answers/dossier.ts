import type { HitCounts } from '../accessLog';
import type { ColumnName, IntegerFact, Source, TextFact, Verdict } from '../facts';
import type { Found } from '../findings';
import { sentence } from '../messages';
import type { Message } from '../messages';
import { thousands } from '../numbers';
import { clickDepths, routeTo, walkOf } from '../reach';
import type { Reader } from '../reach';
import { finalTargetsOf, shareAround } from '../share';
import type { Carried, PlacementWeights } from '../share';
import { addressAt, factAt, numberAt, textAt } from '../snapshot';
import type { FactValue } from '../snapshot';
import { verdictReason } from '../verdict';
import type { View } from '../view';

/** One step on the way from discovery to index. */
export interface DossierStep {
  text: string;
  evidence: string;
  /** `passed`, `stopped` (here the way ends), `open` (never came to it). */
  state: 'passed' | 'stopped' | 'open';
}

export interface RouteStep {
  address: string;
  title: string | null;
  byRedirect: boolean;
  /** Whether every way to the page passes here. */
  gate: boolean;
}

/** A part of the share of a page, and the page it comes from or goes to. */
export interface SharePart {
  address: string;
  /** The address between, that leads on. */
  by: string | null;
  share: number;
}

export interface Dossier {
  address: string;
  facts: Partial<Record<ColumnName, FactValue>>;
  /** One shortest route of a reader from a start page; empty when there is none. */
  route: RouteStep[];
  steps: DossierStep[];
  share: { from: SharePart[]; fromPages: number; to: SharePart[]; toPages: number; rest: number };
  /** The page where the way of a redirect or canonical ends, when it is another. */
  endsAt: string | null;
}

/** What is stored of one page beside the snapshot. */
export interface PageDetails {
  /** The head of its answer, a line a field. */
  headers: string | null;
  hasSource: boolean;
}

/** One link of a page, and what is wrong with it. */
export interface DossierLink {
  target: string;
  words: string;
  findings: (Pick<Found, 'id' | 'name' | 'rule' | 'remedy' | 'worthALook'> & {
    /** What the rule met there; null where the rule says it all. */
    reason: Message | null;
  })[];
}

/** Everything that a dossier shows. */
export interface PageDossier extends Dossier, PageDetails {
  findings: (Pick<Found, 'id' | 'name' | 'over' | 'select' | 'rule' | 'remedy' | 'question' | 'worthALook'> & {
    /** What the rule compares, as it is on this page; of findings over pages. */
    evidence: { name: ColumnName; value: FactValue }[];
  })[];
  /** The link whose place was asked for, with the findings about it; null when none was, or none is there. */
  link: DossierLink | null;
  /** Its hits in the access logs that count for the crawl; null when none has it. */
  hits: HitCounts | null;
  /**
   * Its route as crawled, beside a draft, or as predicted; empty where it had none; null where nothing is beside it.
   */
  routeBefore: RouteStep[] | null;
  /** A note on it in the current draft; '' without one. */
  note: string;
  /** Where it stands in the list that is shown, from 1, and its neighbours there. */
  place: { at: number; of: number; before: string | null; after: string | null } | null;
}

// Several words a line, to be read as a whole:
// prettier-ignore
const shown: readonly ColumnName[] = [
  'title', 'h1', 'status', 'content_type', 'bytes', 'response_ms', 'verdict', 'reach', 'depth', 'crawler_depth',
  'held_back', 'island', 'gate_for', 'share', 'duplicates', 'near_duplicates', 'variants', 'anchors', 'anchor_faults',
  'canonical_state', 'pages_linking', 'pages_linking_followed', 'pages_linking_text', 'links_in', 'text_links_in',
  'pages_linked', 'links_out', 'external_links', 'seen_in', 'key',
  'canonical', 'robots', 'redirect_to', 'language', 'description', 'sitemap_lastmod', 'log_hits', 'crawler_hits',
  'last_hit', 'list_hits', 'word_count', 'section', 'content_hash', 'missing_fragments', 'fetched_at', 'carried',
];

/** The way of a page from discovery to index, step by step, up to where it ends. */
export function indexSteps(snapshot: View, page: number): DossierStep[] {
  const text = (name: TextFact) => textAt(snapshot, name, page);
  const number = (name: IntegerFact) => numberAt(snapshot, name, page);
  const verdict = factAt(snapshot, 'verdict', page) as Verdict;
  const reason = sentence(verdictReason(snapshot, page));
  const seen = factAt(snapshot, 'seen_in', page) as Source[];
  const listing = snapshot.listings.find((entry) => entry.page === page);
  const status = number('status');
  const canonical = text('canonical');
  const all: { ends: readonly Verdict[]; passed: [string, string]; stopped: [string, string] }[] = [
    {
      ends: ['unvisited'],
      passed: [
        seen.length ? `Known from ${seen.map((source) => sourceWords[source]).join(', ')}` : 'Known',
        listing ? `${listing.sitemap}, line ${listing.line}` : linkedWords(number('pages_linking')),
      ],
      stopped: ['Known, but not fetched', reason],
    },
    {
      ends: ['blocked'],
      passed: ['robots.txt allows it', 'no rule closes it'],
      stopped: ['robots.txt closes it', reason],
    },
    {
      ends: ['unanswered', 'failing', 'broken'],
      passed: [`Answers ${status ?? ''}`, `${text('content_type') ?? 'no type'}, ${number('response_ms') ?? '—'} ms`],
      stopped: [status === null ? 'No answer' : `Answers ${status}`, reason],
    },
    {
      ends: ['redirect'],
      passed: ['Does not redirect', 'neither by status nor by meta refresh'],
      stopped: ['Redirects', reason],
    },
    { ends: ['not_html'], passed: ['Is HTML', text('content_type') ?? ''], stopped: ['Is not an HTML page', reason] },
    {
      ends: ['noindex'],
      passed: ['No noindex', text('robots') ?? 'no page-level rule'],
      stopped: ['noindex', text('robots') ?? reason],
    },
    {
      ends: ['canonicalised'],
      passed: [canonical ? 'Canonical points at itself' : 'No canonical', canonical ?? 'none is declared'],
      stopped: ['Canonical points elsewhere', canonical ?? reason],
    },
  ];
  const steps: DossierStep[] = [];
  for (const { ends, passed, stopped } of all) {
    const here = ends.includes(verdict);
    const [words, evidence] = here ? stopped : passed;
    steps.push({ text: words, evidence, state: here ? 'stopped' : 'passed' });
    if (here) {
      steps.push({ text: 'May not be indexed', evidence: '', state: 'open' });
      return steps;
    }
  }
  return [...steps, { text: 'May be indexed', evidence: '', state: 'passed' }];
}

const sourceWords: Record<Source, string> = {
  start: 'the start address',
  links: 'links',
  sitemap: 'a sitemap',
  log: 'an access log',
  list: 'a list',
  redirect: 'a redirect',
  canonical: 'a canonical',
  hreflang: 'an hreflang link',
  declared: 'a declared relation',
};
const linkedWords = (pages: number | null) =>
  pages ? `${thousands(pages)} ${pages === 1 ? 'page links' : 'pages link'} here` : 'no page links here';

/** The steps of a route, and which of them are gates. */
function describeRoute(
  snapshot: View,
  route: readonly number[],
  depth: Int32Array,
  gates: ReadonlySet<number>,
): RouteStep[] {
  return route.map((at, i) => ({
    address: addressAt(snapshot, at),
    title: textAt(snapshot, 'title', at),
    byRedirect: i > 0 && depth[at] === depth[route[i - 1]],
    gate: gates.has(at),
  }));
}

/** The shortest route of a reader to a page, with the gates on it. */
export function routeOf(snapshot: View, page: number, reader: Reader): RouteStep[] {
  const { depths, pages, dominator } = walkOf(snapshot, reader);
  const route = routeTo(depths, pages, page, snapshot.column('share'));
  const gates = new Set<number>();
  // Start pages are the way to everything by nature.
  if (route.length) for (let at = dominator[page]; at >= 0 && depths.depth[at] > 0; at = dominator[at]) gates.add(at);
  return describeRoute(snapshot, route, depths.depth, gates);
}

/** The shortest route that would be left to a page if another one were gone; empty when none would. */
export function routeWithout(snapshot: View, page: number, without: number, reader: Reader): RouteStep[] {
  const { graph, pages, starts } = walkOf(snapshot, reader);
  if (page === without) return [];
  const depths = clickDepths(graph, starts, Infinity, without);
  const route = routeTo(depths, pages, page, snapshot.column('share'));
  return describeRoute(snapshot, route, depths.depth, new Set());
}

/** Gathers what the dossier of one page shows. */
export function dossierOf(
  snapshot: View,
  page: number,
  reader: Reader = 'visitor',
  weights?: PlacementWeights,
): Dossier {
  const finalTargets = finalTargetsOf(snapshot);
  const around = shareAround(snapshot, page, walkOf(snapshot).pages, finalTargets, weights);
  const named = (parts: readonly Carried[]) =>
    parts.map(({ page: other, by, share }) => ({
      address: addressAt(snapshot, other),
      by: by === null ? null : addressAt(snapshot, by),
      share,
    }));
  return {
    address: addressAt(snapshot, page),
    facts: Object.fromEntries(shown.map((name) => [name, factAt(snapshot, name, page)])),
    route: routeOf(snapshot, page, reader),
    steps: indexSteps(snapshot, page),
    share: { ...around, from: named(around.from), to: named(around.to) },
    endsAt: finalTargets[page] >= 0 && finalTargets[page] !== page ? addressAt(snapshot, finalTargets[page]) : null,
  };
}
