/**
 * The one place where codes become sentences. Everything below the screens, the terminal and the files deals in codes
 * with parameters; whoever shows them calls `sentence`.
 */
import type { FetchError, RobotsRule, UnreadableReason, UnvisitedReason } from '../facts';
import { thousands } from '../numbers';

const counted = (n: number, one: string, many: string) => `${thousands(n)} ${n === 1 ? one : many}`;
/** How much of what names a target the source of a link has, from 0 to 1. */
const ofName = (words: number) =>
  words >= 0.995
    ? '; the page has all words that name the target'
    : words > 0
      ? `; the page has ${Math.max(1, Math.round(words * 100))} % of what names the target`
      : '';

const errors: Record<FetchError, string> = {
  dns: 'The host has no DNS record.',
  refused: 'The connection was refused.',
  unreachable: 'The host cannot be reached.',
  timeout: 'No answer came in time.',
  tls: 'The certificate or the secure connection was not accepted.',
  reset: 'The connection broke off before the answer was complete.',
  malformed: 'The answer does not follow HTTP.',
  private:
    'The host has a private address. Such hosts are fetched only where this server allows it and the start, the hosts or the overrides of the settings name them.',
  network: 'The network failed.',
  unreadable: 'The document could not be read.',
};

const unreadable: Record<UnreadableReason, string> = {
  time: 'Reading the document took too long.',
  memory: 'Reading the document took too much memory.',
  fault: 'The document made the parser of Edge Map fail.',
};

const unreadableFile: Record<UnreadableReason, string> = {
  time: 'Reading the file took too long.',
  memory: 'Reading the file took too much memory.',
  fault: 'The file made the parser of Edge Map fail.',
};

const unvisited: Record<UnvisitedReason, string> = {
  limit: 'The crawl ended at its page limit.',
  depth: 'It is deeper than the depth limit of the crawl.',
  hops: 'It is at the end of a chain of too many redirects.',
  scope: 'The include and exclude patterns of the settings leave it out.',
  kind: 'Only links of a kind that the settings do not follow lead to it.',
  trap: 'It belongs to a family of addresses that grows without end, of which enough were fetched.',
  selection: 'Only a selection was fetched again, and it was not part of it.',
  stopped: 'The crawl was stopped before it was fetched.',
  queued: 'The crawl goes on and has not fetched it yet.',
  host: 'Its host asked again and again to wait, and was left alone.',
  robots: 'robots.txt closed it when the site was crawled, and a draft opens it.',
  planned: 'The site is planned, and nothing of it has been fetched.',
};

/** Ends a sentence with how many requests were made, if there was more than one. */
const asked = (text: string, tries: number) =>
  tries > 1 ? `${text.replace(/\.$/, '')}, after ${tries} requests.` : text;

/** The rule as robots.txt has it, with its line: `Disallow: /shop (line 12)`. */
export const ruleText = ({ directive, path, line }: RobotsRule) =>
  `${directive === 'allow' ? 'Allow' : 'Disallow'}: ${path} (line ${line})`;

