import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { addressParts } from '../url';
import { addressAt } from '../snapshot';
import { tinySite } from '../testing/tinySite';
import { evaluate, pagesOf, parseSelection } from '.';

const snapshot = tinySite(
  {
    '/': { links: ['/shop/', '/visit'] },
    '/shop/': { links: ['/shop/mugs', '/gone'], title: 'Shop' },
    '/shop/mugs': { noindex: true, title: 'The "Bell" mug' },
    '/visit': { canonical: '/', title: null },
    '/gone': { status: 404, html: false, title: null },
    '/stories/night': { title: 'Night buses' },
  },
  ['/stories/night'],
);

function select(text: string): string[] {
  const parsed = parseSelection(text);
  if (!parsed.ok) throw new Error(parsed.fault.message);
  return Array.from(
    pagesOf(evaluate(snapshot, parsed.selection)),
    (page) => addressParts(addressAt(snapshot, page)).path,
  );
}
const fault = (text: string) => {
  const parsed = parseSelection(text);
  return parsed.ok ? null : parsed.fault;
};

describe('selections', () => {
  it.each([
    ['', ['/', '/gone', '/shop/', '/shop/mugs', '/stories/night', '/visit']],
    ['indexable', ['/', '/shop/', '/stories/night']],
    ['indexable and not reached', ['/stories/night']],
    ['orphan and seen in sitemap', ['/stories/night']],
    ['noindex', ['/shop/mugs']],
    ['depth = 2', ['/gone', '/shop/mugs']],
    ['depth in (0, 1)', ['/', '/shop/', '/visit']],
    ['depth > 0 and (broken or verdict = canonicalised)', ['/gone', '/visit']],
    ['verdict in (broken, noindex)', ['/gone', '/shop/mugs']],
    ['path starts "/shop"', ['/shop/', '/shop/mugs']],
    ['section = "shop"', ['/shop/', '/shop/mugs']],
    ['title has "BUSES"', ['/stories/night']],
    ['title has "\\"bell\\""', ['/shop/mugs']],
    ['url ends "/"', ['/', '/shop/']],
    ['status >= 400', ['/gone']],
    ['title is unknown', ['/gone', '/visit']],
    ['title is not unknown and depth > 1', ['/shop/mugs']],
  ])('%s', (text, expected) => expect(select(text)).toEqual(expected));

  it('compares unknown as false, both ways', () => {
    expect(select('depth > 0 or depth <= 0')).not.toContain('/stories/night');
    expect(select('not depth > 0')).toContain('/stories/night');
  });
  it('binds and before or', () =>
    expect(select('broken or indexable and depth = 0')).toEqual(select('broken or (indexable and depth = 0)')));
});

describe('faults', () => {
  it.each([
    ['depht > 3', 0, 5, /“depht” is not a fact.*“depth”/],
    ['depth > "three"', 8, 7, /number/],
    ['depth >', 7, 0, /number/],
    ['title = Shop', 8, 4, /quotes/],
    ['verdict = fine', 10, 4, /never “fine”.*indexable/],
    ['(indexable', 10, 0, /“\)”/],
    ['indexable orphan', 10, 6, /“and”/],
    ['title = "open', 8, 5, /not closed/],
    ['seen in post', 8, 4, /source/],
    ['depth ~ 3', 6, 1, /no meaning/],
    ['and', 0, 3, /not a fact/],
  ])('%s', (text, at, length, message) => {
    expect(fault(text)).toMatchObject({ at, length });
    expect(fault(text)!.message).toMatch(message);
  });
  it('points into the text, whatever the text is', () =>
    fc.assert(
      fc.property(
        fc.oneof(
          fc.string(),
          fc
            .array(fc.constantFrom('depth', '>', '3', 'and', 'not', '(', ')', '"x"', 'title', 'has', 'in', ','))
            .map((words) => words.join(' ')),
        ),
        (text) => {
          const found = fault(text);
          if (found) expect(found.at + found.length).toBeLessThanOrEqual(text.length);
        },
      ),
    ));
});
