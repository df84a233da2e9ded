import { describe, expect, it } from 'vitest';
import { familyAllowance, familyOf, judgeFamily } from '.';
import type { Sampled } from '.';

const at = (path: string) => familyOf(`https://museum.example${path}`);
const pattern = (path: string) => at(path)?.pattern.replace('https://museum.example', '');

describe('the family of an address', () => {
  it.each([
    ['/events/2027/09/', '/events/*/*/'],
    ['/shop?sort=price&colour=red', '/shop?*'],
    ['/story-12-of-40', '/story-*-of-*'],
    ['/s/4f3a9c0b7d21e86f55aa/cart', '/s/*/cart'],
    ['/a/b/a/b/a/b/c', '/a/b/…/c'],
    ['/x/x/x/x', '/x/…'],
  ])('%s is %s', (path, expected) => expect(pattern(path)).toBe(expected));
  it.each(['/', '/visit/prices', '/collections/trams/horse/', '/a/b/a/b'])('%s has none', (path) =>
    expect(at(path)).toBeNull(),
  );
});

describe('a large family', () => {
  const family = at('/events/2027/09/')!;
  const of = (n: number, each: (i: number) => Sampled, limit = 500) =>
    judgeFamily({ family, sample: Array.from({ length: n }, (_, i) => each(i)) }, limit);
  const scattered = (i: number): [number, number] => [
    Math.imul(i + 1, 0x9e3779b9) >>> 0,
    Math.imul(i + 7, 0x85ebca6b) >>> 0,
  ];

  it('is a trap when its pages are alike, or no pages at all', () => {
    expect(of(30, (i) => [5, i % 3])).toMatchObject({
      trap: true,
      reason: { code: 'pages_alike', percent: 100 },
    });
    expect(of(30, () => null)).toMatchObject({ trap: true });
  });
  it('is none when its pages differ, and may go on growing', () => {
    const judged = of(30, scattered);
    expect(judged).toEqual({ trap: false });
    expect(familyAllowance(judged, 400, 500)).toBe(800);
  });
  it('is none when it is made of files', () => expect(of(30, () => 'file')).toEqual({ trap: false }));
  it('is judged by fewer pages when the limit lets no more be fetched', () =>
    expect(of(10, () => [0, 0], 10)).toMatchObject({ trap: true }));
  it('is not judged by a few pages', () => {
    const judged = of(10, () => [0, 0]);
    expect(judged).toEqual({ trap: null });
    expect(familyAllowance(judged, 10, 500)).toBe(500);
  });
  it('is a trap at once when its addresses repeat themselves', () =>
    expect(judgeFamily({ family: at('/x/x/x/x')!, sample: [] }, 500)).toMatchObject({ trap: true }));
});
