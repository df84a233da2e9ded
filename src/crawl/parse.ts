/** Parses HTML documents into what is stored of them, apart from fetching, so that a thread can do it. */
import { hash as digest } from 'node:crypto';
import { describeDirectives, pageRules, readHtml } from '$core/html';
import type { Directive } from '$core/html';
import { bundleLinks } from '$core/links';
import type { Link } from '$core/links';
import { scopeOf } from '$core/scope';
import type { CrawlSettings } from '$core/settings';
import { withinLimits } from './textLimits';
import type { PageResult, QueuedUrl, Source } from '$server/index';
// Not from the index of the server: a thread that parses documents has no use for the database.
import { compressSource } from '$server/crawls/sources';
import { discoverer } from './discoveries';

/** An HTML document as it was received, with what the head of its answer says. */
export interface Document {
  queued: QueuedUrl;
  body: Uint8Array;
  /** Charset parameter of the Content-Type header. */
  charset: string | undefined;
  /** Of X-Robots-Tag. */
  directives: Directive[];
  /** Of Link. */
  links: Link[];
  /** Whether the body was longer than what was received of it. */
  truncated: boolean;
}

/** What is known of a page once its document has been parsed. */
export type ParsedDocument = Pick<
  PageResult,
  | 'robots'
  | 'noindex'
  | 'pageNofollow'
  | 'pageRules'
  | 'redirectTo'
  | 'title'
  | 'description'
  | 'h1'
  | 'language'
  | 'canonical'
  | 'breadcrumb'
  | 'modified'
  | 'wordCount'
  | 'contentHash'
  | 'fingerprint'
  | 'wordFilter'
  | 'ids'
  | 'links'
  | 'discoveries'
  | 'source'
  | 'truncated'
>;

export interface ParserSetup {
  settings: CrawlSettings;
  /** Whether only a selection is fetched again. */
  selectionOnly: boolean;
}

/** A source that is larger than this when compressed is not kept: a usual MariaDB takes 16 MiB with a statement. */
const MAX_SOURCE_BYTES = 12 << 20;
const MAX_IDS_LENGTH = 1 << 20;
/** Headings are kept as one text. */
const H1_BETWEEN = ' / ';

const contentHash = (body: Uint8Array) => digest('sha256', body, 'hex').slice(0, 32);

function sourceOf(body: Uint8Array, hash: string): Source | null {
  if (body.length === 0) return null;
  // A copy of its own size: what compresses gives a view of a buffer that is many times larger.
  const data = new Uint8Array(compressSource(body));
  return data.length > MAX_SOURCE_BYTES ? null : { hash, size: body.length, data };
}

function packFingerprint(fingerprint: [number, number] | null): Uint8Array | null {
  if (!fingerprint) return null;
  const bytes = new Uint8Array(8);
  const view = new DataView(bytes.buffer);
  fingerprint.forEach((half, i) => view.setUint32(4 * i, half));
  return bytes;
}

/** What the rules of an answer and its document, taken together, say to a crawler. */
export function rulesOf(directives: readonly Directive[], token: string) {
  const { robots, noindex, nofollow } = pageRules(directives, token);
  return {
    robots: robots || null,
    noindex,
    pageNofollow: nofollow,
    pageRules: describeDirectives(directives) || null,
  };
}

/** Makes the parser for the documents of one crawl. */
export function documentParser({ settings, selectionOnly }: ParserSetup): (document: Document) => ParsedDocument {
  const scope = scopeOf(settings);
  const discoveriesOf = discoverer(scope, settings, selectionOnly);
  return ({ queued, body, charset, directives, truncated, links: headLinks }) => {
    const page = readHtml(body, queued.address, { charset, identify: scope.identify });
    const rules = rulesOf([...page.directives, ...directives], settings.token);
    const links = [...page.links, ...headLinks];
    const hash = contentHash(body);
    const ids = page.ids.join('\n');
    return withinLimits({
      ...rules,
      truncated: truncated || page.truncated,
      redirectTo: page.refresh,
      title: page.title,
      description: page.description,
      h1: page.h1.length ? page.h1.join(H1_BETWEEN) : null,
      language: page.language,
      canonical: links.find(({ kind }) => kind === 'canonical')?.target ?? null,
      breadcrumb: page.breadcrumb,
      modified: page.modified,
      wordCount: page.wordCount,
      contentHash: hash,
      fingerprint: packFingerprint(page.fingerprint),
      wordFilter: page.wordFilter,
      ids: settings.fragments && ids.length < MAX_IDS_LENGTH ? ids : null,
      links: bundleLinks(links),
      discoveries: discoveriesOf(queued, links, rules.pageNofollow),
      source: sourceOf(body, hash),
    });
  };
}
