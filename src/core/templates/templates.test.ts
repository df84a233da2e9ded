import { expect, it } from 'vitest';
import { textAt, pageOf } from '../snapshot';
import { tiny, tinySite } from '../testing/tinySite';
import { blocksAbove } from './templates';

it.each([
  ['body>header.masthead>nav.sections>ul>li', ['header.masthead', 'nav.sections']],
  ['body>div>p', []],
  ['body>div.fancy>ol.wide', ['div.fancy']],
  ['body>table>tr', []],
  ['', []],
  // What numbers a page does not make a template of its own.
  ['body.page.page-17>main>article.post-812.post', ['main', 'article.post']],
  // What is further inside belongs to the content.
  ['body>main>article>section>div>aside.tip', ['main']],
])('reads of %j the blocks of a template', (above, blocks) => expect(blocksAbove(above)).toEqual(blocks));

it('calls pages alike that are built of the same blocks, in whatever order', () => {
  const [menu, trail, item] = ['body>nav.menu>ul', 'body>nav.trail', 'body>main>article.item'];
  const placed = (...places: string[]) => ({ placed: places.map((above): [string, string] => ['/', above]) });
  const site = tinySite({
    '/': placed(menu),
    '/a': placed(menu, trail, item),
    '/b': placed(item, menu, trail, menu),
    '/c': placed(menu, item),
    '/bare': {},
    '/gone': { status: 404, html: false },
  });
  const templateOf = (path: string) => textAt(site, 'template', pageOf(site, tiny(path)));
  expect(templateOf('/a')).toBe('article.item, main, nav.menu, nav.trail');
  expect(templateOf('/b')).toBe(templateOf('/a'));
  expect(templateOf('/c')).toBe('article.item, main, nav.menu');
  expect(templateOf('/bare')).toBe('plain');
  expect(templateOf('/gone')).toBeNull();
});
