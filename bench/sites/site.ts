/** What the generated sites are made with: answers by address, and sentences that differ from page to page. */
import { chance } from '../../src/core/numbers';

/** What a server answers. */
export interface Answer {
  status: number;
  headers: Record<string, string>;
  body: string;
}

/** A website: answers by host and path with query, as `www.host.example/path?query`. */
export interface GeneratedSite {
  name: string;
  start: string;
  hosts: string[];
  answers: Map<string, Answer>;
}

export const html = (body: string, headers: Record<string, string> = {}): Answer => ({
  status: 200,
  headers: { 'content-type': 'text/html; charset=utf-8', ...headers },
  body,
});
export const plain = (body: string, type = 'text/plain'): Answer => ({
  status: 200,
  headers: { 'content-type': type },
  body,
});
export const moved = (to: string, status = 301): Answer => ({ status, headers: { location: to }, body: '' });
export const gone = (status = 404): Answer => ({
  status,
  headers: { 'content-type': 'text/html; charset=utf-8' },
  body: '<!doctype html><html lang="en"><title>Not here</title><h1>Not here</h1><p>There is no page at this address.</p>',
});

export const slug = (name: string) =>
  name
    .toLowerCase()
    .normalize('NFD')
    .replace(/\p{M}/gu, '')
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-|-$/g, '');

export const escape = (text: string) =>
  text.replace(/[&<>"]/g, (sign) => ({ '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' })[sign]!);
export const a = (href: string, words: string, attributes = '') =>
  `<a href="${escape(href)}"${attributes && ` ${attributes}`}>${escape(words)}</a>`;
export const list = (items: readonly string[]) => `<ul>${items.map((item) => `<li>${item}</li>`).join('\n')}</ul>`;

export const pick = <T>(next: (below: number) => number, from: readonly T[]): T => from[next(from.length)];

/** Makes paragraphs by filling the gaps `{name}` of sentences. */
export function writer(seed: number, sentences: readonly string[], words: Readonly<Record<string, readonly string[]>>) {
  const next = chance(seed);
  const sentence = (own: Record<string, string>) =>
    pick(next, sentences).replace(/\{(\w+)\}/g, (_, gap: string) => own[gap] ?? pick(next, words[gap] ?? ['it']));
  /** @param own what some gaps are filled with */
  return (count: number, own: Record<string, string> = {}): string => {
    const all = new Set<string>();
    for (let tries = 0; all.size < count && tries < 8 * count; tries++) all.add(sentence(own));
    return `<p>${[...all].join(' ')}</p>`;
  };
}

export const sitemap = (addresses: readonly string[]): Answer =>
  plain(
    `<?xml version="1.0" encoding="UTF-8"?>\n<urlset xmlns="http://www.sitemaps.org/schemas/sitemap/0.9">\n${addresses
      .map((address) => `<url><loc>${escape(address)}</loc></url>`)
      .join('\n')}\n</urlset>\n`,
    'application/xml',
  );
