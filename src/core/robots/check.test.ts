import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { sentence } from '../messages';
import { checkRobots, decodeRobots, MAX_ROBOTS_BYTES, parseRobots, robotsMatcher } from '.';
import type { RobotsFaultId } from '.';

const bytesOf = (text: string) => new TextEncoder().encode(text);
const faults = (file: string | Uint8Array) =>
  checkRobots(decodeRobots(typeof file === 'string' ? bytesOf(file) : file)).map(({ line, id }) => [line, id]);
const forAll = (...rules: string[]) => ['User-agent: *', ...rules].join('\n');

describe('a robots.txt', () => {
  it('without faults has none', () =>
    expect(faults(forAll('Disallow: /search', 'Allow: /search/help', 'Sitemap: https://a.example/s.xml'))).toEqual([]));
  const cases: [RobotsFaultId, string | Uint8Array, number][] = [
    ['closes_everything', forAll('Disallow: /'), 2],
    ['closes_everything', forAll('Disallow: /*'), 2],
    ['rule_before_group', 'Disallow: /x\nUser-agent: *\nDisallow: /y', 1],
    ['unknown_line', forAll('Noindex: /x', 'Disallow: /y'), 2],
    ['unknown_line', `Welcome!\n${forAll('Disallow: /y')}`, 1],
    ['empty_group', 'User-agent: *\nDisallow: /x\n\nUser-agent: searchbot', 4],
    ['bad_sitemap', `Sitemap: /sitemap.xml\n${forAll('Disallow: /x')}`, 1],
    ['closes_resources', forAll('Disallow: /assets/'), 2],
    ['closes_resources', forAll('Disallow: /*.css$'), 2],
    ['closes_resources', forAll('Disallow: *.css$'), 2],
    ['is_html', '<!doctype html><title>Not here</title>', 1],
    ['too_large', `${forAll('Disallow: /x')}\n${'# filler\n'.repeat(70_000)}`, 58_254],
    ['not_utf8', Buffer.from(forAll('Disallow: /caf\u00e9'), 'latin1'), 2],
    ['duplicate_group', `${forAll('Disallow: /x')}\n\n${forAll('Disallow: /y')}`, 4],
    ['useless_rule', forAll('Disallow: /a', 'Disallow: /a/b'), 3],
    ['useless_rule', forAll('Disallow: /a', 'Disallow: /a'), 3],
    ['useless_rule', forAll('Disallow: /a', 'Allow: /b'), 3],
    ['useless_rule', forAll('Disallow: /a', 'Allow: /a'), 2],
    ['useless_rule', forAll('Disallow:', 'Disallow: /a'), 2],
  ];
  it.each(cases)('tells %s at its line', (id, file, line) => expect(faults(file)).toContainEqual([line, id]));
  it('is told in sentences', () =>
    expect(
      checkRobots(decodeRobots(bytesOf(forAll('Disallow: /a', 'Disallow: /a/b')))).map((fault) =>
        sentence(fault.message),
      ),
    ).toEqual(['Line 2 decides the same for all that it matches.']));
  it.each([
    ['a whole site closed to one crawler', 'User-agent: scraper\nDisallow: /'],
    ['a whole site closed but for a part', forAll('Disallow: /', 'Allow: /public/')],
    ['the home page closed', forAll('Disallow: /$')],
    ['style sheets that are opened again', forAll('Disallow: /assets/', 'Allow: /assets/*.css', 'Allow: /assets/*.js')],
    ['a rule within one that an allow crosses', forAll('Disallow: /a', 'Allow: /a/b', 'Disallow: /a/b/c')],
    ['everything open', forAll('Disallow:')],
    ['nothing', ''],
  ])('with %s has no such fault', (_, file) => expect(faults(file)).toEqual([]));
  it('that ends within a character at the limit is UTF-8', () => {
    const file = `${'#'.repeat(MAX_ROBOTS_BYTES - 1)}é`;
    expect(faults(file).map(([, id]) => id)).toEqual(['too_large']);
  });
});

const pattern = fc.string({ unit: fc.constantFrom('/', 'a', 'b', '*', '$'), maxLength: 5 }).map((text) => `/${text}`);
const rule = fc.tuple(fc.constantFrom('Allow', 'Disallow'), fc.oneof(pattern, fc.constant('')));
const path = fc.string({ unit: fc.constantFrom('/', 'a', 'b'), maxLength: 7 });

it('judges every address the same without a rule that is called useless', () => {
  fc.assert(
    fc.property(fc.array(rule, { maxLength: 6 }), fc.array(path, { minLength: 20, maxLength: 20 }), (rules, paths) => {
      const lines = ['User-agent: *', ...rules.map(([directive, text]) => `${directive}: ${text}`)];
      const allows = (kept: readonly string[]) => {
        const matcher = robotsMatcher(parseRobots(kept.join('\n')), 'any');
        return paths.map((one) => matcher(`https://a.example/${one}`).allowed);
      };
      const whole = allows(lines);
      for (const [line, id] of faults(lines.join('\n')))
        if (id === 'useless_rule') expect(allows(lines.filter((_, i) => i !== Number(line) - 1))).toEqual(whole);
    }),
    { numRuns: 2000 },
  );
});
