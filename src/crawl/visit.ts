import { parseLinkHeader, readRobotsHeader, relationOf } from '$core/html';
import { bundleLinks } from '$core/links';
import type { Link } from '$core/links';
import type { CrawlSettings } from '$core/settings';
import { nothingFound } from '$core/snapshot';
import type { Identified } from '$core/url';
import { isRedirectStatus } from '$core/verdict';
import type { PageResult, Turn } from '$server/index';
import type { Ask } from './ask';
import type { DiscoveriesOf } from './discoveries';
import { headerOf } from './fetch';
import type { Answer } from './fetch';
import type { Readers } from './readers';
import { rulesOf } from './reading';

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

const withoutLinks = { ...nothingFound, links: bundleLinks([]), discoveries: [], source: null, headers: null };

/** The result for an address that is not asked for, because robots.txt closes it or its host gives no answer. */
export const unaskedPage = (turn: Turn, why: Pick<PageResult, 'blockedBy' | 'error'>): PageResult => ({
  ...withoutLinks,
  ...why,
  turn,
});

/** A link that stands in the head of an answer instead of its document. */
const headLink = (kind: Link['kind'], { address, fragment }: Identified, anchor = ''): Link => ({
  kind,
  element: 'http',
  target: address,
  anchor,
  rel: '',
  landmark: '',
  path: '',
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

export interface Visiting {
  ask: Ask;
  settings: Pick<CrawlSettings, 'token'>;
  identify: Identify;
  read: Readers['read'];
  discoveriesOf: DiscoveriesOf;
}

/** Asks for an address and has what it answers read into page facts. */
export async function visit(turn: Turn, blockedBy: string | null, visiting: Visiting): Promise<PageResult> {
  const { ask, settings, identify, read, discoveriesOf } = visiting;
  const wanted = (status: number, headers: Answer['headers']) => status >= 200 && status < 300 && mayBeHtml(headers);
  const fetched = await ask(turn.address, { wanted });
  const base = { ...withoutLinks, turn, blockedBy, fetchedAt: new Date(), tries: fetched.tries };
  if (!fetched.ok) return { ...base, error: fetched.error };
  const { status, headers, body, bytes, responseMs, truncated } = fetched.answer;
  const type = headerOf(headers, 'content-type') || null;
  const contentType = type?.split(';')[0].trim().toLowerCase().slice(0, 255) || null;
  const answered = { ...base, status, bytes, responseMs, contentType, headers: headerLines(headers), truncated };
  if (isRedirectStatus(status)) {
    const location = headerOf(headers, 'location');
    const target = location ? identify(location, turn.address) : null;
    const links = target ? [headLink('redirect', target)] : [];
    const discoveries = discoveriesOf(turn, links, null);
    return { ...answered, redirectTo: target?.address ?? null, links: bundleLinks(links), discoveries };
  }
  const html =
    status >= 200 &&
    status < 300 &&
    (type === null ? beginsAsHtml(body) : htmlType.test(type) && !binaryMark.test(beginOf(body)));
  const directives = [headers['x-robots-tag'] ?? []].flat().map(readRobotsHeader);
  if (!html) return { ...answered, html, ...rulesOf(directives, settings.token) };
  const links = headerLinks(headers, turn.address, identify);
  return { ...answered, html, ...(await read({ turn, body, charset: charsetOf(type), directives, links })) };
}

const charsetOf = (type: string | null) => /charset\s*=\s*["']?([^\s"';]+)/i.exec(type ?? '')?.[1];

/** Methods that a server refuses although it would answer a GET. */
const refusesHead = new Set([403, 404, 405, 406, 500, 501, 503]);

/** Asks whether an address answers, without reading what: HEAD, then GET where HEAD says nothing. */
export async function check(turn: Turn, blockedBy: string | null, ask: Ask): Promise<PageResult> {
  const wanted = () => false;
  let fetched = await ask(turn.address, { method: 'HEAD', wanted });
  if (!fetched.ok || refusesHead.has(fetched.answer.status)) {
    const again = await ask(turn.address, { wanted });
    fetched = { ...again, tries: fetched.tries + again.tries };
  }
  const base = { ...withoutLinks, turn, blockedBy, fetchedAt: new Date(), tries: fetched.tries };
  if (!fetched.ok) return { ...base, error: fetched.error };
  const { status, headers, bytes, responseMs } = fetched.answer;
  const contentType = headerOf(headers, 'content-type')?.split(';')[0].trim().toLowerCase().slice(0, 255) || null;
  return { ...base, status, bytes, responseMs, contentType, headers: headerLines(headers) };
}
