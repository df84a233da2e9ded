import { describe, expect, it } from 'vitest';
import {
  closings,
  elementNumber,
  elementSet,
  elementTable,
  htmlInForeign,
  textElements,
  voidElements,
} from './elements';

describe('elements by their numbers', () => {
  it('have one each, and share 0 when nothing is said of them', () => {
    expect(elementNumber('p')).toBeGreaterThan(0);
    expect(elementNumber('p')).not.toBe(elementNumber('li'));
    expect([elementNumber('x-tram'), elementNumber('constructor'), elementNumber('')]).toEqual([0, 0, 0]);
  });
  it('are in the sets that name them, and in no other', () => {
    const sets = { voidElements, textElements, htmlInForeign };
    const inSets = (name: string) =>
      Object.entries(sets).flatMap(([set, has]) => (has[elementNumber(name)] ? [set] : []));
    expect(['br', 'script', 'title', 'desc', 'p', 'x-tram'].map(inSets)).toEqual([
      ['voidElements'],
      ['textElements'],
      ['textElements', 'htmlInForeign'],
      ['htmlInForeign'],
      [],
      [],
    ]);
    const own = elementSet('p li');
    expect([own[elementNumber('p')], own[elementNumber('br')], own[0]]).toEqual([1, 0, 0]);
  });
  it('tell what a table says of them', () => {
    const table = elementTable({ nav: 'way', main: 'text' });
    expect(['nav', 'main', 'p', 'x-tram'].map((name) => table[elementNumber(name)])).toEqual([
      'way',
      'text',
      undefined,
      undefined,
    ]);
  });
  it('end what they imply the end of', () => {
    const ended = (name: string) => closings[elementNumber(name)].flatMap(({ ends }) => ends);
    const numbers = (...names: string[]) => names.map(elementNumber);
    expect(ended('div')).toEqual(numbers('p'));
    expect(ended('li')).toEqual(numbers('li', 'p'));
    expect(ended('tr')).toEqual(numbers('tr'));
    expect(ended('span')).toEqual([]);
    expect(ended('x-tram')).toEqual([]);
  });
});
