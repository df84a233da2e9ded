import type { Dossier } from '$core/answers';
import { factOf } from '$core/facts';
import type { ColumnName } from '$core/facts';
import { bytes, number, shortAddress } from '../shell/words';

type Facts = Dossier['facts'];

export const known = (value: unknown) => (value === null || value === undefined || value === '' ? '—' : String(value));
const listed = (values: unknown) => (values as string[] | null)?.join(', ').replaceAll('_', ' ') || 'none';

/** A fact with its value, as `share 0.12×` or `reach orphan`. */
export const factText = (name: ColumnName, value: unknown): string =>
  `${factOf(name).label.toLowerCase()} ${
    name === 'share'
      ? shareText(value)
      : Array.isArray(value)
        ? listed(value)
        : typeof value === 'number'
          ? number(value)
          : known(value)
  }`;

/** Share as a multiple of an even split: `1.32×`. */
export const shareText = (share: unknown) =>
  typeof share === 'number'
    ? `${share.toLocaleString('en', { minimumFractionDigits: 2, maximumFractionDigits: 2 })}×`
    : '—';

/** How far a page is for a search crawler, or what keeps it from there. */
function crawlerText({ crawler_depth, held_back }: Facts): string {
  if (typeof crawler_depth === 'number') return `depth ${number(crawler_depth)}`;
  if (held_back === 'nofollow') return 'stopped by nofollow';
  if (held_back === 'robots') return 'stopped by robots.txt';
  return held_back === 'both' ? 'stopped by nofollow and robots.txt' : 'no route';
}

/** The facts of a dossier that have no place of their own in it, in words. */
export function dossierFacts(f: Facts, start: string): [label: string, value: string][] {
  const address = (value: unknown) => (value ? shortAddress(String(value), start) : '—');
  return [
    ['Heading', known(f.h1)],
    ['Description', known(f.description)],
    ['Share', shareText(f.share)],
    ['As crawler', crawlerText(f)],
    ['Gate for', typeof f.gate_for === 'number' ? `${number(f.gate_for)} ${f.gate_for === 1 ? 'page' : 'pages'}` : '—'],
    ['Island', f.island === null ? '—' : `No. ${String(f.island)}`],
    ['Links in', number(f.links_in)],
    ['Links outside', number(f.external_links)],
    ['Anchors', `${number(f.anchors)} different`],
    ['Their faults', listed(f.anchor_faults)],
    ['Seen in', listed(f.seen_in)],
    ['Canonical', address(f.canonical)],
    ['It leads to', known(f.canonical_state).replaceAll('_', ' ')],
    ['Page-level rules', known(f.robots)],
    ['Redirects to', address(f.redirect_to)],
    ['Duplicates', number(f.duplicates)],
    ['Near-duplicates', number(f.near_duplicates)],
    ['Variants', number(f.variants)],
    ['Language', known(f.language)],
    ['Type', known(f.content_type)],
    ['Size', bytes(f.bytes)],
    ['Response', typeof f.response_ms === 'number' ? `${number(f.response_ms)} ms` : '—'],
    ['Sitemap lastmod', known(f.sitemap_lastmod)],
    // Most crawls have no imports.
    ...(typeof f.log_hits === 'number'
      ? [
          ['Log hits', `${number(f.log_hits)}, ${number(f.crawler_hits)} of search crawlers`] as [string, string],
          ['Last hit', known(f.last_hit)] as [string, string],
        ]
      : []),
    ...(typeof f.list_hits === 'number' ? [['List rows', number(f.list_hits)] as [string, string]] : []),
  ];
}
