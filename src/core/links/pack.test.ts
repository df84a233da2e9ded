import fc from 'fast-check';
import { expect, it } from 'vitest';
import {
  bundleLinks,
  countPackedLinks,
  placements,
  linkElements,
  linkKinds,
  packLinks,
  eachPackedLink,
  renumberLinks,
} from '.';
import type { Link, NumberedLink } from '.';

const packed = (links: readonly NumberedLink[]) => packLinks(links, Number, Number);

function unpacked(bytes: Uint8Array): NumberedLink[] {
  const links: NumberedLink[] = [];
  eachPackedLink(bytes, ({ kind, element, placement, marks: _, ...numbers }) =>
    links.push({
      kind: linkKinds[kind],
      element: linkElements[element],
      placement: placements[placement],
      ...numbers,
    }),
  );
  return links;
}

const number = fc.oneof(fc.nat(), fc.maxSafeNat());
const link = fc.record({
  kind: fc.constantFrom(...linkKinds),
  element: fc.constantFrom(...linkElements),
  placement: fc.constantFrom(...placements),
  target: number,
  anchor: number,
  rel: number,
  above: number,
  fragment: fc.oneof(fc.constant(0), number),
  line: fc.nat(),
  column: fc.nat(),
});

it('unpacks what was packed', () =>
  fc.assert(
    fc.property(fc.array(link, { maxLength: 30 }), (links) => {
      expect(unpacked(packed(links))).toEqual(links);
      expect(countPackedLinks(packed(links))).toBe(links.length);
    }),
  ));
it('refuses a newer version and a torn row', () => {
  const row = packed([
    {
      kind: 'click',
      element: 'a',
      placement: 'none',
      target: 300,
      anchor: 1,
      rel: 0,
      above: 2,
      fragment: 0,
      line: 9,
      column: 4,
    },
  ]);
  expect(() => unpacked(Uint8Array.from([9, ...row.slice(1)]))).toThrow(/version 9/);
  expect(() => unpacked(row.slice(0, -1))).toThrow(/end too early/);
});
it('takes a dozen bytes for an ordinary link', () => {
  const links = Array.from(
    { length: 150 },
    (_, i) =>
      ({
        kind: 'click',
        element: 'a',
        placement: 'nav',
        target: 70_000 + i,
        anchor: 40_000 + i,
        rel: 0,
        above: 900,
        fragment: 0,
        line: 10 + i,
        column: 9,
      }) as const,
  );
  expect(packed(links).length / links.length).toBeLessThan(14);
});

const word = fc.constantFrom('', 'tram', 'depot', 'Tram 7', 'body>main');
const wordedLink: fc.Arbitrary<Link> = fc
  .record({
    target: fc.constantFrom('https://a.example/', 'https://a.example/b'),
    anchor: word,
    rel: word,
    above: word,
    fragment: word,
  })
  .chain((words) => link.map((numbered) => ({ ...numbered, ...words })));

it('bundles links with each of their texts once, and numbers them later', () =>
  fc.assert(
    fc.property(fc.array(wordedLink, { maxLength: 30 }), (links) => {
      const { packed, addresses, phrases } = bundleLinks(links);
      expect([addresses, phrases].map((texts) => new Set(texts).size)).toEqual([addresses.length, phrases.length]);
      // As a database numbers them: in an order of its own, '' being 0.
      const numbers = (texts: string[]) => texts.map((text) => (text === '' ? 0 : 1000 + 7 * text.length));
      const textOf = (number: number, texts: string[]) => texts.find((text) => numbers([text])[0] === number);
      const stored = unpacked(renumberLinks(packed, numbers(addresses), numbers(phrases)));
      const read = stored.map((one) => ({
        ...one,
        target: textOf(one.target, addresses),
        anchor: textOf(one.anchor, phrases),
        rel: textOf(one.rel, phrases),
        above: textOf(one.above, phrases),
        fragment: textOf(one.fragment, phrases),
      }));
      expect(read).toEqual(links);
    }),
  ));
