import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { composeChoices, composeRules, parseRobots, robotsMatcher, withDisallowed } from '.';

const at = (...paths: string[]) => paths.map((path) => `https://a.example${path}`);
const compose = (picked: string[], others: string[]) => composeRules(at(...picked), at(...others));
const paths = (picked: string[], others: string[]) => compose(picked, others).map(({ path }) => path);

describe('a rule for picked addresses', () => {
  it('is the shortest that closes them and nothing else', () =>
    expect(paths(['/events/2026/01', '/events/2026/02'], ['/', '/events/', '/visit'])).toEqual(['/events/2026/']));
  it('finds what stands in a query', () =>
    expect(paths(['/a?sort=up', '/b?page=2&sort=down'], ['/a', '/b?page=2'])).toEqual(['/*sort=']));
  it('finds an ending', () => expect(paths(['/a/x.pdf', '/b/y.pdf'], ['/a/x', '/b/y'])).toEqual(['/*.pdf']));
  it('closes one page and not those below it', () =>
    expect(paths(['/shop'], ['/shop/tickets', '/'])).toEqual(['/shop$']));
  it('is one for each folder where no pattern fits all', () =>
    expect(paths(['/a/old/1', '/b/old-x/2'], ['/a/new', '/b/old', '/c/old/1'])).toEqual(['/a/old/', '/b/old-']));
  it('tells what else it would close when that cannot be helped', () =>
    expect(compose(['/a%2Ab'], ['/a%2Ab'])).toEqual([{ path: '/a%2Ab$', closes: 1, alsoCloses: at('/a%2Ab') }]));
  it('closes nothing when nothing is picked', () => expect(compose([], ['/'])).toEqual([]));
  it('closes all that are picked, and of the others what it says', () => {
    const path = fc.string({ unit: fc.constantFrom('/', 'a', 'b', '?', 'x='), maxLength: 6 }).map((text) => `/${text}`);
    fc.assert(
      fc.property(
        fc.uniqueArray(path, { minLength: 1, maxLength: 5 }),
        fc.uniqueArray(path, { maxLength: 8 }),
        (a, b) => {
          const others = b.filter((one) => !a.includes(one));
          const rules = compose(a, others);
          const text = ['User-agent: *', ...rules.map((rule) => `Disallow: ${rule.path}`)].join('\n');
          const matcher = robotsMatcher(parseRobots(text), 'any');
          for (const address of at(...a)) expect(matcher(address).allowed).toBe(false);
          const said = new Set(rules.flatMap(({ alsoCloses }) => alsoCloses));
          for (const address of at(...others)) expect(matcher(address).allowed).toBe(!said.has(address));
        },
      ),
    );
  });
});

describe('the ways to close picked addresses', () => {
  const months = Array.from(
    { length: 15 },
    (_, i) => `/events/${2026 + Math.floor((i + 3) / 12)}/${String(((i + 3) % 12) + 1).padStart(2, '0')}/`,
  );
  const others = ['/', '/events/', '/events/2019-review', '/events/jazz-night', '/visit/2026/'];
  it('close the whole calendar, and nothing else, when ten of its months are picked', () => {
    const [wide, own] = composeChoices(
      at(...months.slice(2, 12)),
      at(...months.slice(0, 2), ...months.slice(12), ...others),
    );
    expect(wide).toEqual({
      of: 'kind',
      addresses: 15,
      rules: [{ path: '/events/*/', closes: 15, alsoCloses: [] }],
    });
    expect(own.of).toBe('picked');
    expect(own.rules.flatMap(({ alsoCloses }) => alsoCloses)).toEqual([]);
  });
  it('are one when all that differ in numbers are picked', () =>
    expect(composeChoices(at(...months), at(...others))).toEqual([
      { of: 'picked', addresses: 15, rules: [{ path: '/events/*/', closes: 15, alsoCloses: [] }] },
    ]));
  it('close a folder with all that is in it, or by itself', () => {
    const inside = ['/shop/mugs', '/shop/mugs?colour=red', '/shop/caps/blue'];
    const choices = composeChoices(at('/shop/'), at('/', '/shop', '/shopping', '/visit/', ...inside));
    expect(choices.map(({ of, rules }) => [of, rules.map(({ path }) => path)])).toEqual([
      ['picked', ['/shop/$']],
      ['folders', ['/shop/']],
    ]);
  });
  it('are one when what is picked has nothing in common', () =>
    expect(composeChoices(at('/shop/1', '/visit/2'), at('/shop/2', '/visit/1')).map(({ of }) => of)).toEqual([
      'picked',
    ]));
});

describe('rules added to a file', () => {
  const file = 'User-agent: *\nDisallow: /a\n\nUser-agent: one\nUser-agent: two\nDisallow: /b\n';
  it.each([
    ['any', 'User-agent: *\nDisallow: /new\nDisallow: /a'],
    ['Two', 'User-agent: one\nUser-agent: two\nDisallow: /new\nDisallow: /b'],
  ])('stand in the group that holds for %s', (token, expected) =>
    expect(withDisallowed(file, token, ['/new'])).toContain(expected),
  );
  it.each(['', 'Sitemap: https://a.example/s.xml\n', file])('close the paths for the crawler', (text) => {
    for (const token of ['any', 'two']) {
      const matcher = robotsMatcher(parseRobots(withDisallowed(text, token, ['/x', '/y$'])), token);
      expect(['/x', '/y', '/z'].map((path) => matcher(`https://a.example${path}`).allowed)).toEqual([
        false,
        false,
        true,
      ]);
    }
  });
});
