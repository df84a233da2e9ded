/** Which pages are built alike (docs/MEANINGS.md, "Templates"). */
import { limitOf } from '../facts';
import { CLICK_KIND } from '../links';
import { textColumn } from '../snapshot';
import type { Base, ColumnReader, TextColumn } from '../snapshot';

/** Elements that divide a page, also where they have no class. */
const dividing = new Set(['header', 'nav', 'main', 'aside', 'footer']);
/** Elements that do so where they have one; lists and paragraphs with a class are content. */
const named = new Set([...dividing, 'article', 'section', 'div', 'form', 'table']);
/** Blocks further inside belong to the content, not to the template. */
const MAX_STEPS = 4;
/** What a page without any such block is called. */
const PLAIN = 'plain';

/**
 * The blocks of a template that a place in a page lies in, outermost first: elements that divide a page, some of them
 * only where they have a class. Classes with a digit are left out, as they tend to number the page; so are those of
 * `body`.
 * @param above elements above a link, as `body>div.wrap>nav`
 */
export function blocksAbove(above: string): string[] {
  const blocks = [];
  for (const step of above.split('>').slice(0, MAX_STEPS)) {
    const [element, ...classes] = step.split('.');
    if (element === 'body') continue;
    const telling = classes.filter((name) => !/\d/.test(name));
    if (dividing.has(element) || (named.has(element) && telling.length)) blocks.push([element, ...telling].join('.'));
  }
  return blocks;
}

/**
 * The template of every page that was read: the names of the blocks that its links stand in, in alphabetical order.
 * Pages with the same blocks are built alike.
 */
export function templateColumn({
  count,
  links: { offsets, kind, above },
  phrases,
  column,
}: Pick<Base, 'count' | 'links' | 'phrases'> & { column: ColumnReader<'html'> }): TextColumn {
  const html = column('html');
  /** The blocks of each place, as numbers; found out when a page first has a link there. */
  const blocks: number[][] = [];
  const names: string[] = [];
  const numbers = new Map<string, number>();
  const numberOf = (name: string) => {
    let number = numbers.get(name);
    if (number === undefined) numbers.set(name, (number = names.push(name) - 1));
    return number;
  };
  const blocksOf = (page: number) => {
    const met = new Set<number>();
    let before = -1;
    for (let link = offsets[page]; link < offsets[page + 1]; link++) {
      if (kind[link] !== CLICK_KIND || above[link] === before) continue;
      before = above[link];
      blocks[before] ??= blocksAbove(phrases[before]).map(numberOf);
      for (const block of blocks[before]) met.add(block);
    }
    return [...met].sort((a, b) => a - b);
  };
  const templates = new Map<string, string>();
  const templateOf = (page: number) => {
    const met = blocksOf(page);
    const key = met.join();
    let name = templates.get(key);
    if (name === undefined) {
      const sorted = met.map((block) => names[block]).sort();
      templates.set(key, (name = sorted.join(', ').slice(0, limitOf('template')) || PLAIN));
    }
    return name;
  };
  return textColumn(Array.from({ length: count }, (_, page) => (html[page] === 1 ? templateOf(page) : null)));
}
