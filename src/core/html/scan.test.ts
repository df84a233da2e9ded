import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { scanMarkup } from './scan';

/** What a scan calls, as one line: `<name a=1>` opens, `</name>` closes, the rest is text. */
function scan(markup: string, attributes: readonly string[] = ['a', 'b', 'c']): string {
  let out = '';
  scanMarkup(markup, {
    onOpen: ({ name, get }) => {
      const given = attributes.flatMap((one) => (get(one) === undefined ? [] : [` ${one}=${get(one)}`]));
      out += `<${name}${given.join('')}>`;
    },
    onText: (raw) => (out += raw),
    onClose: (name) => (out += `</${name}>`),
  });
  return out;
}

describe('tags', () => {
  it.each([
    ['<P A=1 b="2 3" c=\'>\'>x</P >', '<p a=1 b=2 3 c=>>x</p>'],
    ['<p a>x', '<p a=>x</p>'],
    ['<p a = 1 b= "2"c=3>', '<p a=1 b=2 c=3></p>'],
    ['<p a=1 A=2>', '<p a=1></p>'],
    ['<p a=x/y/>z', '<p a=x/y/>z</p>'],
    ['<p/a/b>', '<p a= b=></p>'],
    ['a < b <3 </ x>c', 'a < b <3 c'],
    ['x<p a="1', 'x'],
    ['x<', 'x<'],
    ['x</p', 'x'],
    ['<p a=1 </p>x', '<p a=1>x</p>'],
    ['</p>x<br/>y</br>', '<p></p>x<br></br>y<br></br>'],
    ['x</b>y', 'xy'],
  ])('%s', (markup, expected) => expect(scan(markup)).toBe(expected));
});

describe('what is no tag', () => {
  it.each([
    ['a<!-- <p> -- > -->b', 'ab'],
    ['a<!-->b<!--->c', 'abc'],
    ['a<!-- x --!>b', 'ab'],
    ['a<!-- never closed <p>', 'a'],
    ['<!DOCTYPE html>a<?xml version="1.0"?>b</>c', 'abc'],
    ['a<![CDATA[b]]>c', 'ac'],
    ['<svg><![CDATA[a<b]]></svg>', '<svg>a<b</svg>'],
    ['<title>a <p> </titles> </Title >b', '<title>a <p> </titles> </title>b'],
    ['<script>"</p>"<!-- </script>b', '<script>"</p>"<!-- </script>b'],
    ['<style>a</style', '<style>a</style</style>'],
    ['<svg><title>a<p/>b</title></svg>', '<svg><title>a<p>b</p></title></svg>'],
    ['<textarea><a>', '<textarea><a></textarea>'],
  ])('%s', (markup, expected) => expect(scan(markup)).toBe(expected));
});

describe('ends that are implied', () => {
  it.each([
    ['<ul><li>a<li>b<ul><li>c</ul><li>d</ul>', '<ul><li>a</li><li>b<ul><li>c</li></ul></li><li>d</li></ul>'],
    ['<p>a<p>b<div>c</div>', '<p>a</p><p>b</p><div>c</div>'],
    ['<p><span>a<h2>b</h2>', '<p><span>a</span></p><h2>b</h2>'],
    ['<p><button><p>a</button>', '<p><button><p>a</p></button></p>'],
    ['<dl><dt>a<dd>b<dt>c</dl>', '<dl><dt>a</dt><dd>b</dd><dt>c</dt></dl>'],
    [
      '<table><tr><td>a<td><table><tr><td>b</table><tr><td>c</table>',
      '<table><tr><td>a</td><td><table><tr><td>b</td></tr></table></td></tr><tr><td>c</td></tr></table>',
    ],
    ['<select><option>a<option>b</select>', '<select><option>a</option><option>b</option></select>'],
    ['<head><link><body>x', '<head><link></link></head><body>x</body>'],
    ['<svg><p/><circle/>x</svg>', '<svg><p></p><circle></circle>x</svg>'],
    [
      '<svg><foreignObject><p>a<p>b</foreignObject></svg>',
      '<svg><foreignobject><p>a</p><p>b</p></foreignobject></svg>',
    ],
  ])('%s', (markup, expected) => expect(scan(markup)).toBe(expected));
});

it('closes all it opens, in order, whatever it is given', () =>
  fc.assert(
    fc.property(
      fc.array(
        fc.constantFrom(
          '<p>',
          '</p>',
          '<li>',
          '</ul>',
          '<ul>',
          '<svg>',
          '</svg>',
          '<br/>',
          '<td a="',
          '">',
          'x',
          '<!--',
          '-->',
          '<title>',
          '</title>',
          '<',
          '<table>',
          '<a/>',
        ),
        { maxLength: 40 },
      ),
      (pieces) => {
        const open: string[] = [];
        let texts = '';
        scanMarkup(pieces.join(''), {
          onOpen: ({ name }) => open.push(name),
          onText: (raw) => (texts += raw),
          onClose: (name) => expect(open.pop()).toBe(name),
        });
        expect(open).toEqual([]);
        expect(texts.length).toBeLessThanOrEqual(pieces.join('').length);
      },
    ),
  ));

it('gives the place of every tag', () => {
  const places: number[] = [];
  scanMarkup('a<p>b<!-- <i> --><b>', {
    onOpen: ({ position }) => places.push(position),
    onText: () => {},
    onClose: () => {},
  });
  expect(places).toEqual([1, 17]);
});