const catalogue = {
  // What is wrong with a sitemap
  sitemap_namespace: ({ found }: { found: string }) =>
    `The namespace is ${found ? `“${found}”` : 'missing'}; it must be http://www.sitemaps.org/schemas/sitemap/0.9.`,
  sitemap_encoding: ({ encoding }: { encoding: string }) =>
    `The file is not encoded in UTF-8${encoding ? `, but in ${encoding}` : ''}.`,
  sitemap_many: ({ most }: { most: number }) => `The file has more than ${thousands(most)} entries.`,
  sitemap_size: ({ megabytes }: { megabytes: number }) => `The file is larger than ${megabytes} MiB, uncompressed.`,
  loc_missing: () => 'The entry has no address.',
  loc_relative: ({ text }: { text: string }) => `“${text}” is no absolute http or https address.`,
  loc_long: ({ characters, most }: { characters: number; most: number }) =>
    `The address has ${thousands(characters)} characters; at most ${thousands(most)} are allowed.`,
  loc_characters: ({ text }: { text: string }) => `“${text}” has characters that must be percent-encoded.`,
  loc_escape: ({ text }: { text: string }) => `“${text}” has a % that begins no escape.`,
  loc_host: ({ address, origin }: { address: string; origin: string }) =>
    `${address} is on another host or protocol than the sitemap, which is on ${origin}.`,
  loc_folder: ({ address, folder }: { address: string; folder: string }) =>
    `${address} is outside the folder of the sitemap, ${folder}.`,
  loc_twice: ({ address }: { address: string }) => `${address} is listed more than once.`,
  lastmod_bad: ({ text }: { text: string }) =>
    `“${text}” is no W3C date, such as 2026-10-02 or 2026-10-02T09:30:00+02:00.`,
  lastmod_future: ({ text }: { text: string }) => `${text} is in the future.`,
  priority_bad: ({ text }: { text: string }) => `“${text}” is not a number from 0.0 to 1.0.`,
  changefreq_bad: ({ text }: { text: string }) =>
    `“${text}” is none of always, hourly, daily, weekly, monthly, yearly and never.`,
  index_itself: () => 'The index names itself.',
  loc_ampersand: () => 'A bare & has to be written as &amp; in XML.',
  index_in_index: () => 'This index is named by another index, which may name only sitemaps.',
  file_missing: ({ detail }: { detail: string }) => `The file cannot be read: ${detail}.`,

  // What is wrong with a robots.txt
  robots_closes_all: () => 'The rule closes the whole site to every crawler.',
  robots_early: ({ text }: { text: string }) => `“${text}” stands before any User-agent line and holds for nobody.`,
  robots_unknown: ({ text }: { text: string }) => `“${text}” is no line of the standard; crawlers pass it over.`,
  robots_empty: ({ text }: { text: string }) =>
    `“${text}” has no rules below it, so everything is open to this crawler.`,
  robots_bad_sitemap: ({ text }: { text: string }) => `“${text}” is no absolute http or https address.`,
  robots_closes_resource: ({ path, example }: { path: string; example: string }) =>
    `“${path}” closes style sheets or scripts that pages need to be shown, such as ${example}.`,
  robots_is_html: () => 'The file is a page of HTML; crawlers find no rule in it.',
  robots_too_large: ({ kibibytes }: { kibibytes: number }) =>
    `The file is larger than ${kibibytes} KiB; crawlers may read no further.`,
  robots_not_utf8: () => 'The line is not encoded in UTF-8.',
  robots_agent_twice: ({ agent, line }: { agent: string; line: number }) =>
    `“${agent}” has a group from line ${line} on already; crawlers take both together.`,
  rule_empty: () => 'The rule has no path, and there are others: it decides nothing.',
  rule_repeated: ({ line }: { line: number }) => `The rule says the same as line ${line}.`,
  rule_outweighed: ({ line }: { line: number }) => `Line ${line} allows the same addresses, and allow wins.`,
  rule_opens_nothing: () => 'No rule that it outweighs closes what it allows.',
  rule_covered: ({ line }: { line: number }) => `Line ${line} decides the same for all that it matches.`,

  // Why a line of an import is left out
  not_a_log_line: () => 'The line is in no format of access logs that can be read.',
  no_request: () => 'The line holds no request: the connection was closed, or what was sent was no HTTP.',
  no_address_asked: () => 'The request asks for no address.',
  not_an_address: ({ text }: { text: string }) => `“${text}” is not a valid address.`,
  no_address_in_row: () => 'The row has no address.',
  outside_site: ({ address }: { address: string }) => `${address} does not belong to the site.`,
  row_unreadable: ({ detail }: { detail: string }) => `The row cannot be read: ${detail}.`,

  /** A text of an earlier version, which stored sentences. */
  text: ({ text }: { text: string }) => text,

  // Why an address has its verdict
  unvisited: ({ reason }: { reason: UnvisitedReason }) => unvisited[reason],
  blocked: ({ rule }: { rule: RobotsRule }) => ruleText(rule),
  robots_unreadable: () => 'robots.txt could not be read, which closes the whole host.',
  error: ({ error, tries }: { error: FetchError; tries: number }) => asked(errors[error], tries),
  status: ({ status, tries }: { status: number; tries: number }) => asked(`The server answered ${status}.`, tries),
  redirect_nowhere: ({ status }: { status: number }) =>
    `The server answered ${status} and named no address that can be followed.`,
  redirect_loop: ({ hops }: { hops: number }) => `A loop of ${counted(hops, 'redirect', 'redirects')}.`,
  redirect_end: ({ address, hops }: { address: string; hops: number }) =>
    hops > 1 ? `${address} after ${counted(hops, 'redirect', 'redirects')}` : address,
  content_type: ({ type }: { type: string }) => type,
  no_content_type: ({ status }: { status: number }) => `The server answered ${status} without a content type.`,
  directives: ({ robots }: { robots: string }) => robots,
  canonical: ({ address }: { address: string }) => address,
  nothing: () => '',

  unreadable: ({ reason }: { reason: UnreadableReason }) => unreadable[reason],

  // How a crawl ended
  stopped: () => 'The crawl was stopped before everything was fetched.',
  page_limit: ({ pages }: { pages: number }) => `The crawl ended at its limit of ${counted(pages, 'page', 'pages')}.`,
  size_limit: ({ megabytes }: { megabytes: number }) =>
    `The crawl ended at its limit of ${thousands(megabytes)} MiB received.`,
  time_limit: ({ minutes }: { minutes: number }) =>
    `The crawl ended at its limit of ${counted(minutes, 'minute', 'minutes')}.`,
  host_left: ({ host, pages }: { host: string; pages: number }) =>
    `${host} asked again and again to wait and was left alone; ${counted(pages, 'page was', 'pages were')} not fetched. Resume the crawl to go on with them, with a lower crawl rate if you can.`,
  sitemaps_left: ({ sitemaps, minutes }: { sitemaps: number; minutes: number }) =>
    `${counted(sitemaps, 'sitemap was', 'sitemaps were')} not read within ${counted(minutes, 'minute', 'minutes')} after everything else was fetched. Resume the crawl to read on.`,
  sitemap_entries_limit: ({ sitemaps, entries }: { sitemaps: number; entries: number }) =>
    `${counted(sitemaps, 'sitemap was', 'sitemaps were')} not read: the others list ${thousands(entries)} addresses, as many as are taken.`,
  internal: () =>
    'Edge Map met a fault of its own; the log of the worker has the details. What was fetched is kept: resume the crawl, or start it again.',
  start_error: ({ address, host, error }: { address: string; host: string; error: FetchError }) =>
    `${address} could not be read. ${errors[error]} Check the address, and that ${host} is up.`,
  start_blocked: ({ host, rule }: { host: string; rule: RobotsRule }) =>
    `robots.txt of ${host} closes the start page: ${ruleText(rule)}. Start from another page, have the rule changed, or ignore robots.txt in the settings.`,
  start_robots_unreadable: ({ host }: { host: string }) =>
    `robots.txt of ${host} could not be read, which closes the whole host. Try again later, or ignore robots.txt in the settings.`,
  start_outside: ({ address, target }: { address: string; target: string }) =>
    `${address} redirects to ${target}, which is another site. Start from there instead.`,
  start_nowhere: ({ address, status }: { address: string; status: number }) =>
    `${address} answers ${status}, a redirect that names no address.`,
  start_login: ({ address }: { address: string }) =>
    `${address} asks for a user and a password (401). Enter them in the settings, under basic authentication.`,
  start_status: ({ address, status }: { address: string; status: number }) =>
    `${address} answers ${status}. Check the address; a crawl begins with a page that can be read.`,
  start_type: ({ address, type }: { address: string; type: string | null }) =>
    `${address} is ${type ?? 'of no known type'}, not an HTML page. Start from a page that links to others.`,
  start_unread: ({ address }: { address: string }) => `${address} leads to no page that can be read.`,

  // robots.txt and sitemaps
  too_many_redirects: ({ most }: { most: number }) => `More than ${counted(most, 'redirect', 'redirects')}.`,
  too_large: ({ megabytes }: { megabytes: number }) => `The file is larger than ${thousands(megabytes)} MiB.`,
  sitemap_not_read: () => 'The sitemap has not been read.',
  too_many_sitemaps: ({ most }: { most: number }) =>
    `A crawl reads at most ${thousands(most)} sitemaps; the further ones that this index names were left out.`,
  empty_file: () => 'The file is empty.',
  nested_too_deep: ({ most }: { most: number }) => `Elements stand in one another more than ${most} deep.`,
  file_unreadable: ({ reason }: { reason: UnreadableReason }) => unreadableFile[reason],
  not_a_sitemap: ({ root }: { root: string }) => `The file is not a sitemap: its root element is <${root}>.`,
  not_a_list: () => 'The file is neither XML nor a list of addresses.',
  not_well_formed: ({ detail }: { detail: string }) => `The XML is not well-formed: ${detail}`,
  no_sitemap_found: () => 'Neither robots.txt nor the usual addresses /sitemap.xml and /sitemap_index.xml name one.',
  entries: ({ entries }: { entries: number }) => counted(entries, 'entry', 'entries'),
  line: ({ text }: { text: string }) => text,
  closed_resource: ({ address, rule }: { address: string; rule: RobotsRule }) => `${address}: ${ruleText(rule)}`,
  rule: ({ rule }: { rule: RobotsRule }) => ruleText(rule),
  failing_sitemap: ({ address, fault }: { address: string; fault: object }): string =>
    `${address}: ${sentence(fault as Message)}`,
  address: ({ address }: { address: string }) => address,

  // Why a finding holds for a link
  why_generic: ({ words }: { words: string }) => `“${words}” is all that the link says, and it would fit any link.`,
  why_off_topic: ({ words, title }: { words: string; title: string }) =>
    `No word of “${words}” is in the title “${title}”, the headings, description, address or text of the target.`,
  why_conflict: ({ words, others }: { words: string; others: { address: string; links: number }[] }) =>
    others.length === 0
      ? `“${words}” also leads elsewhere.`
      : `“${words}” also leads to ${others.map(({ address, links }) => `${address} (${counted(links, 'link', 'links')})`).join(', ')}.`,
  why_split: ({ usual }: { usual: string }) =>
    `Most links to the same page say “${usual}”, which has no word in common.`,
  why_overlong: ({ characters }: { characters: number }) =>
    `The anchor text has ${counted(characters, 'character', 'characters')}.`,
  why_target: ({ verdict, reason }: { verdict: string; reason: object }): string =>
    `The target is ${verdict.replace('canonicalised', 'canonical elsewhere')}: ${sentence(reason as Message)}`,

  // Traps
  repeated_segments: () => 'parts of its addresses repeat themselves',
  pages_alike: ({ percent }: { percent: number }) =>
    `${percent} % of its pages are nearly the same, or are no pages of their own`,

  // Hosts that are asked less often
  asked_to_wait: ({ status }: { status: number }) => `The server answered ${status} and gets no requests for a while.`,

  // What waits in a running crawl, and the responses to its requests
  waiting_start: () => 'start',
  waiting_clicks: ({ clicks }: { clicks: number }) => `${counted(clicks, 'click', 'clicks')} away`,
  waiting_unlinked: () => 'known from other sources',
  waiting_resources: () => 'resources, to be checked',
  waiting_sitemaps: () => 'sitemaps, to be read',
  waiting_outside: () => 'outside, to be checked',
  waiting_aside: () => 'left out by the settings',
  outcome_blocked: () => 'closed by robots.txt',
  outcome_status: ({ status }: { status: number }) => `answered ${status}`,
  outcome_error: ({ error }: { error: FetchError }) => `no answer: ${errors[error]}`,

  // What keeps a crawl from going on
  no_worker: () =>
    'No worker is alive, so this crawl does not go on. Nothing is lost. Start a worker with ./edgemap worker, or stop Edge Map and start it again.',
  leader_gone: ({ seconds }: { seconds: number }) =>
    `The worker that led this crawl does not answer. Another one takes over in ${counted(seconds, 'second', 'seconds')}.`,
  worker_restarted: ({ seconds }: { seconds: number }) =>
    `A worker ended by itself ${counted(seconds, 'second', 'seconds')} ago and was started again. Nothing is lost.`,
  disk_full: ({ megabytes, needed }: { megabytes: number; needed: number }) =>
    `Only ${thousands(megabytes)} MB are free on the disk of the database. Nothing is fetched until ${thousands(needed)} MB are: make room, and crawls go on by themselves.`,
  workers_died: ({ times, during }: { times: number; during: 'crawl' | 'analysis' }) =>
    `${times} workers in a row ended by themselves ${
      during === 'crawl' ? 'while they ran this crawl' : 'while they analysed this crawl'
    }, so it was set aside. What was fetched is kept. The log of the worker says more; more memory may help.`,

  // Warnings while a crawl runs
  mostly_blocked: ({
    blocked,
    done,
    origin,
    rule,
  }: {
    blocked: number;
    done: number;
    origin: string | null;
    rule: RobotsRule | null;
  }) =>
    `robots.txt closes ${thousands(blocked)} of the ${thousands(done)} addresses met so far.` +
    `${rule && rule.directive !== 'unreadable' ? ` ${origin}/robots.txt says: ${ruleText(rule)}.` : ''}` +
    ' Have the rule changed, or ignore robots.txt in the settings.',
  mostly_noindex: ({ all, address, rules }: { all: boolean; address: string | null; rules: string | null }) =>
    `${all ? 'Every page' : 'Nearly every page'} read so far says noindex: nothing of the site may be indexed.` +
    (address ? ` ${address} says: ${rules ?? 'noindex'}.` : ''),
  mostly_login: ({ target }: { target: string | null }) =>
    `Nearly every address redirects to a login${target ? `, ${target}` : ''}. Enter cookies, headers or a password in the settings.`,
  edits_csv: ({ detail }: { detail: string }) => `The file cannot be read as CSV (${detail}).`,
  edits_columns: ({ missing }: { missing: string[] }) =>
    `The file lacks the ${missing.length === 1 ? 'column' : 'columns'} ${missing.join(' and ')}.`,
  edit_op: ({ text, known }: { text: string; known: string[] }) =>
    `“${text}” is not an operation. Use one of ${known.join(', ')}.`,
  edit_address: ({ text }: { text: string }) => `“${text}” is not a valid address.`,
  edit_outside: ({ address }: { address: string }) =>
    `${address} does not belong to the site as the settings of the crawl define it.`,
  edit_unknown_page: ({ address }: { address: string }) =>
    `The crawl does not know ${address}. Check the spelling, or add the page in an edit before this one.`,
  edit_unknown_target: ({ address }: { address: string }) =>
    `The crawl does not know the target ${address}. Check the spelling, or add the page in an edit before this one.`,
  edit_needs_target: () => 'This edit needs a target.',
  edit_no_match: ({ pattern }: { pattern: string }) => `No page that can be edited matches ${pattern}.`,
  edit_not_read: ({ address }: { address: string }) =>
    `${address} does not answer with an HTML page that was read, so nothing on it can be edited.`,
  edit_not_there: ({ address }: { address: string }) => `${address} does not answer with a page that could be removed.`,
  edit_page_exists: ({ address }: { address: string }) => `There is a page at ${address} already.`,
  edit_itself: ({ address }: { address: string }) => `${address} would redirect to itself.`,
  edit_circle: ({ address }: { address: string }) => `${address} would redirect in a circle.`,
  edit_move: ({ source, target }: { source: string; target: string }) =>
    `From ${source} nothing can move to “${target}”. Name one page and its new address, or a folder and its new one, as /learn/* and /discover/*.`,
  edit_no_link: ({ source, target, anchor }: { source: string; target: string; anchor: string }) =>
    `${source} has no such link to ${target}${anchor ? ` with the words “${anchor}”` : ''}.`,
  edit_placement: ({ text }: { text: string }) =>
    `“${text}” is not a placement: header, nav, main, aside, footer or none.`,
  // What is wrong with an outline
  outline_no_address: ({ text }: { text: string }) =>
    `“${text}” gives no address. Write an address, or a title with letters.`,
  outline_twice: ({ address, first }: { address: string; first: number }) =>
    `${address} stands in line ${first} already.`,
  outline_no_parent: ({ text }: { text: string }) =>
    `The parent “${text}” is not in the table, or is below the page itself.`,
  outline_long: ({ most }: { most: number }) => `Only the first ${thousands(most)} pages are read.`,
  outline_table: ({ detail }: { detail: string }) => `The table cannot be read (${detail}).`,
  // What proposals of a plan bring
  plan_brings: ({ pages, words }: { pages: number; words: number }) =>
    `Brings ${counted(pages, 'page', 'pages')} near enough${ofName(words)}.`,
  plan_text: ({ nth, of, words }: { nth: number; of: number; words: number }) =>
    `Link ${nth} of ${of} from running text${ofName(words)}.`,
  plan_share: ({ gives, from, to, words }: { gives: number; from: number; to: number; words: number }) =>
    `Gives about ${gives.toFixed(2)}×; with all links of the plan the target goes from ${from.toFixed(2)}× to ${to.toFixed(2)}×${ofName(words)}.`,
  plan_fewer: ({ pages }: { pages: number }) =>
    `One link less on ${counted(pages, 'page', 'pages')} with too many; its target is linked from elsewhere, or may not be indexed.`,
  // What is found in place of an edit
  found_status: ({ status }: { status: number | null }) =>
    status === null ? 'The address gives no answer.' : `The address answers ${status}.`,
  found_redirect: ({ address }: { address: string }) => `The address redirects to ${address}.`,
  found_canonical: ({ address }: { address: string | null }) =>
    address ? `The canonical is ${address}.` : 'The page has no canonical.',
  found_words: ({ words }: { words: string }) =>
    words ? `The link has the words “${words}”.` : 'The link has no words.',
  found_no_link: () => 'Neither the old link nor the new one is there.',
  found_robots: ({ line, text }: { line: number; text: string }) =>
    text ? `Line ${line} is “${text}”.` : `Line ${line} is empty or missing.`,
  found_partly: ({ done, looked, first }: { done: number; looked: number; first: string }) =>
    `${thousands(done)} of the ${thousands(looked)} pages that were looked at have it; ${first} does not.`,
  mostly_status: ({ status }: { status: 401 | 403 | 429 }) =>
    `Nearly every answer is ${status}. ${
      status === 429
        ? 'Lower the crawl rate in the settings.'
        : status === 401
          ? 'Enter a user and password in the settings.'
          : 'The server may refuse this crawler by its user agent or address: try another user agent, or ask its operator.'
    }`,
} as const;

type Catalogue = typeof catalogue;
export type MessageCode = keyof Catalogue;
type Parameters<C extends MessageCode> = Catalogue[C] extends () => string
  ? unknown
  : Catalogue[C] extends (given: infer P) => string
    ? P
    : never;

/** A code with its parameters: what is stored, compared and sent; `sentence` makes text of it. */
export type Message = { [C in MessageCode]: { code: C } & Parameters<C> }[MessageCode];

/** The sentence for a message. */
export const sentence = (message: Message): string =>
  (catalogue[message.code] as (given: Message) => string | undefined)?.(message) ?? '';

/** The sentence for a failed request, without the number of requests. */
export const errorText = (error: FetchError): string => errors[error];

/** The sentence for why an address was not fetched. */
export const unvisitedText = (reason: UnvisitedReason): string => unvisited[reason];

/** Whether a value, as it was stored, is a message that this program knows. */
export const isMessage = (value: unknown): value is Message =>
  typeof value === 'object' && value !== null && 'code' in value && Object.hasOwn(catalogue, String(value.code));
