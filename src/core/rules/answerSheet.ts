/** Plain questions about a site that a report to its owner answers, each with its number, an example and its list. */
import { placements, CLICK_KIND } from '../links';
import { evaluate, eachBit, parseSelection } from '../selection';
import { addressAt } from '../snapshot';
import type { View } from '../view';
import { hostVariantsOf, variantGroupsOf } from './variants';
import type { VariantKind } from './variants';

/** `unknown`: the crawl has met nothing that tells. */
export type SheetAnswer = 'yes' | 'no' | 'partly' | 'unknown';

export interface SheetRow {
  id: string;
  question: string;
  answer: SheetAnswer;
  /** How many of `of` speak against a yes. */
  count: number;
  of: number;
  /** What is counted, as `pages` or `redirects`. */
  unit: string;
  /** An address that speaks against it; null when none does, or none is at hand. */
  example: string | null;
  /** The list of what speaks against it, as a selection of pages; null when it is none. */
  select: string | null;
}

type Found = Pick<SheetRow, 'count' | 'of' | 'unit' | 'example' | 'select'>;

interface Question {
  id: string;
  question: string;
  find: (snapshot: View, start: string) => Found;
}

/** Counts pages that speak against a yes, among those that it is asked of. */
function pagesThat(snapshot: View, against: string, among: string, unit = 'pages'): Found {
  const pagesOf = (select: string): number[] => {
    const parsed = parseSelection(select);
    if (!parsed.ok) throw new Error(parsed.fault.message);
    const pages: number[] = [];
    eachBit(evaluate(snapshot, parsed.selection), (page) => pages.push(page));
    return pages;
  };
  const select = `(${among}) and (${against})`;
  const found = pagesOf(select);
  const example = found.length ? addressAt(snapshot, found[0]) : null;
  return { count: found.length, of: pagesOf(among).length, unit, example, select };
}

/** Groups of addresses that differ in one way, and those of them that settle on no address. */
function unsettled(snapshot: View, kind: VariantKind): Found {
  const groups = variantGroupsOf(snapshot).filter(({ kinds }) => kinds.includes(kind));
  const open = groups.filter(({ settles }) => settles === null);
  const example = open.length ? addressAt(snapshot, open[0].pages.at(-1)!) : null;
  return { count: open.length, of: groups.length, unit: 'pages with such variants', example, select: null };
}

/**
 * Addresses of other ways of writing the host: those that may be indexed, and those that contradict the start's own.
 */
function otherOrigins(snapshot: View, start: string, kind: 'scheme' | 'www'): Found {
  const partOf = (origin: string) => (kind === 'scheme' ? origin.split(':')[0] : String(origin.includes('://www.')));
  const others = hostVariantsOf(snapshot, start).filter(({ origin }) => partOf(origin) !== partOf(start));
  const of = others.reduce((sum, { pages }) => sum + pages, 0);
  const standing = others.filter(({ indexable }) => indexable > 0);
  const origins = standing.map(({ origin }) => `url starts "${origin}/"`).join(' or ');
  if (origins) return { ...pagesThat(snapshot, 'indexable', origins, 'addresses'), of };
  const { count, example } = unsettled(snapshot, kind);
  return { count, of, unit: 'addresses', example, select: null };
}

const NAV = placements.indexOf('nav');

/** Pages whose navigation has links without words. */
function wordlessNavigation(snapshot: View): Found {
  const { links, count } = snapshot;
  let [pages, wordless] = [0, 0];
  let example: string | null = null;
  for (let page = 0; page < count; page++) {
    let [any, bare] = [false, false];
    for (let link = links.offsets[page]; link < links.offsets[page + 1]; link++) {
      if (links.kind[link] !== CLICK_KIND || links.placement[link] !== NAV) continue;
      any = true;
      bare ||= links.anchor[link] === 0;
    }
    if (any) pages++;
    if (!bare) continue;
    wordless++;
    example ??= addressAt(snapshot, page);
  }
  return { count: wordless, of: pages, unit: 'pages with a navigation', example, select: null };
}

