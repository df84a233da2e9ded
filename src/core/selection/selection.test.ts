import { readFileSync } from 'node:fs';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { addressParts } from '../url';
import { addressAt, factAt, joinedTexts, textColumn } from '../snapshot';
import { tinySite } from '../testing/tinySite';
import { overView } from '../view';
import {
  completeSelection,
  evaluate,
  evaluateLinks,
  hasBit,
  narrowed,
  numbersOf,
  parseLinkSelection,
  parseSelection,
  quote,
} from '.';
import type { Selection } from '.';
import type { ColumnName } from '../facts';
import { keywords } from './keywords';
import { patternMatcher } from './pattern';
import { predicate } from './predicate';

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
    numbersOf(evaluate(snapshot, parsed.selection)),
    (page) => addressParts(addressAt(snapshot, page)).path,
  );
}
const fault = (text: string) => {
  const parsed = parseSelection(text);
  return parsed.ok ? null : parsed.fault;
};

describe('writing selections', () => {
  const tests = [
    'indexable',
    'depth > 1',
    'not reached',
    'orphan or noindex',
    'title = ""',
    'path has " or "',
    'links to (broken)',
  ];
  it('narrows one by another to what both hold, however they are joined inside', () =>
    fc.assert(
      fc.property(fc.constantFrom('', ...tests), fc.constantFrom(...tests), (one, other) => {
        const both = select(other).filter((path) => select(one).includes(path));
        expect(select(narrowed(one, other))).toEqual(both);
      }),
    ));
  it('quotes any text so that it is read as it was', () =>
    fc.assert(
      fc.property(fc.string({ maxLength: 40 }), (text) => {
        const parsed = parseSelection(`title = ${quote(text)}`);
        expect(parsed).toEqual({ ok: true, selection: { op: 'compare', fact: 'title', comparison: '=', value: text } });
      }),
    ));
});

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

  it('looks for a text in all values at once as in one after the other', () => {
    const letters = fc.constantFrom('a', 'B', 'b', 'É', 'é', '/', 'İ');
    const words = fc.string({ unit: letters, maxLength: 4 });
    fc.assert(
      fc.property(fc.array(words, { minLength: 1 }), words, (titles, wanted) => {
        const pages = Object.fromEntries(titles.map((title, i) => [`/${i}`, { title }]));
        const site = tinySite({ '/': { title: null }, ...pages });
        const found = numbersOf(evaluate(site, { op: 'compare', fact: 'title', comparison: 'has', value: wanted }));
        const test = predicate('has', wanted);
        const expected = Array.from({ length: site.count }, (_, page) => page).filter((page) => {
          const title = factAt(site, 'title', page);
          return title !== null && test(title as string);
        });
        expect([...found]).toEqual(expected);
      }),
    );
  });

  it('compares unknown as false, both ways', () => {
    expect(select('depth > 0 or depth <= 0')).not.toContain('/stories/night');
    expect(select('not depth > 0')).toContain('/stories/night');
  });
  it('binds and before or', () =>
    expect(select('broken or indexable and depth = 0')).toEqual(select('broken or (indexable and depth = 0)')));
});

/** Reads one page at a time, without columns or bits. */
function holds(page: number, text: Selection): boolean {
  const fact = (name: string) => factAt(snapshot, name as ColumnName, page);
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
      return fact(text.fact) === null;
    case 'seen':
      return (fact('seen_in') as string[]).includes(text.source);
    case 'flag':
      return fact(text.fact) === true;
    case 'in':
      return text.values.some((value) => fact(text.fact) === value);
    case 'compare': {
      const value = fact(text.fact) as string | number | null;
      if (value === null) return false;
      if (text.comparison === '=') return value === text.value;
      if (text.comparison === '!=') return value !== text.value;
      return text.comparison === '<' ? value < text.value : value >= text.value;
    }
    default:
      throw new Error(`${text.op} needs the graph`);
  }
}

