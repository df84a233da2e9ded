/** Small sites for tests, written as the HTML of their pages. */
import { readBlocks, readHtml } from '../html';
import { pageOf } from '../snapshot';
import { openTextIndex, textIndexBuilder } from '../textIndex';
import type { TextIndex } from '../textIndex';
import { viewOf } from '../view';
import type { View } from '../view';
import { wordFilter } from '../words';
import { tiny, tinySite } from './tinySite';
import type { TinyPage } from './tinySite';

export interface HtmlSite {
  view: View;
  index: TextIndex;
  /** By page what was read of its source. */
  blocks: Map<number, ReturnType<typeof readBlocks>>;
}

function tinyPage(path: string, html: string): TinyPage {
  const read = readHtml(new TextEncoder().encode(html), tiny(path));
  const clicks = read.links.filter(({ kind }) => kind === 'click');
  return {
    title: read.title,
    h1: read.h1.join(' / ') || null,
    language: read.language,
    noindex: read.directives.some(({ content }) => content.includes('noindex')),
    wordFilter: wordFilter(html),
    worded: clicks.flatMap(({ target, anchor, placement, fragment }) =>
      fragment ? [] : [[target, anchor, placement] as [string, string, typeof placement]],
    ),
    fragments: clicks.flatMap(({ target, anchor, fragment }) =>
      fragment ? [[target, anchor, fragment] as [string, string, string]] : [],
    ),
  };
}

/** A site of pages by their paths, with the index of their texts. */
export function htmlSite(pages: Record<string, string>): HtmlSite {
  const site = tinySite(Object.fromEntries(Object.entries(pages).map(([path, html]) => [path, tinyPage(path, html)])));
  const builder = textIndexBuilder();
  const blocks: HtmlSite['blocks'] = new Map();
  for (const [path, html] of Object.entries(pages)) {
    const page = pageOf(site, tiny(path));
    const bytes = new TextEncoder().encode(html);
    const read = readBlocks(bytes, 'utf-8');
    blocks.set(page, read);
    builder.add({ page, language: readHtml(bytes, tiny(path)).language, blocks: read.blocks });
  }
  const index = openTextIndex(builder.finish());
  return { view: viewOf(site, [], null, { index, read: async () => {} }), index, blocks };
}
