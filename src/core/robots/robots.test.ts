import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { identify } from '../url';
import { crawlDelayFor, parseRobots, pathTest, robotsMatcher } from '.';

const allows = (text: string, path: string, token = 'edgemap') =>
  robotsMatcher(parseRobots(text), token)(identify(`https://museum.example${path}`)!.address).allowed;

describe('groups (RFC 9309 §2.2.1)', () => {
  const file =
    'User-agent: *\nDisallow: /\n\nUser-agent: EdgeMap/2.0\nUser-agent: other\nDisallow: /a\n\nuser-agent:edgemap\nDisallow: /b';
  it('merges all groups of a product token, whatever its case and version', () => {
    expect(allows(file, '/a')).toBe(false);
    expect(allows(file, '/b')).toBe(false);
    expect(allows(file, '/c')).toBe(true);
  });
  it('takes the group for everyone when none is named', () => expect(allows(file, '/c', 'third')).toBe(false));
  it('lines that name agents one after the other, blank lines or not, begin one group', () =>
    expect(allows('User-agent: edgemap\n\nUser-agent: *\nDisallow: /', '/x', 'edgemap')).toBe(false));
  it('a named group without rules opens everything', () =>
    expect(allows('User-agent: *\nDisallow: /\nUser-agent: edgemap\n', '/x', 'edgemap')).toBe(true));
  it('an empty Disallow closes nothing', () => expect(allows('User-agent: *\nDisallow:', '/x')).toBe(true));
  it('passes over rules before any group, and lines it does not know', () => {
    expect(allows('Disallow: /\nUser-agent: *\nDisallow: /a', '/x')).toBe(true);
    expect(allows('User-agent: edgemap\nCrawl-delay: 5\nSitemap: /s.xml\nDisallow: /a', '/a')).toBe(false);
  });
  it('reads a byte order mark, comments and any line ending', () =>
    expect(allows('\uFEFFUser-agent: * # all\rDisallow: /a # here\r\nAllow: /a/b\n', '/a/c')).toBe(false));
});

describe('matching (RFC 9309 §2.2.2)', () => {
  const rules = (...lines: string[]) => ['User-agent: *', ...lines].join('\n');
  it('the longest pattern wins, and allow wins a tie', () => {
    expect(
      allows(rules('Allow: /example/page/', 'Disallow: /example/page/disallowed.gif'), '/example/page/disallowed.gif'),
    ).toBe(false);
    expect(allows(rules('Disallow: /p', 'Allow: /p'), '/p')).toBe(true);
    expect(allows(rules('Disallow: /*.ph', 'Allow: /page'), '/page.php4')).toBe(true);
  });
  it.each([
    ['/fish', '/fish.html', true],
    ['/fish', '/Fish', false],
    ['/fish*', '/fishheads', true],
    ['/fish/', '/fish', false],
    ['/*.php', '/folder/any.php?x', true],
    ['/*.php$', '/any.php?x', false],
    ['/*.php$', '/any.php', true],
    ['/a*b*c$', '/axxbyyc', true],
    ['/a*b*c$', '/axxbyycx', false],
    ['/$', '/', true],
    ['/$', '/x', false],
    ['*', '/anything', true],
  ])('%s against %s: %s', (pattern, path, expected) =>
    expect(allows(rules(`Disallow: ${pattern}`), path)).toBe(!expected),
  );
  it.each([
    ['/caf%c3%a9', '/caf%C3%A9'],
    ['/café', '/caf%C3%A9'],
    ['/%62ar', '/bar'],
    ['/a%2Fb', '/a%2fb'],
    ['/price%24', '/price$'],
    ['/star%2A', '/star*'],
  ])('compares in one form: %s closes %s', (pattern, path) =>
    expect(allows(rules(`Disallow: ${pattern}`), path)).toBe(false),
  );
  it('keeps an escaped slash apart from a slash', () => expect(allows(rules('Disallow: /a/b'), '/a%2Fb')).toBe(true));
  it('never closes robots.txt itself', () => expect(allows(rules('Disallow: /'), '/robots.txt')).toBe(true));
  it('names the rule and its line', () => {
    const { rule } = robotsMatcher(
      parseRobots('# hello\nUser-agent: *\nDisallow: /shop'),
      'edgemap',
    )('https://museum.example/shop/1');
    expect(rule).toEqual({ line: 3, directive: 'disallow', path: '/shop', group: '*' });
  });
  it('agrees with a regular expression', () =>
    fc.assert(
      fc.property(
        fc.string({ unit: fc.constantFrom('a', 'b', '/', '*'), maxLength: 8 }),
        fc.boolean(),
        fc.string({ unit: fc.constantFrom('a', 'b', '/'), maxLength: 12 }),
        (body, anchored, path) => {
          const reference = new RegExp(`^${body.replaceAll('*', '.*')}${anchored ? '$' : ''}`);
          expect(pathTest(body + (anchored ? '$' : ''))(path)).toBe(reference.test(path));
        },
      ),
    ));
});