it('means for columns what it means for each page', () => {
  const number = fc.constantFrom('depth', 'status', 'links_out', 'pages_linking');
  const test = fc.oneof(
    fc.tuple(number, fc.constantFrom('=', '!=', '<', '>='), fc.nat(3)).map((words) => words.join(' ')),
    fc.tuple(number, fc.nat(2), fc.nat(500)).map(([fact, a, b]) => `${fact} in (${a}, ${b})`),
    number.map((fact) => `${fact} is unknown`),
    fc.constantFrom(
      'indexable',
      'noindex',
      'orphan',
      'reached',
      'seen in links',
      'seen in sitemap',
      'title = "Shop"',
      'title is unknown',
      'verdict != broken',
    ),
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
      const bits = evaluate(snapshot, parsed.selection);
      for (let page = 0; page < snapshot.count; page++)
        expect([written, hasBit(bits, page)]).toEqual([written, holds(page, parsed.selection)]);
    }),
  );
});

describe('steps along the links', () => {
  // The start leads to a list of two sheets; the second sheet alone leads to the old stories, which /fr/ knows as well.
  const site = tinySite({
    '/': { links: ['/list', '/fr/'] },
    '/list': { links: ['/list?page=2', '/new', '/list'] },
    '/list?page=2': { links: ['/old', '/older'] },
    '/new': {},
    '/old': {},
    '/older': { links: ['/'] },
    '/fr/': { links: ['/old'] },
    '/lost': { links: ['/fr/'] },
  });
  const paths = (text: string) => {
    const parsed = parseSelection(text);
    if (!parsed.ok) throw new Error(parsed.fault.message);
    return Array.from(numbersOf(evaluate(site, parsed.selection)), (page) =>
      addressAt(site, page).slice('https://tiny.example'.length),
    );
  };
  it.each([
    ['linked from (section = "fr")', ['/old']],
    ['not linked from (indexable)', ['/lost']],
    ['links to (path = "/old")', ['/fr/', '/list?page=2']],
    ['within 1 of (url ends "/list")', ['/list', '/list?page=2', '/new']],
    ['within 0 of (orphan)', ['/lost']],
    ['indexable and only through (url has "page=")', ['/older']],
    ['only through (depth = 0)', ['/fr/', '/list', '/list?page=2', '/new', '/old', '/older']],
    ['orphan and not linked from (section = "fr")', ['/lost']],
    ['links to (links to (path = "/old"))', ['/', '/list', '/lost']],
  ])('%s', (text, expected) => expect(paths(text)).toEqual(expected));
});

describe('selections of links', () => {
  const links = (text: string) => {
    const parsed = parseLinkSelection(text);
    if (!parsed.ok) throw new Error(parsed.fault.message);
    return Array.from(
      numbersOf(evaluateLinks(snapshot, parsed.selection)),
      (link) => addressParts(addressAt(snapshot, snapshot.links.target[link])).path,
    );
  };
  it.each([
    ['to (broken)', ['/gone']],
    ['from (section = "shop")', ['/shop/mugs', '/gone']],
    ['kind = click and followed and not to (indexable)', ['/visit', '/shop/mugs', '/gone']],
    ['target ends "/visit" and placement = main', ['/visit']],
    ['faults has empty and target_status >= 400', ['/gone']],
    ['external or self', []],
  ])('%s', (text, expected) => expect(links(text)).toEqual(expected));
  it('knows no facts of pages', () =>
    expect(parseLinkSelection('depth > 3')).toMatchObject({ ok: false, fault: { at: 0 } }));
});

describe('texts without regard to case', () => {
  const site = tinySite({ '/': { title: 'ΟΔΟΣ' }, '/a': { title: 'Οδός ΟΔΟΣΑ' }, '/b': { title: 'İstanbul' } });
  const found = (text: string) => {
    const parsed = parseSelection(text);
    if (!parsed.ok) throw new Error(parsed.fault.message);
    return Array.from(numbersOf(evaluate(site, parsed.selection)), (page) => addressParts(addressAt(site, page)).path);
  };
  it.each([
    ['title has "ΟΔΟΣ"', ['/', '/a']],
    ['title has "οδος"', ['/', '/a']],
    ['title ends "οδοσ"', ['/']],
    ['title has "STANBUL"', ['/b']],
  ])('%s', (text, paths) => expect(found(text)).toEqual(paths));
});