/** The ways of writing the address of the start. */
function homeVariants(snapshot: View, start: string): Found {
  const isStart = (page: number) => addressAt(snapshot, page) === start;
  const unit = `addresses of ${new URL(start).pathname}`;
  const home = variantGroupsOf(snapshot).find(({ pages }) => pages.some(isStart));
  if (!home) return { count: 0, of: 1, unit, example: null, select: null };
  const { pages, settles } = home;
  if (settles !== null) return { count: 0, of: pages.length, unit, example: null, select: null };
  const example = addressAt(
    snapshot,
    pages.find((page) => !isStart(page))!,
  );
  return { count: pages.length - 1, of: pages.length, unit, example, select: null };
}

const ask = (id: string, question: string, find: Question['find']): Question => ({ id, question, find });
/** A question about pages: what speaks against a yes, and among which. */
const askPages = (id: string, question: string, against: string, among: string, unit?: string) =>
  ask(id, question, (snapshot) => pagesThat(snapshot, against, among, unit));
/** A question about variants of addresses. */
const askVariants = (id: string, question: string, kind: VariantKind) =>
  ask(id, question, (snapshot) => unsettled(snapshot, kind));
const askOrigins = (id: string, question: string, kind: 'scheme' | 'www') =>
  ask(id, question, (snapshot, start) => otherOrigins(snapshot, start, kind));

const questions: Question[] = [
  ask('home_one_address', 'Is the home page one address?', homeVariants),
  askOrigins('one_scheme', 'Do http and https settle on one?', 'scheme'),
  askOrigins('one_host', 'Do the addresses with and without www. settle on one?', 'www'),
  askVariants('one_case', 'Do upper and lower case settle on one address?', 'case'),
  askVariants('one_slash', 'Do addresses with and without a slash at the end settle on one?', 'slash'),
  askVariants('one_index_file', 'Do index files settle on the address of their folder?', 'index_file'),
  askPages(
    'canonical_everywhere',
    'Is there a canonical on every page?',
    'canonical is unknown',
    'verdict in (indexable, canonicalised)',
  ),
  askPages(
    'canonicals_hold',
    'Does every canonical name a page that may be indexed?',
    'canonical_state in (chain, loop, not_indexable)',
    'canonical is not unknown and status = 200',
    'canonicals',
  ),
  askPages(
    'breadcrumbs',
    'Do pages below the start have breadcrumbs?',
    'breadcrumb is unknown',
    'indexable and depth > 1',
  ),
  ask('text_navigation', 'Is the navigation made of text?', wordlessNavigation),
  askPages(
    'errors_answer_404',
    'Do pages that do not exist answer 404 or 410?',
    'status = 200',
    'verdict = broken or title matches "^([Ee]rror )?(404|[Pp]age not found|[Nn]ot [Ff]ound)"',
    'addresses that do not exist',
  ),
  askPages(
    'permanent_redirects',
    'Are all redirects permanent?',
    'status in (302, 303, 307)',
    'verdict = redirect',
    'redirects',
  ),
  askPages(
    'direct_redirects',
    'Does every redirect lead to its end at once?',
    'redirect_hops > 1',
    'verdict = redirect',
    'redirects',
  ),
  askPages('all_reached', 'Can every indexable page be reached by links?', 'not reached', 'indexable'),
  askPages('sitemap_complete', 'Is every indexable page in a sitemap?', 'not seen in sitemap', 'indexable'),
  askPages(
    'sitemap_clean',
    'May everything that sitemaps list be indexed?',
    'not indexable',
    'seen in sitemap',
    'listed addresses',
  ),
  askPages('titles', 'Has every indexable page a title?', 'title is unknown or title = ""', 'indexable'),
  askPages('secure', 'Is every indexable page served with https?', 'url starts "http://"', 'indexable'),
];

/** A few are partly, most are no. */
const answerOf = ({ count, of }: Found): SheetAnswer => {
  if (of === 0) return 'unknown';
  if (count === 0) return 'yes';
  return count < of / 2 ? 'partly' : 'no';
};

/** Answers all questions about a site, by its start address. */
export const answerSheetOf = (snapshot: View, start: string): SheetRow[] =>
  questions.map(({ id, question, find }) => {
    const found = find(snapshot, start);
    return { id, question, answer: answerOf(found), ...found, select: found.count ? found.select : null };
  });
