/** RFC 9309, requirement by requirement, and against a reference that reads it slowly. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { referenceAllows } from '../testing/robotsReference';
import { checkRobots, decodeRobots, MAX_ROBOTS_BYTES, parseRobots, robotsMatcher } from '.';

const allows = (text: string, path: string, token = 'ExampleBot') =>
  robotsMatcher(parseRobots(text), token)(`https://example.com${path}`).allowed;
const closed = (rule: string, path: string) => !allows(`user-agent: *\ndisallow: ${rule}`, path);

describe('§2.2.1, the user-agent line', () => {
  it('rules of the same product token are one group', () => {
    const file = 'user-agent: ExampleBot\ndisallow: /foo\ndisallow: /bar\n\nuser-agent: ExampleBot\ndisallow: /baz';
    expect(['/foo', '/bar', '/baz', '/qux'].map((path) => allows(file, path))).toEqual([false, false, false, true]);
  });
  it('matching is without regard to case', () =>
    expect(allows('user-agent: EXAMPLEBOT\ndisallow: /', '/x', 'examplebot')).toBe(false));
  it('without a group of its own a crawler obeys that for *, and without that none', () => {
    expect(allows('user-agent: *\ndisallow: /x', '/x')).toBe(false);
    expect(allows('user-agent: OtherBot\ndisallow: /x', '/x')).toBe(true);
  });
  it('a token is found at the beginning of a longer value', () =>
    expect(allows('user-agent: ExampleBot/0.1 (like others)\ndisallow: /', '/x')).toBe(false));
});

describe('§2.2.2, allow and disallow', () => {
  it.each([
    ['/foo/bar?baz=quz', '/foo/bar?baz=quz'],
    ['/foo/bar?baz=https://foo.bar', '/foo/bar?baz=https://foo.bar'],
    ['/foo/bar/ツ', '/foo/bar/%E3%83%84'],
    ['/foo/bar/%E3%83%84', '/foo/bar/%E3%83%84'],
    ['/foo/bar/%62%61%7A', '/foo/bar/baz'],
  ])('%s matches %s', (rule, path) => expect(closed(rule, path)).toBe(true));
  it('paths are case-sensitive', () => expect(closed('/Foo', '/foo')).toBe(false));
  it('the most octets win', () =>
    expect(allows('user-agent: *\nallow: /a/\ndisallow: /a/b.gif', '/a/b.gif')).toBe(false));
  it('allow wins when both are equivalent', () =>
    expect(allows('user-agent: *\ndisallow: /x\nallow: /x', '/x')).toBe(true));
  it('without a match everything is allowed', () => expect(closed('/x', '/y')).toBe(false));
  it('/robots.txt is implicitly allowed', () => expect(closed('/', '/robots.txt')).toBe(false));
});

describe('§2.2.3, special characters', () => {
  it.each([
    ['# a comment', '/x', false],
    ['/x # a comment', '/x', true],
    ['/this/path/exactly$', '/this/path/exactly', true],
    ['/this/path/exactly$', '/this/path/exactly/not', false],
    ['/this/*/exactly', '/this/path/exactly', true],
    ['/path/file-with-a-%2A.html', '/path/file-with-a-*.html', true],
    ['/path/foo-%24', '/path/foo-$', true],
    ['/a***b', '/a/x/b', true],
    ['/a$b', '/a$b', true],
    ['/a$b', '/a', false],
  ])('disallow: %s on %s', (rule, path, expected) => expect(closed(rule, path)).toBe(expected));
});

describe('§2.2.4 and §2.3, other records and access', () => {
  it('other records end no group', () =>
    expect(allows('user-agent: *\nsitemap: https://example.com/s.xml\nuser-agent: b\ndisallow: /', '/', 'b')).toBe(
      false,
    ));
  it('at least 500 KiB are read', () => expect(MAX_ROBOTS_BYTES).toBeGreaterThanOrEqual(500 * 1024));
});