describe('a share', () => {
  const site = overView(tinySite({ '/': {}, '/a': {}, '/b': {} }), {
    columns: { share: () => Float64Array.of(0.123456789012345, 0.28548934424692934, 1) },
  });
  const pages = (text: string) => {
    const parsed = parseSelection(text);
    if (!parsed.ok) throw new Error(parsed.fault.message);
    return [...numbersOf(evaluate(site, parsed.selection))];
  };
  it.each([
    ['share = 0.123456789012', [0]],
    ['share = 0.285489', [1]],
    ['share = 0.28549', []],
    ['share != 0.285489', [0, 2]],
    ['share = 1', [2]],
  ])('is equal as it is written in files: %s', (text, found) => expect(pages(text)).toEqual(found));
});

describe('matches', () => {
  it.each([
    ['^https?://[^/]+/shop/', 'http://tiny.example/SHOP/mugs', true],
    ['/\\d{4}/(0?[1-9]|1[0-2])$', '/events/2027/12', true],
    ['/\\d{4}/(0?[1-9]|1[0-2])$', '/events/2027/13', false],
    ['^$', '', true],
    ['a.c', 'xabcx', true],
    ['[^a-c]x', 'bx', false],
    ['colou?r=(red|blue)', '?colour=blue&a', true],
    ['É', 'école', true],
    ['a{2,3}b', 'ab', false],
    ['^[\\d-z]$', '@', false],
    ['^[\\d-z]+$', '7-z', true],
    ['^[\\d-.]+$', '1-2.5', true],
    ['^[a-\\d]+$', 'a-7', true],
    ['^[a-\\d]$', 'b', false],
  ])('%s on %s: %s', (pattern, text, expected) => expect(patternMatcher(pattern).test(text)).toBe(expected));
  it('agrees with the regular expressions of the language', () =>
    fc.assert(
      fc.property(
        fc.array(
          fc.constantFrom('a', 'b', '.', 'a*', '(ab|b)', 'b?', '[ab]', '[^b]', '^', '$', 'a{1,2}', '(a|)', '|'),
          { maxLength: 7 },
        ),
        fc.string({ unit: fc.constantFrom('a', 'b', 'B', 'c'), maxLength: 10 }),
        (pieces, text) => {
          const pattern = pieces.join('');
          expect([pattern, patternMatcher(pattern).test(text)]).toEqual([
            pattern,
            new RegExp(pattern, 'is').test(text),
          ]);
        },
      ),
    ));
  it('finds the same in a sorted list as one by one', () =>
    fc.assert(
      fc.property(
        fc.constantFrom('a', 'ab$', '^a', 'b.*a', 'a{2}', '^$', 'é', 'x|', '(a|b)*a(a|b){9}c'),
        fc.array(fc.string({ unit: fc.constantFrom('a', 'b', 'É', 'c'), maxLength: 14 })),
        (pattern, texts) => {
          const column = textColumn(texts);
          const { values, common } = column;
          const { test, testAll } = patternMatcher(pattern);
          const passes = testAll(joinedTexts(column)!, common);
          expect([...passes].slice(1)).toEqual(values.slice(1).map((text) => Number(test(text))));
        },
      ),
    ));
  it.each(['a.b', '(x', '[y]', 'z$', '^q', 'c\\d', '{2}', 'e*', '/f-g', '|'])(
    'has no patterns in the others: %s',
    (text) => {
      const site = tinySite({ '/': { title: `before ${text} behind` }, '/a': { title: text }, '/b': { title: 'no' } });
      const holding = (test: string) => {
        const parsed = parseSelection(`title ${test} ${JSON.stringify(text)}`);
        return parsed.ok ? numbersOf(evaluate(site, parsed.selection)).length : -1;
      };
      expect([holding('has'), holding('starts'), holding('ends')]).toEqual([2, 1, 1]);
    },
  );
  it('ends in time on what makes others slow', () => {
    expect(patternMatcher('(a*)*(a|a)*b$').test('a'.repeat(50_000))).toBe(false);
    expect(patternMatcher('(a|b)*a(a|b){14}c').test('ab'.repeat(5000))).toBe(false);
  });
  it('says where a pattern is at fault', () => {
    expect(fault('url matches "a(b"')).toMatchObject({ at: 14, length: 1, message: 'This ( is not closed.' });
    expect(fault('url matches "*"')).toMatchObject({ at: 13, message: 'There is nothing here to repeat.' });
    expect(fault('url matches "[a"')!.message).toMatch(/not closed/);
  });
});