it('lists sitemap lines wherever they stand', () =>
  expect(
    parseRobots('Sitemap: https://museum.example/a.xml\nUser-agent: *\nDisallow: /x\nSITEMAP: /b.xml').sitemaps,
  ).toEqual([
    { address: 'https://museum.example/a.xml', line: 1 },
    { address: '/b.xml', line: 4 },
  ]));

it('reads Crawl-delay for the groups that hold, and takes the longest', () => {
  const file = parseRobots(
    'User-agent: a\nCrawl-delay: 2\nDisallow: /x\n\nUser-agent: a\nCrawl-delay: 0.5\n\nUser-agent: *\nCrawl-delay: soon',
  );
  expect(crawlDelayFor(file, 'A')).toBe(2);
  expect(crawlDelayFor(file, 'b')).toBeNull();
});

it('gives a delay to the agents that stand before it, and an endless one to nobody', () => {
  const file = parseRobots(
    'User-agent: a\nCrawl-delay: 2\nUser-agent: b\nCrawl-delay: 1\nUser-agent: c\nDisallow: /\nUser-agent: d\nCrawl-delay: 1e999',
  );
  expect(['a', 'b', 'c', 'd'].map((agent) => crawlDelayFor(file, agent))).toEqual([2, 1, null, null]);
});

describe('a file of half a megabyte', () => {
  const lines = (n: number, line: (i: number) => string) => Array.from({ length: n }, (_, i) => line(i)).join('\n');
  it('with agents and delays without number is read in the memory that it takes itself', () => {
    const file = parseRobots(`${lines(20_000, (i) => `User-agent: a${i}`)}\n${lines(18_000, () => 'Crawl-delay: 3')}`);
    expect(file.delays.size).toBe(1);
    expect(crawlDelayFor(file, 'a')).toBe(3);
  });
  /** By the definition: of all rules that match, the longest, and of those one that allows. */
  function expectTheRuleThatASearchFinds(text: string, paths: readonly string[]) {
    const file = parseRobots(`User-agent: *\n${text}`);
    const matcher = robotsMatcher(file, 'edgemap');
    for (const path of paths) {
      const found = file.groups[0].rules
        .filter((rule) => pathTest(rule.path)(path))
        .sort((a, b) => b.path.length - a.path.length || a.directive.localeCompare(b.directive));
      expect(matcher(`https://museum.example${path}`).rule?.path).toBe(found[0]?.path);
    }
  }
  it('with forty thousand rules gives each address the rule that a search through all of them gives', () =>
    expectTheRuleThatASearchFinds(
      lines(40_000, (i) => `${i % 3 ? 'Disallow' : 'Allow'}: /${i % 7 ? '' : '*'}${(i * 7919) % 10_007}`),
      ['/1', '/12', '/9999/3', '/x', '/x5001', '/70'],
    ));
  it('gives the same where rules with many stars meet an address that is long', () => {
    const long = (n: number) => `/${Array.from({ length: 1000 }, (_, i) => `a${(i * 7 + n) % 2450}`).join('')}`;
    expectTheRuleThatASearchFinds(
      lines(2450, (i) => `Disallow: /*a${i}*b${i % 3 ? i : ''}`),
      [long(1), long(2), `${long(3)}b9`, `${long(4)}b`, '/x'],
    );
  });
});
