/** One page under several addresses: what each way of writing the address of a site answers, and what it settles on. */
import { variantKey } from '../duplicates';
import { sources, verdicts } from '../facts';
import type { Verdict } from '../facts';
import { addressAt, factAt, memoOf, textAt } from '../snapshot';
import type { Reading, Snapshot } from '../snapshot';
import { addressParts } from '../url';

/** In what the addresses of a group differ. */
export const variantKinds = ['scheme', 'www', 'slash', 'case', 'index_file', 'parameters', 'escapes'] as const;
export type VariantKind = (typeof variantKinds)[number];

/** Addresses that are one page written differently. */
export interface VariantGroup {
  /** Pages, ascending. */
  pages: number[];
  kinds: VariantKind[];
  /** The one address that all lead to by redirect or canonical; null when they do not settle on one. */
  settles: string | null;
}

const indexFile = /\/(index|default)\.(html?|php|aspx?)$/i;

function differences(addresses: readonly string[]): VariantKind[] {
  const differ = (of: (address: string) => string) => new Set(addresses.map(of)).size > 1;
  const parts = (of: (part: ReturnType<typeof addressParts>) => string) => (address: string) =>
    of(addressParts(address));
  const withoutIndex = (path: string) => path.replace(indexFile, '/');
  const bare = (path: string) => withoutIndex(path).replace(/\/+$/, '');
  const tests: Record<VariantKind, boolean> = {
    scheme: differ((address) => address.slice(0, address.indexOf(':'))),
    www: differ(parts(({ host }) => String(host.startsWith('www.')))),
    index_file: differ(parts(({ path }) => String(indexFile.test(path)))),
    slash: differ(parts(({ path }) => String(/[^/]\/$/.test(withoutIndex(path))))),
    case: differ(parts(({ path }) => bare(path))) && !differ(parts(({ path }) => bare(path).toLowerCase())),
    parameters: differ(parts(({ query }) => query.toLowerCase())),
    escapes: differ(parts(({ path }) => bare(path).toLowerCase())),
  };
  return variantKinds.filter((kind) => tests[kind]);
}

const groupReads = ['url', 'outside', 'verdict', 'redirect_end', 'canonical'] as const;
type VariantBase = Reading<(typeof groupReads)[number]>;

const verdictAt = ({ column }: VariantBase, page: number): Verdict => verdicts[column('verdict')[page]];

/** Where a page leads by redirect or canonical; its own address when to none. */
function leadsTo(snapshot: VariantBase, page: number): string {
  const verdict = verdictAt(snapshot, page);
  const own = addressAt(snapshot, page);
  if (verdict === 'redirect') return textAt(snapshot, 'redirect_end', page) ?? own;
  return verdict === 'canonicalised' ? (textAt(snapshot, 'canonical', page) ?? own) : own;
}

function settlesOn(snapshot: VariantBase, pages: readonly number[]): string | null {
  const ends = new Set(pages.map((page) => leadsTo(snapshot, page)));
  return ends.size === 1 ? [...ends][0] : null;
}

/** Groups of known addresses that differ only in how they are written, those that settle on none first. */
export const variantGroupsOf = memoOf(groupReads, (snapshot): VariantGroup[] => {
  const byKey = new Map<string, number[]>();
  for (let page = 0; page < snapshot.count; page++) {
    const key = variantKey(addressAt(snapshot, page));
    const pages = byKey.get(key) ?? [];
    byKey.set(key, pages);
    pages.push(page);
  }
  return [...byKey.values()]
    .filter(({ length }) => length > 1)
    .map((pages) => ({
      pages,
      kinds: differences(pages.map((page) => addressAt(snapshot, page))),
      settles: settlesOn(snapshot, pages),
    }))
    .sort((a, b) => Number(a.settles !== null) - Number(b.settles !== null) || b.pages.length - a.pages.length);
});

/** One way of writing the host: a scheme with or without `www.`. */
export interface HostVariant {
  origin: string;
  /** Whether it is the one of the start. */
  isStart: boolean;
  pages: number;
  linked: number;
  listed: number;
  /** How many pages name one of its addresses as canonical. */
  canonical: number;
  indexable: number;
  /** How many redirect to another way of writing the host. */
  redirecting: number;
  /** What its home page does; null when the crawl does not know it. */
  home: { verdict: Verdict; leadsTo: string } | null;
}

const bit = (source: (typeof sources)[number]) => 1 << sources.indexOf(source);

/** Whether a host can be written with and without `www.`: IP addresses and names without a domain cannot. */
const takesWww = (hostname: string) => /\.[a-z][a-z0-9-]*$/i.test(hostname);