/** A number in digits only, as the language writes it. */
const digits = (value: number) => value.toLocaleString('en', { useGrouping: false, maximumFractionDigits: 20 });
const written = (value: string | number) => (typeof value === 'number' ? digits(value) : quote(value));

/** How tightly a selection binds: what binds looser than its place asks for stands in brackets. */
const binding = { or: 1, and: 2 } as const;

/** Writes a selection as text; parsed again, it is the same. */
function printSelection(selection: Selection): string {
  return print(selection, 1);

  function print(part: Selection, least: number): string {
    switch (part.op) {
      case 'all':
        return '';
      case 'and':
      case 'or': {
        const own = binding[part.op];
        const joined = `${print(part.left, own)} ${part.op} ${print(part.right, own + 1)}`;
        return own < least ? `(${joined})` : joined;
      }
      case 'not':
        return `not ${print(part.of, 3)}`;
      case 'flag':
        return part.fact;
      case 'unknown':
        return `${part.fact} is unknown`;
      case 'imported':
        return `${part.kind}(${quote(part.name)})`;
      case 'text':
        return `text has ${quote(part.words.join(' '))}`;
      case 'seen':
        return `seen in ${part.source}`;
      case 'compare':
        return `${part.fact} ${part.comparison} ${written(part.value)}`;
      case 'in':
        return `${part.fact} in (${part.values.map(written).join(', ')})`;
      case 'was':
        return `was (${print(part.of, 1)})`;
      case 'differs':
        return `changed(${part.differing})`;
      case 'step':
        return `${part.step} (${print(part.of, 1)})`;
      case 'within':
        return `within ${digits(part.clicks)} of (${print(part.of, 1)})`;
    }
  }
}

describe('a selection as text', () => {
  const leaf: fc.Arbitrary<Selection> = fc.oneof(
    fc.record({ op: fc.constant('flag' as const), fact: fc.constant('noindex') }),
    fc.record({
      op: fc.constant('compare' as const),
      fact: fc.constantFrom('title', 'url'),
      comparison: fc.constantFrom('=', 'has', '<'),
      value: fc.string(),
    }),
    fc.record({
      op: fc.constant('compare' as const),
      fact: fc.constantFrom('depth', 'share'),
      comparison: fc.constantFrom('!=', '>='),
      value: fc.oneof(fc.nat(), fc.constantFrom(0.5, 0.000001, 12.25)),
    }),
    fc.record({
      op: fc.constant('compare' as const),
      fact: fc.constant('anchor_faults'),
      comparison: fc.constant('has' as const),
      value: fc.constantFrom('generic', 'empty'),
    }),
    fc.record({
      op: fc.constant('in' as const),
      fact: fc.constant('verdict'),
      values: fc.array(fc.constantFrom('noindex', 'not_html'), { minLength: 1, maxLength: 3 }),
    }),
    fc.record({ op: fc.constant('unknown' as const), fact: fc.constantFrom('h1', 'depth') }),
    fc.record({ op: fc.constant('seen' as const), source: fc.constantFrom('sitemap', 'links') }),
  ) as fc.Arbitrary<Selection>;
  const { selection } = fc.letrec<{ selection: Selection }>((tie) => ({
    selection: fc.oneof(
      { depthSize: 'small' },
      leaf,
      fc.record({ op: fc.constant('not' as const), of: tie('selection') }),
      fc.record({
        op: fc.constantFrom('and' as const, 'or' as const),
        left: tie('selection'),
        right: tie('selection'),
      }),
      fc.record({
        op: fc.constant('step' as const),
        step: fc.constantFrom('linked from', 'links to', 'only through'),
        of: tie('selection'),
      }),
      fc.record({ op: fc.constant('within' as const), clicks: fc.nat(9), of: tie('selection') }),
    ) as fc.Arbitrary<Selection>,
  }));
  it('is the same when it is read again', () =>
    fc.assert(
      fc.property(selection, (written) => {
        expect(parseSelection(printSelection(written))).toEqual({ ok: true, selection: written });
      }),
    ));
});

