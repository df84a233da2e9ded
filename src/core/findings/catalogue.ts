/** What can be wrong with a site, as data: each finding is a named selection with a reason and a remedy. */
import type { FactName } from '../snapshot';

export type Question = 'Reach' | 'Flow' | 'Words' | 'Rules' | 'Roll call';

/** Where findings begin; settings of the site. */
export interface Thresholds {
  /** Clicks up to which a page counts as near. */
  deepClicks: number;
  /** Share below which an indexable page starves, as a multiple of an even split. */
  starvingShare: number;
  /** Links on a page from which on it is crowded. */
  crowdedLinks: number;
  /** Pages behind a gate from which on it is told. */
  gatePages: number;
  /** Words below which a page is thin. */
  thinWords: number;
}

interface Base {
  /** In addresses and files; never changes. */
  id: string;
  name: string;
  question: Question;
  why: string;
  remedy: string;
  /** How much it matters for each page and each share it touches, 0 to 1. */
  weight: number;
}

export type Finding = Base &
  (
    | {
        over: 'pages';
        select: (thresholds: Thresholds) => string;
        /** Pages of equal value are mended by one edit; without it each page is its own. */
        oneEdit?: FactName;
      }
    | { over: 'links'; select: (thresholds: Thresholds) => string }
    | { over: 'files'; fault: string }
  );

type Text = string | ((thresholds: Thresholds) => string);
const asFunction = (select: Text) => (typeof select === 'string' ? () => select : select);

const pages = (question: Question, id: string, weight: number, name: string, select: Text, why: string, remedy: string, oneEdit?: FactName): Finding => ({ over: 'pages', id, question, name, select: asFunction(select), why, remedy, weight, oneEdit }); // prettier-ignore
const links = (question: Question, id: string, weight: number, name: string, select: Text, why: string, remedy: string): Finding => ({ over: 'links', id, question, name, select: asFunction(select), why, remedy, weight }); // prettier-ignore
const files = (question: Question, id: string, weight: number, name: string, why: string, remedy: string): Finding => ({ over: 'files', id, fault: id, question, name, why, remedy, weight }); // prettier-ignore

