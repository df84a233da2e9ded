import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { explainRobots, parseRobots, robotsMatcher } from '.';

const file = parseRobots(
  [
    ...['User-agent: *', 'Disallow: /', '', 'User-agent: SearchBot', 'Disallow: /shop', 'Allow: /shop/tickets'],
    ...['Disallow: /shop/*?', 'Allow: /shop/*?'],
  ].join('\n'),
);
const explain = (path: string, token = 'searchbot') => explainRobots(file, token, `https://a.example${path}`);

describe('why an address is open or closed', () => {
  it.each([
    ['/robots.txt', true, 'robots_file', []],
    ['/visit', true, 'no_rule', []],
    ['/shop', false, 'only', [5]],
    ['/shop/tickets', true, 'longest', [6, 5]],
    ['/shop/a?b', true, 'tie', [8, 7, 5]],
  ])('%s', (path, allowed, why, lines) => {
    const found = explain(path);
    expect([found.allowed, found.why, found.matching.map(({ rule }) => rule.line)]).toEqual([allowed, why, lines]);
    expect([found.group, found.groupLines, found.rules]).toEqual(['searchbot', [4], 4]);
  });
  it('names the group for everyone where none has the name', () =>
    expect(explain('/x', 'other')).toMatchObject({ group: '*', groupLines: [1], allowed: false }));
  it('says that no group holds', () =>
    expect(explainRobots(parseRobots(''), 'any', 'https://a.example/')).toMatchObject({
      why: 'no_group',
      group: null,
    }));
  it('agrees with the matcher', () => {
    const path = fc.string({ unit: fc.constantFrom('/', 'shop', 'tickets', '?', 'a', '$'), maxLength: 6 });
    fc.assert(
      fc.property(path, (text) => {
        const address = `https://a.example/${text}`;
        const { allowed, rule } = robotsMatcher(file, 'searchbot')(address);
        const found = explainRobots(file, 'searchbot', address);
        expect([found.allowed, found.matching[0]?.rule.line]).toEqual([allowed, rule?.line]);
      }),
    );
  });
});
