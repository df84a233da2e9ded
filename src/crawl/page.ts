import { parseLinkHeader, readRobotsHeader, relationOf } from '$core/html';
import { bundleLinks } from '$core/links';
import type { Link } from '$core/links';
import type { CrawlSettings } from '$core/settings';
import type { RobotsRule } from '$core/facts';
import { nothingFound } from '$core/snapshot';
import type { Identified } from '$core/url';
import { isRedirectStatus } from '$core/verdict';
import type { PageResult, QueuedUrl } from '$server/index';
import type { DiscoveriesOf } from './discoveries';
import { headerOf } from './fetch';
import type { Answer } from './fetch';
import { rulesOf } from './parse';
import type { ParserPool } from './parserPool';
import type { Fetch } from './retry';
import { withinLimits } from './textLimits';

const htmlType = /^\s*(text\/html|application\/xhtml\+xml)\b/i;

/** Whether an answer may hold HTML: by its type or, when it names none, by how it begins. */
const mayBeHtml = (headers: Answer['headers']) => {
  const type = headerOf(headers, 'content-type') || null;
  return type === null || htmlType.test(type);
};
const beginOf = (body: Uint8Array) =>
  Buffer.from(body.buffer, body.byteOffset, Math.min(body.length, 512)).toString('latin1');
const beginsAsHtml = (body: Uint8Array) => /^\s*(<!doctype html|<html|<head|<body)/i.test(beginOf(body));
/** How files begin that are surely no HTML, whatever the header says. */
const binaryMark = /^(%PDF-|\x89PNG\r\n|GIF8[79]a|\xff\xd8\xff|PK\x03\x04|\x1f\x8b|RIFF....WEBP|wOF[F2])/s; // eslint-disable-line no-control-regex

const withoutLinks = {
  ...nothingFound,
  links: bundleLinks([]),
  discoveries: [],
  source: null,
  headers: null,
  modified: null,
};

/** The result for an address that is not fetched, because robots.txt closes it or its host gives no answer. */
export const unfetchedPage = (queued: QueuedUrl, why: Pick<PageResult, 'robotsRule' | 'error'>): PageResult => ({
  ...withoutLinks,
  ...why,
  queued,
});

/** A link that stands in the head of an answer instead of its document. */
const headLink = (kind: Link['kind'], { address, fragment }: Identified, anchor = ''): Link => ({
  kind,
  element: 'http',
  target: address,
  anchor,
  rel: '',
  placement: 'none',
  above: '',
  fragment,
  line: 0,
  column: 0,
});

const MAX_HEADERS_LENGTH = 4000;

/** The head of an answer as text, a line a field. What cookies hold is nobody's business. */
function headerLines(headers: Answer['headers']): string {
  const lines = Object.entries(headers).flatMap(([name, values]) =>
    [values ?? []].flat().map((value) => `${name}: ${name === 'set-cookie' ? value.replace(/=[^;]*/, '=…') : value}`),
  );
  return lines.join('\n').slice(0, MAX_HEADERS_LENGTH);
}

type Identify = (href: string, base?: string) => Identified | null;

function headerLinks(headers: Answer['headers'], address: string, identify: Identify): Link[] {
  return parseLinkHeader(headerOf(headers, 'link') ?? '').flatMap(({ href, rel, params }) => {
    const target = identify(href, address);
    const kind = relationOf(rel, Boolean(params.hreflang));
    return target && kind ? [headLink(kind, target, kind === 'hreflang' ? params.hreflang : '')] : [];
  });
}

/** What pages are fetched and parsed with. */
export interface PageOptions {
  fetch: Fetch;
  settings: Pick<CrawlSettings, 'token'>;
  identify: Identify;
  parse: ParserPool['parse'];
  discoveriesOf: DiscoveriesOf;
}

/** Fetches an address and has its document parsed into page facts. */
export async function fetchPage(
  queued: QueuedUrl,
  robotsRule: RobotsRule | null,
  { fetch, settings, identify, parse, discoveriesOf }: PageOptions,
): Promise<PageResult> {
  const { address } = queued;
  const wanted = (status: number, headers: Answer['headers']) => status >= 200 && status < 300 && mayBeHtml(headers);
  const fetched = await fetch(address, { wanted });
  const base = { ...withoutLinks, queued, robotsRule, fetchedAt: new Date(), tries: fetched.tries };
  if (!fetched.ok) return { ...base, error: fetched.error };
  const { status, headers, body, truncated } = fetched.answer;
  const type = headerOf(headers, 'content-type') || null;
  const answered = { ...base, ...answerFacts(fetched.answer), truncated };
  if (isRedirectStatus(status)) {
    const location = headerOf(headers, 'location');
    const target = location ? identify(location, address) : null;
    const links = target ? [headLink('redirect', target)] : [];
    const discoveries = discoveriesOf(queued, links, null);
    return { ...answered, redirectTo: target?.address ?? null, links: bundleLinks(links), discoveries };
  }
  const isHtml = type === null ? beginsAsHtml(body) : htmlType.test(type) && !binaryMark.test(beginOf(body));
  const directives = [headers['x-robots-tag'] ?? []].flat().map(readRobotsHeader);
  if (status < 200 || status >= 300 || !isHtml)
    return withinLimits({ ...answered, ...rulesOf(directives, settings.token) });
  const links = headerLinks(headers, address, identify);
  const outcome = await parse({ queued, body, charset: charsetOf(type), directives, links, truncated });
  if (!outcome.ok) return { ...answered, error: 'unreadable', unreadableReason: outcome.reason };
  return { ...answered, html: true, ...outcome.parsed };
}

/** What the head of an answer says of a page. */
const answerFacts = ({ status, headers, bytes, responseMs }: Answer) => ({
  status,
  bytes,
  responseMs,
  contentType: headerOf(headers, 'content-type')?.split(';')[0].trim().toLowerCase().slice(0, 255) || null,
  headers: headerLines(headers),
});

const charsetOf = (type: string | null) => /charset\s*=\s*["']?([^\s"';]+)/i.exec(type ?? '')?.[1];

/** Methods that a server refuses although it would answer a GET. */
const refusesHead = new Set([403, 404, 405, 406, 500, 501, 503]);

/** Checks whether an address answers, without reading what: HEAD, then GET where HEAD says nothing. */
export async function checkAddress(
  queued: QueuedUrl,
  robotsRule: RobotsRule | null,
  fetch: Fetch,
): Promise<PageResult> {
  const wanted = () => false;
  let fetched = await fetch(queued.address, { method: 'HEAD', wanted });
  if (!fetched.ok || refusesHead.has(fetched.answer.status)) {
    const again = await fetch(queued.address, { wanted });
    fetched = { ...again, tries: fetched.tries + again.tries };
  }
  const base = { ...withoutLinks, queued, robotsRule, fetchedAt: new Date(), tries: fetched.tries };
  return fetched.ok ? { ...base, ...answerFacts(fetched.answer) } : { ...base, error: fetched.error };
}
