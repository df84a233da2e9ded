import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { addressParts } from '../url';
import { addressAt, factAt } from '../snapshot';
import { tinySite } from '../testing/tinySite';
import { evaluate, pagesOf, parseSelection } from '.';
import type { Selection } from '.';

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

/** Reads one page at a time, without columns or masks. */
function holds(page: number, text: Selection): boolean {
  switch (text.op) {
    case 'all':
      return true;
    case 'and':
      return holds(page, text.left) && holds(page, text.right);
    case 'or':
      return holds(page, text.left) || holds(page, text.right);
    case 'not':
      return !holds(page, text.of);
    case 'unknown':
      return factAt(snapshot, text.fact, page) === null;
    case 'seen':
      return (factAt(snapshot, 'seen_in', page) as string[]).includes(text.source);
    case 'flag':
      return factAt(snapshot, text.fact, page) === true;
    case 'in':
      return text.values.some((value) => factAt(snapshot, text.fact, page) === value);
    case 'compare': {
      const value = factAt(snapshot, text.fact, page) as string | number | null;
      if (value === null) return false;
      if (text.comparison === '=') return value === text.value;
      if (text.comparison === '!=') return value !== text.value;
      return text.comparison === '<' ? value < text.value : value >= text.value;
    }
  }
}

it('means for columns what it means for each page', () => {
  const number = fc.constantFrom('depth', 'status', 'links_out', 'pages_linking');
  const test = fc.oneof(
    fc.tuple(number, fc.constantFrom('=', '!=', '<', '>='), fc.nat(3)).map((words) => words.join(' ')),
    fc.tuple(number, fc.nat(2), fc.nat(500)).map(([fact, a, b]) => `${fact} in (${a}, ${b})`),
    number.map((fact) => `${fact} is unknown`),
    fc.constantFrom('indexable', 'noindex', 'orphan', 'reached', 'seen in links', 'seen in sitemap', 'title = "Shop"', 'title is unknown', 'verdict != broken'), // prettier-ignore
  );
  const { text } = fc.letrec<{ text: string }>((tie) => ({
    text: fc.oneof(
      { depthSize: 'small' },
      test,
      tie('text').map((inner) => `not (${inner})`),
      fc.tuple(tie('text'), fc.constantFrom('and', 'or'), tie('text')).map(([a, op, b]) => `(${a}) ${op} (${b})`),
    ),
  }));
  fc.assert(
    fc.property(text, (written) => {
      const parsed = parseSelection(written);
      if (!parsed.ok) throw new Error(`${written}: ${parsed.fault.message}`);
      const mask = evaluate(snapshot, parsed.selection);
      mask.forEach((bit, page) => expect([written, bit === 1]).toEqual([written, holds(page, parsed.selection)]));
    }),
  );
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
