import { describe, expect, it } from 'vitest';
import { mayHaveAny, stems } from '../words';
import { blockAround, readHtml } from '.';

const bytes = (html: string) => new TextEncoder().encode(html);
const beside = (html: string) =>
  readHtml(bytes(html), 'https://museum.example/').links.map(
    ({ anchor, beside }) => `${anchor} ${beside ? 'beside' : 'alone'}`,
  );

describe('a link', () => {
  it.each([
    ['<p><a href="/a">Drawing</a></p><p>Text</p>', ['Drawing alone']],
    ['<p>See the <a href="/a">drawing</a></p>', ['drawing beside']],
    ['<p><a href="/a">Drawing</a> of car 42</p>', ['Drawing beside']],
    ['<li><a href="/a">Prof. Brandt</a> <a href="/b">CV</a></li>', ['Prof. Brandt beside', 'CV beside']],
    ['<tr><td><a href="/a">Syllabus</a></td><td>Optics</td></tr>', ['Syllabus beside']],
    ['<td><b><a href="/a">Syllabus</a></b></td>', ['Syllabus alone']],
    ['<p>Text<div><a href="/a">Drawing</a></div>', ['Drawing alone']],
    ['<p>•&nbsp;<a href="/a">Drawing</a></p>', ['Drawing alone']],
  ])('in %s', (html, found) => expect(beside(html)).toEqual(found));
});

describe('the block around a link', () => {
  const html =
    '<p>Before</p>\n<p>See the <b><a href="/a">draw&shy;ing</a></b> of car 42.<script>x()</script></p><p>After</p>';
  it('is its text, up to what ends a word before and after', () =>
    expect(blockAround(bytes(html), undefined, { line: 2, column: 15 })).toBe('See the draw\u00ading of car 42.'));
  it('is none where no link begins', () =>
    expect(blockAround(bytes(html), undefined, { line: 9, column: 1 })).toBe(''));
});

it('knows which words the content of a page has, and not those around it', () => {
  const page = readHtml(bytes('<nav>Zeppelin</nav><main><p>Trams of the coast</p></main>'), 'https://museum.example/');
  expect(mayHaveAny(page.wordFilter, stems('coastal tram'))).toBe(true);
  expect(mayHaveAny(page.wordFilter, stems('zeppelin'))).toBe(false);
});