describe('completion', () => {
  const offers = (text: string) =>
    completeSelection(text, text.length, (fact) => (fact === 'section' ? ['shop', 'visit'] : [])).offers.map(
      ({ text }) => text,
    );
  it.each([
    ['', ['indexable', 'depth', 'seen in', 'linked from (', 'not']],
    ['dep', ['depth']],
    ['indexable and ', ['depth', 'orphan', '(']],
    ['indexable ', ['and', 'or']],
    ['(indexable ', ['and', ')']],
    ['verdict = no', ['noindex', 'not_html']],
    ['anchor_faults has ', ['generic', 'off_topic']],
    ['section = ', ['"shop"', '"visit"']],
    ['section = "s', ['"shop"']],
    ['seen in si', ['sitemap']],
    ['linked ', ['from']],
    ['depth ', ['>', 'is unknown', 'in (']],
    ['links to (url ', ['has', 'matches']],
    ['wa', ['was (']],
    ['was (verdict = ind', ['indexable']],
    ['changed(', ['title', 'content']],
    ['ne', ['new']],
    ['share_change ', ['<', 'is unknown']],
  ])('after “%s”', (text, expected) => expect(offers(text)).toEqual(expect.arrayContaining(expected)));
  it('replaces the word that was begun', () => expect(completeSelection('not dep', 7).from).toBe(4));
  it('offers nothing after a fault', () => expect(offers('depht > 3 and ')).toEqual([]));
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

describe('what is not known of a link', () => {
  const site = tinySite({
    '/': { links: ['/a'], headed: [['hreflang', '/a']] },
    '/a': {},
    '/alone': { declared: [['next', '/a']] },
  });
  const found = (text: string) => {
    const parsed = parseLinkSelection(text);
    if (!parsed.ok) throw new Error(parsed.fault.message);
    return numbersOf(evaluateLinks(site, parsed.selection)).length;
  };
  it('is its line, when it stands in the head of the answer: that is less than no line', () => {
    expect([found('line < 5'), found('line >= 0'), found('kind = hreflang')]).toEqual([2, 2, 1]);
    expect(found('kind = hreflang and line < 5')).toBe(0);
  });
  it('is the share of its page, when that is no node: that is not 0', () => {
    expect(found('kind = next')).toBe(1);
    expect(found('kind = next and source_share < 1')).toBe(0);
    expect(found('kind = next and source_share = 0')).toBe(0);
  });
});

describe('a pattern that takes too much work', () => {
  it.each(['(){500}{500}{500}{500}', '(^){500}{500}{500}', '((a|){400}){400}'])('to read is refused: %s', (pattern) =>
    expect(() => patternMatcher(pattern)).toThrow('This pattern is too large.'),
  );
  /** Letters without a pattern, by a linear congruential generator. */
  let seed = 1;
  const letter = () => ((seed = (Math.imul(seed, 1_103_515_245) + 12_345) >>> 0) & 0x10000 ? 'a' : 'b');
  const texts = Array.from({ length: 8000 }, (_, i) => `/${Array.from({ length: 200 }, letter).join('')}${i}`);
  it('ends with a fault that says what to do', () => {
    const matcher = patternMatcher('(a.{120}b|b.{121}a)x');
    expect(() => texts.filter((text) => matcher.test(text))).toThrow(/too much work.*fewer repetitions/);
  });
  it('and others of the kind are answered', () => {
    const matcher = patternMatcher('(a|b)*a.{12}1$');
    const some = texts.slice(0, 1000);
    const found = some.filter((text) => matcher.test(text));
    expect(found).toEqual(some.filter((text) => /(a|b)*a.{12}1$/.test(text)));
    expect(found.length).toBeGreaterThan(0);
  });
});

it('every keyword is explained in docs/SELECTION.md', () => {
  const text = readFileSync('docs/SELECTION.md', 'utf8');
  expect([...keywords].filter((word) => !new RegExp(`\\b${word}\\b`).test(text))).toEqual([]);
});
