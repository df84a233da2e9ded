import { expect, it } from 'vitest';
import { addressesIn } from '.';

const base = 'https://www.larkfield.example/';

it.each<[string, string, string[]]>([
  ['a list', 'https://www.larkfield.example/a\r\nhttps://www.larkfield.example/b', ['/a', '/b']],
  ['a mail', 'See https://www.larkfield.example/a. And (https://www.larkfield.example/b?x=1)!', ['/a', '/b?x=1']],
  ['paths', '/visit/\n  /shop, 12\n"/learn/";7\nvisit/us', ['/visit/', '/shop', '/learn/']],
  ['a table', 'url,clicks\n"https://www.larkfield.example/a",12', ['/a']],
  ['a page twice', '/a\n/a#top', ['/a']],
  ['no address', 'hello world', []],
])('addresses are picked out of %s', (_, text, paths) => {
  expect(addressesIn(text, base)).toEqual(paths.map((path) => new URL(path, base).href));
});
