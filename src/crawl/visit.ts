import type { Agent } from 'undici';
import { pageRules, parseLinkHeader, readHtml, readRobotsHeader } from '$core/html';
import type { Link } from '$core/links';
import { PRODUCT_TOKEN } from '$core/settings';
import { nothingFound } from '$core/snapshot';
import { identify } from '$core/url';
import { isRedirectStatus } from '$core/verdict';
import type { PageResult, Turn } from '$server/index';
import { fetchAddress, headerOf } from './fetch';
import type { Answer } from './fetch';

const htmlType = /^\s*(text\/html|application\/xhtml\+xml)\b/i;

/** Whether an answer may hold HTML: by its type or, when it names none, by how it begins. */
const mayBeHtml = ({ headers }: Pick<Answer, 'headers'>) => {
  const type = headerOf(headers, 'content-type');
  return type === null || htmlType.test(type);
};
const beginsAsHtml = (body: Uint8Array) =>
  /^\s*(<!doctype html|<html|<head|<body)/i.test(new TextDecoder('latin1').decode(body.subarray(0, 512)));

const withoutLinks = { ...nothingFound, links: [], discoveries: [] };

/** The result for an address that is not asked for, because robots.txt closes it or its host gives no answer. */
export const unaskedPage = (turn: Turn, why: Pick<PageResult, 'blockedBy' | 'error'>): PageResult => ({
  ...withoutLinks,
  ...why,
  turn,
  fetchedAt: null,
});

/** A link that stands in the head of an answer instead of its document. */
const headLink = (kind: Link['kind'], target: string, anchor = ''): Link => ({
  kind,
  element: 'http',
  target,
  anchor,
  rel: '',
  landmark: '',
  path: '',
  line: 0,
  column: 0,
});

function headerLinks(headers: Answer['headers'], address: string): Link[] {
  return parseLinkHeader(headerOf(headers, 'link') ?? '').flatMap(({ href, rel, params }) => {
    const target = identify(href, address)?.address;
    if (!target) return [];
    if (rel.includes('canonical')) return [headLink('canonical', target)];
    return rel.includes('alternate') && params.hreflang ? [headLink('hreflang', target, params.hreflang)] : [];
  });
}

/** Asks for an address and reads what it answers into page facts. Discoveries are left to the crawl. */
export async function visit(
  turn: Turn,
  blockedBy: string | null,
  agent: Agent,
  signal: AbortSignal,
): Promise<PageResult> {
  const fetched = await fetchAddress(
    turn.address,
    agent,
    signal,
    (status, headers) => status >= 200 && status < 300 && mayBeHtml({ headers }),
  );
  const base = { ...withoutLinks, turn, blockedBy, fetchedAt: new Date() };
  if (!fetched.ok) return { ...base, error: fetched.error };
  const { status, headers, body, bytes, responseMs } = fetched.answer;
  const type = headerOf(headers, 'content-type');
  const answered: PageResult = {
    ...base,
    status,
    bytes,
    responseMs,
    contentType: type?.split(';')[0].trim().toLowerCase().slice(0, 255) || null,
  };
  if (isRedirectStatus(status)) {
    const location = headerOf(headers, 'location');
    const target = (location && identify(location, turn.address)?.address) || null;
    return { ...answered, redirectTo: target, links: target ? [headLink('redirect', target)] : [] };
  }
  const html = status >= 200 && status < 300 && (type === null ? beginsAsHtml(body) : htmlType.test(type));
  const tags = [headers['x-robots-tag'] ?? []].flat().map(readRobotsHeader);
  if (!html) {
    const { robots, noindex, nofollow } = pageRules(tags, PRODUCT_TOKEN);
    return { ...answered, robots: robots || null, noindex, pageNofollow: nofollow };
  }
  const charset = /charset\s*=\s*["']?([^\s"';]+)/i.exec(type ?? '')?.[1];
  const page = readHtml(body, turn.address, PRODUCT_TOKEN, charset);
  const rules = pageRules([...page.directives, ...tags], PRODUCT_TOKEN);
  const links = [...page.links, ...headerLinks(headers, turn.address)];
  return {
    ...answered,
    html,
    redirectTo: page.refresh,
    title: page.title,
    description: page.description,
    h1: page.h1,
    language: page.language?.slice(0, 100) ?? null,
    robots: rules.robots || null,
    noindex: rules.noindex,
    pageNofollow: rules.nofollow,
    canonical: links.find(({ kind }) => kind === 'canonical')?.target ?? null,
    links,
  };
}