/** The ways of writing the host of a start, and what is known of each. A port that is given belongs to one scheme. */
export const hostVariantsOf = (snapshot: Snapshot, start: string): HostVariant[] => {
  const { protocol, host, hostname, port } = new URL(start);
  const name = host.replace(/^www\./, '');
  const hosts = takesWww(hostname) ? [`www.${name}`, name] : [host];
  const schemes = port ? [protocol] : ['https:', 'http:'];
  const origins = schemes.flatMap((scheme) => hosts.map((one) => `${scheme}//${one}`));
  const rows = new Map<string, HostVariant>(
    origins.map((origin) => [
      origin,
      {
        origin,
        isStart: origin === `${protocol}//${host}`,
        ...{ pages: 0, linked: 0, listed: 0, canonical: 0, indexable: 0, redirecting: 0 },
        home: null,
      },
    ]),
  );
  const originAt = (address: string) => address.slice(0, address.indexOf('/', address.indexOf('://') + 3));
  const seen = snapshot.column('seen_in');
  for (let page = 0; page < snapshot.count; page++) {
    const address = addressAt(snapshot, page);
    const canonical = textAt(snapshot, 'canonical', page);
    const named = canonical === null ? undefined : rows.get(originAt(canonical));
    if (named) named.canonical++;
    const row = rows.get(originAt(address));
    if (!row) continue;
    const verdict = verdictAt(snapshot, page);
    const end = leadsTo(snapshot, page);
    row.pages++;
    if (seen[page] & bit('links')) row.linked++;
    if (seen[page] & bit('sitemap')) row.listed++;
    if (verdict === 'indexable') row.indexable++;
    if (verdict === 'redirect' && originAt(end) !== row.origin) row.redirecting++;
    if (address === `${row.origin}/`) row.home = { verdict, leadsTo: end };
  }
  return [...rows.values()];
};

/** What is shown of one variant. */
export interface VariantRow {
  page: number;
  verdict: Verdict;
  status: number | null;
  leadsTo: string;
  linked: boolean;
  listed: boolean;
}

/** What each address of a group answers. */
export const variantRows = (snapshot: Snapshot, { pages }: VariantGroup): VariantRow[] =>
  pages.map((page) => ({
    page,
    verdict: verdictAt(snapshot, page),
    status: factAt(snapshot, 'status', page) as number | null,
    leadsTo: leadsTo(snapshot, page),
    linked: (snapshot.column('seen_in')[page] & bit('links')) !== 0,
    listed: (snapshot.column('seen_in')[page] & bit('sitemap')) !== 0,
  }));

/** Other ways of writing the address of a page, one for each way in which addresses differ. */
export function otherWritings(address: string): { kind: VariantKind; address: string }[] {
  const url = new URL(address);
  const changed = (change: (copy: URL) => void): string => {
    const copy = new URL(address);
    change(copy);
    return copy.href;
  };
  const { pathname } = url;
  const name = url.hostname.replace(/^www\./, '');
  const isFolder = pathname.endsWith('/');
  const all: { kind: VariantKind; address: string }[] = [
    {
      kind: 'scheme',
      address: changed((copy) => void (copy.protocol = url.protocol === 'https:' ? 'http:' : 'https:')),
    },
    { kind: 'www', address: changed((copy) => void (copy.hostname = url.hostname === name ? `www.${name}` : name)) },
    {
      kind: 'slash',
      address: changed((copy) => void (copy.pathname = isFolder ? pathname.replace(/\/+$/, '') : `${pathname}/`)),
    },
    { kind: 'case', address: changed((copy) => void (copy.pathname = swappedCase(pathname))) },
    ...(isFolder
      ? [{ kind: 'index_file' as const, address: changed((copy) => void (copy.pathname = `${pathname}index.html`)) }]
      : []),
    { kind: 'parameters', address: changed((copy) => copy.searchParams.append('edgemap', '1')) },
  ];
  const isAsked = ({ kind }: { kind: VariantKind }) =>
    (kind !== 'scheme' || url.port === '') && (kind !== 'www' || takesWww(url.hostname));
  return all.filter((one) => one.address !== address && isAsked(one));
}

/** Turns the first letter of the last part of a path to the other case. */
function swappedCase(path: string): string {
  const at = path.search(/[a-z][^/]*\/?$/i);
  if (at < 0) return path;
  const letter = path[at];
  return (
    path.slice(0, at) +
    (letter === letter.toLowerCase() ? letter.toUpperCase() : letter.toLowerCase()) +
    path.slice(at + 1)
  );
}

/** The addresses of the indexable pages with most share, where one address matters most. */
export function richestPages(snapshot: Snapshot, most: number): string[] {
  const share = snapshot.column('share');
  return Array.from({ length: snapshot.count }, (_, page) => page)
    .filter((page) => verdictAt(snapshot, page) === 'indexable')
    .sort((a, b) => share[b] - share[a])
    .slice(0, most)
    .map((page) => addressAt(snapshot, page));
}