describe('§5, examples', () => {
  const simple = [
    'User-Agent: *\nDisallow: *.gif$\nDisallow: /example/\nAllow: /publications/',
    'User-Agent: foobot\nDisallow:/\nAllow:/example/page.html\nAllow:/example/allowed.gif',
    'User-Agent: barbot\nUser-Agent: bazbot\nDisallow: /example/page.html',
    'User-Agent: quxbot',
  ].join('\n\n');
  it.each([
    ['anybot', '/image.gif', false],
    ['anybot', '/example/x', false],
    ['anybot', '/publications/x', true],
    ['anybot', '/else', true],
    ['foobot', '/example/page.html', true],
    ['foobot', '/example/allowed.gif', true],
    ['foobot', '/example/other', false],
    ['barbot', '/example/page.html', false],
    ['bazbot', '/example/page.html', false],
    ['bazbot', '/example/x.gif', true],
    ['quxbot', '/example/page.html', true],
  ])('§5.1: %s and %s', (token, path, expected) => expect(allows(simple, path, token)).toBe(expected));
  it('§5.2: the longest match', () => {
    const file = 'User-Agent: foobot\nAllow: /example/page/\nDisallow: /example/page/disallowed.gif';
    expect(allows(file, '/example/page/disallowed.gif', 'foobot')).toBe(false);
    expect(allows(file, '/example/page/', 'foobot')).toBe(true);
  });
});

describe('odd files', () => {
  const bytesOf = (text: string) => new TextEncoder().encode(text);
  it.each([
    ['a byte order mark', '\ufeffuser-agent: *\ndisallow: /x'],
    ['carriage returns alone', 'user-agent: *\rdisallow: /x\r'],
    ['no line break at the end', 'user-agent: *\ndisallow: /x'],
    ['white space everywhere', '  user-agent :  *  \n\tdisallow\t:\t/x\t'],
    ['a group that comes twice', 'user-agent: *\ndisallow: /y\n\nuser-agent: *\ndisallow: /x'],
    ['NUL between the lines', 'user-agent: *\n\0\0\ndisallow: /x'],
  ])('with %s are read', (_, text) => expect(allows(decodeRobots(bytesOf(text)).text, '/x')).toBe(false));
  it('of two megabytes are read as far as crawlers read', () => {
    const large = bytesOf(`user-agent: *\ndisallow: /x\n${'# filler\n'.repeat(240_000)}disallow: /y`);
    const { text, bytes } = decodeRobots(large);
    expect([allows(text, '/x'), allows(text, '/y'), bytes > 2 << 20]).toEqual([false, true, true]);
  });
  it('that are binary, or pages of HTML, open everything, and are told', () => {
    const binary = Uint8Array.from({ length: 5000 }, (_, i) => (i * 7919) % 256);
    expect(allows(decodeRobots(binary).text, '/x')).toBe(true);
    expect(checkRobots(decodeRobots(binary)).map(({ id }) => id)).toContain('not_utf8');
    const html = decodeRobots(bytesOf('<!doctype html><p>user-agent: *'));
    expect(checkRobots(html).map(({ id }) => id)).toEqual(['is_html']);
  });
});

it('agrees with the reference on random files and addresses', () => {
  const path = fc
    .string({ unit: fc.constantFrom('/', 'a', 'b', 'A', '*', '$', '%62', '%2F', 'ü', '?'), maxLength: 7 })
    .map((text) => `/${text}`);
  const line = fc.oneof(
    fc.constantFrom('User-agent: *', 'user-agent: bot', 'User-agent: other', '', '# remark', 'Crawl-delay: 1'),
    fc
      .tuple(fc.constantFrom('Allow: ', 'disallow:', 'Disallow: '), fc.oneof(path, fc.constant('')))
      .map((parts) => parts.join('')),
  );
  const asked = fc
    .string({ unit: fc.constantFrom('/', 'a', 'b', 'A', '%2F', '%C3%BC', '?', 'c'), maxLength: 7 })
    .map((text) => `/${text}`);
  fc.assert(
    fc.property(fc.array(line, { maxLength: 9 }), asked, (lines, address) => {
      const text = lines.join('\n');
      expect(allows(text, address, 'bot')).toBe(referenceAllows(text, 'bot', address));
    }),
    { numRuns: 20_000 },
  );
});
