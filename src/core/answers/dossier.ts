import { landmarks, linkElements, linkKinds } from '../links';
import { routeTo } from '../reach';
import { addressAt, factAt, numberAt, textAt, walkOf } from '../snapshot';
import type { FactName, FactValue, Snapshot, Source } from '../snapshot';
import { fetchErrorText } from '../verdict';
import type { FetchError, Verdict } from '../verdict';

/** One step on the way from discovery to index. */
export interface DossierStep {
  text: string;
  evidence: string;
  /** `passed`, `stopped` (here the way ends), `open` (never came to it). */
  state: 'passed' | 'stopped' | 'open';
}

export interface LinkingPage {
  address: string;
  title: string | null;
  /** Occurrences on that page that lead here. */
  links: {
    anchor: string;
    rel: string;
    element: string;
    landmark: string;
    path: string;
    line: number;
    column: number;
  }[];
}

export interface Dossier {
  address: string;
  facts: Partial<Record<FactName, FactValue>>;
  route: { address: string; title: string | null; byRedirect: boolean }[];
  steps: DossierStep[];
  linking: LinkingPage[];
  /** How many pages link here; `linking` may hold fewer. */
  linkingTotal: number;
}

const shown: readonly FactName[] = [
  'title', 'h1', 'status', 'content_type', 'bytes', 'response_ms', 'verdict', 'verdict_reason', 'reach', 'depth', 'crawler_depth',
  'held_back', 'island', 'gate_for', 'share', 'duplicates', 'near_duplicates', 'variants', 'anchors', 'anchor_faults', 'canonical_state',
  'pages_linking', 'links_in', 'pages_linked', 'links_out', 'external_links', 'seen_in', 'canonical', 'robots', 'redirect_to',
  'language', 'description', 'sitemap_lastmod',
]; // prettier-ignore

/** The way of a page from discovery to index, step by step, up to where it ends. */
export function indexSteps(snapshot: Snapshot, page: number): DossierStep[] {
  const text = (name: FactName) => textAt(snapshot, name, page);
  const number = (name: FactName) => numberAt(snapshot, name, page);
  const verdict = text('verdict') as Verdict;
  const reason = text('verdict_reason') ?? '';
  const seen = factAt(snapshot, 'seen_in', page) as Source[];
  const listing = snapshot.listings.find((entry) => entry.page === page);
  const status = number('status');
  const canonical = text('canonical');
  const error = text('error') as FetchError | null;
  const all: { ends: readonly Verdict[]; passed: [string, string]; stopped: [string, string] }[] = [
    {
      ends: ['unvisited'],
      passed: [
        seen.length ? `Known from ${seen.map((source) => sourceWords[source]).join(', ')}` : 'Known',
        listing ? `${listing.sitemap}, line ${listing.line}` : linkedWords(number('pages_linking')),
      ],
      stopped: ['Known, and not fetched', reason],
    },
    {
      ends: ['blocked'],
      passed: ['robots.txt lets it through', text('robots_rule') ?? 'no rule closes it'],
      stopped: ['robots.txt closes it', text('robots_rule') ?? reason],
    },
    {
      ends: ['unanswered', 'failing', 'broken'],
      passed: [`Answers ${status ?? ''}`, `${text('content_type') ?? 'no type'}, ${number('response_ms') ?? '—'} ms`],
      stopped: [error ? 'Gives no answer' : `Answers ${status ?? ''}`, error ? fetchErrorText[error] : reason],
    },
    {
      ends: ['redirect'],
      passed: ['Leads nowhere else', 'no redirect, no meta refresh'],
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
const linkedWords = (pages: number | null) => (pages ? `${pages.toLocaleString('en')} ${pages === 1 ? 'page links' : 'pages link'} here` : 'no page links here'); // prettier-ignore

/**
 * Gathers what the dossier of one page shows.
 * @param most how many linking pages are given at the most
 */
export function dossierOf(snapshot: Snapshot, page: number, most = 200): Dossier {
  const { incoming, depths, pages } = walkOf(snapshot);
  const { links, phrases } = snapshot;
  const click = linkKinds.indexOf('click');
  const bySource = new Map<number, LinkingPage['links']>();
  for (let at = incoming.offsets[page]; at < incoming.offsets[page + 1]; at++) {
    const link = incoming.links[at];
    const source = incoming.source[link];
    if (links.kind[link] !== click || source === page) continue;
    const occurrence = {
      anchor: phrases[links.anchor[link]],
      rel: phrases[links.rel[link]],
      element: linkElements[links.element[link]],
      landmark: landmarks[links.landmark[link]],
      path: phrases[links.path[link]],
      line: links.line[link],
      column: links.column[link],
    };
    const known = bySource.get(source);
    if (known) known.push(occurrence);
    else bySource.set(source, [occurrence]);
  }
  const depthOf = (source: number) => (depths.depth[source] < 0 ? Infinity : depths.depth[source]);
  const linking = [...bySource].sort(([a], [b]) => depthOf(a) - depthOf(b) || a - b);
  const route = routeTo(depths, pages, page, snapshot.columns.share as Float64Array);
  return {
    address: addressAt(snapshot, page),
    facts: Object.fromEntries(shown.map((name) => [name, factAt(snapshot, name, page)])),
    route: route.map((at, i) => ({
      address: addressAt(snapshot, at),
      title: textAt(snapshot, 'title', at),
      byRedirect: i > 0 && depths.depth[at] === depths.depth[route[i - 1]],
    })),
    steps: indexSteps(snapshot, page),
    linking: linking.slice(0, most).map(([source, occurrences]) => ({
      address: addressAt(snapshot, source),
      title: textAt(snapshot, 'title', source),
      links: occurrences,
    })),
    linkingTotal: linking.length,
  };
}