// prettier-ignore
export const findings: readonly Finding[] = [
  // Reach
  pages('Reach', 'indexable_orphan', 1, 'Indexable orphans', 'indexable and orphan',
    'No page links to them: people cannot come upon them, and crawlers know them from elsewhere only.', 'Link to them from the page they belong under, or take them down.'),
  pages('Reach', 'indexable_island', 1, 'Indexable pages on islands', 'indexable and reach = island',
    'They link to each other, and nothing that can be reached links to them.', 'One link from a reached page to the island brings all of it back.', 'island'),
  pages('Reach', 'deep_pages', 0.4, 'Indexable pages far from the start', ({ deepClicks }) => `indexable and depth > ${deepClicks}`,
    'Each click further fewer people arrive, and crawlers come by less often.', 'Link to them, or to the pages above them, from nearer the start.'),
  pages('Reach', 'kept_from_crawlers', 0.8, 'Indexable pages only people reach', 'indexable and held_back is not unknown',
    'Every route of a search crawler is closed by nofollow or robots.txt.', 'Open one link on the way to them.', 'held_back'),
  pages('Reach', 'by_redirect_only', 0.5, 'Reached through redirects only', 'indexable and reached and pages_linking = 0 and seen in redirect',
    'Nothing links to their own address; every visit takes the way round.', 'Link to the address itself.'),
  pages('Reach', 'gates', 0.3, 'Gates', ({ gatePages }) => `reached and depth > 0 and gate_for >= ${gatePages}`,
    'They are the only way to many pages: when one goes, so do all of them.', 'Give what lies behind a second way in.'),
  pages('Reach', 'dead_ends', 0.2, 'Dead ends', 'indexable and pages_linked = 0',
    'They link to no page of the site, so people and share go no further.', 'Link on to where a reader would go next.'),
  pages('Reach', 'traps', 0.5, 'Addresses of a trap', 'verdict_reason has "family of addresses that grows without end"',
    'A family of addresses grows without end and eats what crawlers give the site.', 'Stop linking to more of them, or close the family in robots.txt.', 'section'),
  pages('Reach', 'crumbs_astray', 0.2, 'Breadcrumbs that lead nowhere known', 'indexable and breadcrumb is not unknown and breadcrumb_parent is unknown and depth > 0',
    'The trail on the page names no page above it.', 'Make the steps of the trail links.', 'section'),

  // Flow
  pages('Flow', 'starving', 0.6, 'Starving pages', ({ starvingShare }) => `indexable and reached and share < ${starvingShare}`,
    'They get so little share that nothing on the site says they matter.', 'Link to them from pages about the same that have share to give.'),
  pages('Flow', 'one_way_in', 0.4, 'One page links here', 'indexable and reached and pages_linking = 1 and depth > 0',
    'They hang on a single page.', 'Link to them from at least one more page.'),
  pages('Flow', 'crowded', 0.3, 'Crowded pages', ({ crowdedLinks }) => `pages_linked > ${crowdedLinks}`,
    'With so many links each of them passes on next to nothing.', 'Drop what nobody follows; split long lists.', 'section'),
  links('Flow', 'links_to_broken', 1, 'Links to broken pages', 'kind = click and to (verdict in (broken, failing, unanswered))',
    'People meet an error, and the share that flows there is lost.', 'Point the link to what replaces the page, or take it away.'),
  links('Flow', 'links_to_redirects', 0.4, 'Links to redirects', 'kind = click and to (verdict = redirect)',
    'Every visit makes a detour, and chains grow with time.', 'Put the final address into the link.'),
  links('Flow', 'links_to_canonicalised', 0.3, 'Links to canonicalised pages', 'kind = click and to (verdict = canonicalised)',
    'They recommend an address that itself says another one counts.', 'Link to the canonical address.'),
  links('Flow', 'links_to_noindex', 0.3, 'Links to pages with noindex', 'kind = click and followed and to (verdict = noindex)',
    'Share flows to pages that may not be indexed.', 'Link where it can be of use, or let the page be indexed.'),
  links('Flow', 'links_to_blocked', 0.4, 'Links to pages closed by robots.txt', 'kind = click and followed and to (verdict = blocked)',
    'Share flows to pages that crawlers may not open.', 'Drop the links, or open the pages.'),
  links('Flow', 'nofollow_inside', 0.5, 'Nofollow within the site', 'kind = click and not followed and not external and not self',
    'The part of the share that stands there goes to nobody.', 'Follow your own pages; close what must not be indexed in another way.'),
  links('Flow', 'outside_broken', 0.3, 'Outside links that fail', 'kind = click and external and target_status >= 400',
    'They lead people into an error on another site.', 'Replace them or take them away.'),
  links('Flow', 'insecure_links', 0.3, 'Links from https to http', 'faults has insecure',
    'They take people off the secure site.', 'Write https into the link.'),
  links('Flow', 'lost_fragments', 0.2, 'Fragments that name nothing', 'faults has fragment',
    'The page opens at its top instead of where the link meant.', 'Correct the fragment, or give its target an id.'),

  // Words
  links('Words', 'anchor_empty', 0.8, 'Links without words', 'faults has empty',
    'Nobody can tell where they lead: not a screen reader, not a search engine.', 'Put words into the link.'),
  links('Words', 'image_no_alt', 0.8, 'Image links without a text', 'faults has image_no_alt',
    'The image is all there is, and it says nothing to those who cannot see it.', 'Give the image an alt that names the target.'),
  links('Words', 'anchor_generic', 0.5, 'Words that fit any link', 'faults has generic and not external',
    'Words such as “read more” say nothing about the target.', 'Name the target in the words.'),
  links('Words', 'anchor_address', 0.3, 'Bare addresses as words', 'faults has address',
    'An address tells less than its name.', 'Use the name of the page.'),
  links('Words', 'anchor_overlong', 0.2, 'Overlong words', 'faults has overlong',
    'Whole paragraphs as a link have no words that stand out.', 'Link the few words that name the target.'),
  links('Words', 'anchor_off_topic', 0.4, 'Words that are not about the target', 'faults has off_topic',
    'They have nothing in common with the title, the headings and the address of the page.', 'Say what the page is about.'),
  links('Words', 'anchor_conflict', 0.5, 'Same words, different targets', 'faults has conflict',
    'The same words promise one thing and lead to several.', 'Give each target words of its own.'),
  links('Words', 'anchor_split', 0.2, 'One target, unlike words', 'faults has split',
    'Words with nothing in common lead to one page.', 'Agree on what the page is called.'),
  links('Words', 'nofollow_mix', 0.3, 'Both followed and not', 'faults has nofollow_mix',
    'Some links to the page are followed and others are not.', 'Decide for one.'),

  // Rules
  pages('Rules', 'blocked_noindexed', 0.6, 'Closed by robots.txt and noindex', 'verdict = blocked and noindex',
    'Crawlers may not open the page, so they never see that it is not to be indexed.', 'Open it in robots.txt until it has left the index.', 'robots_rule'),
  pages('Rules', 'canonical_not_indexable', 0.9, 'Canonical to a page that may not be indexed', 'canonical_state = not_indexable',
    'The page hands its place to one that can have none.', 'Name an indexable page.', 'canonical'),
  pages('Rules', 'canonical_chain', 0.5, 'Chains of canonicals', 'canonical_state = chain',
    'The canonical leads to a page that names yet another.', 'Name the last of them.', 'canonical'),
  pages('Rules', 'canonical_loop', 0.9, 'Loops of canonicals', 'canonical_state = loop',
    'Pages name each other, and none counts.', 'Decide for one.', 'canonical'),
  pages('Rules', 'several_canonicals', 0.7, 'Several canonicals', 'canonicals > 1',
    'They contradict each other, and crawlers may pass over all of them.', 'Leave one.', 'section'),
  pages('Rules', 'canonical_outside', 0.4, 'Canonical outside the site', 'canonical_state = outside',
    'The page says that another site counts.', 'Check that this is meant.', 'section'),
  links('Rules', 'canonical_relative', 0.2, 'Relative canonicals', 'kind = canonical and relative',
    'Under another host, or a wrong base, they name another page.', 'Write the whole address.'),
  links('Rules', 'canonical_in_body', 0.6, 'Canonical in the body', 'kind = canonical and element = link and above starts "body"',
    'Outside the head a canonical does not count.', 'Move it into the head.'),
  pages('Rules', 'noindex_canonical', 0.5, 'Noindex with a canonical elsewhere', 'verdict = noindex and canonical is not unknown and not canonical_state = self',
    'It says both “this page does not count” and “that page stands for it”.', 'Use the canonical or the noindex, not both.', 'robots'),
  pages('Rules', 'redirect_chain', 0.4, 'Chains of redirects', 'redirect_hops > 1',
    'Each hop costs time, and crawlers give up after some.', 'Redirect to the end of the chain at once.', 'redirect_to'),
  pages('Rules', 'redirect_loop', 0.9, 'Loops of redirects', 'verdict_reason has "loop of"',
    'They never arrive.', 'Break the loop.'),
  links('Rules', 'hreflang_no_return', 0.5, 'hreflang without a return link', 'faults has no_return',
    'An edition that is not named in return does not count.', 'Name each edition on all of them.'),
  links('Rules', 'hreflang_not_indexable', 0.5, 'hreflang to a page that may not be indexed', 'kind = hreflang and not external and not to (indexable)',
    'The edition can never be shown.', 'Name an indexable page.'),
  links('Rules', 'hreflang_bad_code', 0.5, 'hreflang with a bad code', 'faults has bad_code',
    'Crawlers do not know the language or region.', 'Use a BCP 47 code such as fr or fr-CA.'),
  pages('Rules', 'variants_unsettled', 0.6, 'Variants that nothing settles', 'variants_unsettled',
    'The same page stands under several addresses, and neither a redirect nor a canonical says which counts.', 'Redirect all but one, or give them one canonical.'),
  pages('Rules', 'duplicates', 0.5, 'The same content twice', 'indexable and duplicates > 0',
    'Indexable pages hold the same, byte for byte.', 'Keep one; redirect the others, or name it as canonical.', 'content_hash'),
  pages('Rules', 'near_duplicates', 0.3, 'Nearly the same content', 'indexable and near_duplicates > 0',
    'Indexable pages differ in a few words.', 'Join them, or tell them apart.', 'near_group'),
  pages('Rules', 'no_title', 0.5, 'No title', 'indexable and (title is unknown or title = "")',
    'Nothing names the page in results, tabs and bookmarks.', 'Give it a title of its own.', 'section'),
  pages('Rules', 'no_h1', 0.2, 'No main heading', 'indexable and (h1 is unknown or h1 = "")',
    'Nothing on the page says what it is.', 'Give it an h1.', 'section'),
  pages('Rules', 'thin', 0.2, 'Hardly any words', ({ thinWords }) => `indexable and words < ${thinWords}`,
    'There is next to nothing to index.', 'Write more, join it with another, or take it out of the index.', 'section'),
  pages('Rules', 'failing', 0.8, 'Pages that fail', 'verdict in (failing, unanswered)',
    'The server gives an error or no answer.', 'Look at the server; crawl again to see whether it lasts.'),
  files('Rules', 'robots_all_closed', 1, 'Everything is closed', 'robots.txt closes the whole host.', 'Take the rule away if the site is to be found.'),
  files('Rules', 'robots_unreadable', 1, 'robots.txt cannot be read', 'An error or no answer closes the whole host.', 'Serve the file, or answer 404.'),
  files('Rules', 'robots_html', 0.6, 'robots.txt is really HTML', 'A page stands where rules are expected, so nothing in it counts.', 'Serve a text file, or answer 404.'),
  files('Rules', 'robots_early', 0.4, 'Rules before any group', 'They hold for nobody.', 'Write a User-agent line above them.'),
  files('Rules', 'robots_unknown', 0.2, 'Lines that robots.txt does not know', 'Crawlers pass over them.', 'Correct or remove them.'),
  files('Rules', 'robots_empty', 0.2, 'Groups without rules', 'They open everything to their crawlers.', 'Add the rules that were meant, or take the group away.'),
  files('Rules', 'resources_closed', 0.5, 'Resources closed by robots.txt', 'Crawlers cannot see pages as people do.', 'Open scripts, styles and images that pages need.'),

  // Roll call
  pages('Roll call', 'listed_not_indexable', 0.6, 'In a sitemap, and not indexable', 'seen in sitemap and not indexable',
    'The sitemap asks for what must not be indexed.', 'Take it out of the sitemap, or let it be indexed.', 'verdict'),
  pages('Roll call', 'listed_blocked', 0.6, 'In a sitemap, and closed by robots.txt', 'seen in sitemap and verdict = blocked',
    'The sitemap asks for what robots.txt closes.', 'Open it or take it out.', 'robots_rule'),
  pages('Roll call', 'indexable_not_listed', 0.3, 'Indexable, and in no sitemap', 'indexable and not seen in sitemap',
    'The sitemap does not tell of it.', 'Add it.', 'section'),
  pages('Roll call', 'listed_no_route', 0.8, 'In a sitemap, without a route', 'seen in sitemap and not reached',
    'The sitemap knows what the links of the site have lost.', 'Link to it, or take it out.', 'section'),
  pages('Roll call', 'lastmod_malformed', 0.2, 'lastmod that is no date', 'sitemap_lastmod is not unknown and not sitemap_lastmod matches "^\\\\d{4}(-\\\\d\\\\d(-\\\\d\\\\d(T\\\\d\\\\d:\\\\d\\\\d(:\\\\d\\\\d(\\\\.\\\\d+)?)?(Z|[+-]\\\\d\\\\d:\\\\d\\\\d))?)?)?$"',
    'It is not written as a W3C date, so nobody can tell when the page changed.', 'Write 2027-03-01, or with a time and its zone.', 'section'),
  files('Roll call', 'sitemap_fault', 0.6, 'Sitemaps that fail', 'They cannot be read, or not to their end.', 'Mend the line that is named.'),
  files('Roll call', 'sitemap_foreign', 0.3, 'Entries outside the site', 'A sitemap lists addresses that do not belong to it.', 'List inside addresses only, written in full.'),
  files('Roll call', 'sitemap_large', 0.5, 'Sitemaps that are too long', 'More than 50,000 entries: what comes after them may not be read.', 'Split it, and list the parts in an index.'),
  files('Roll call', 'sitemap_twice', 0.1, 'Addresses listed twice', 'The same address stands in sitemaps more than once.', 'List each address once.'),
  files('Roll call', 'robots_sitemap', 0.6, 'Sitemap lines of robots.txt that fail', 'robots.txt names a sitemap that gives nothing.', 'Correct the address.'),
];
