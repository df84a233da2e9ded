/** Lists and selections read the facts of links from one place: what a cell shows, a selection finds. */
import { describe, expect, it } from 'vitest';
import { linkFacts } from '../facts';
import { linkFaults } from '../links';
import type { Fact, LinkFactName } from '../facts';
import { linkList } from '../lists';
import { evaluateLinks, numbersOf, parseLinkSelection, quote } from '../selection';
import { tinySite } from '../testing/tinySite';

const site = tinySite({
  '/': {
    worded: [
      ['/a', 'Trams', 'nav'],
      ['/a', 'Trams', 'main'],
      ['/', 'Home', 'header'],
      ['https://else.example/', 'Else', 'footer'],
    ],
    nofollow: ['/b'],
    headed: [['canonical', '/']],
  },
  '/a': { links: ['/old'], fragments: [['/b', 'Depot', 'depot']] },
  '/b': { noindex: true, links: ['/gone'] },
  '/old': { status: 301, html: false, redirectTo: '/a' },
  '/gone': { status: 404, html: false, title: null },
});
const select = (text: string) => {
  const parsed = parseLinkSelection(text);
  if (!parsed.ok) throw new Error(`${text}: ${parsed.fault.message}`);
  return [...numbersOf(evaluateLinks(site, parsed.selection))];
};
const all = select('');
const list = linkList(site, Uint32Array.from(all));
const names = Object.keys(linkFacts) as LinkFactName[];

/** The test that a cell with this value passes. */
function testFor(name: LinkFactName, value: unknown): string {
  const { type }: Fact = linkFacts[name];
  if (value === null) return `${name} is unknown`;
  if (type === 'flag') return value === true ? name : `not ${name}`;
  if (type === 'number' || type === 'ratio')
    return `${name} = ${Number(value)
      .toFixed(6)
      .replace(/\.?0+$/, '')}`;
  return `${name} = ${type === 'choice' ? String(value) : quote(String(value))}`;
}

describe('a fact of links', () => {
  it.each(names.filter((name) => name !== 'faults'))('%s is found by what its cell shows', (name) => {
    const { value } = list.cells(name);
    const shown = new Map<string, number[]>();
    for (const link of all) {
      const test = testFor(name, value(link));
      shown.set(test, [...(shown.get(test) ?? []), link]);
    }
    for (const [test, links] of shown) expect([test, select(test)]).toEqual([test, links]);
  });
  it('faults are found one by one', () => {
    const { value } = list.cells('faults');
    const having = (fault: string) => all.filter((link) => (value(link) as string[]).includes(fault));
    for (const fault of linkFaults) expect(select(`faults has ${fault}`)).toEqual(having(fault));
    expect(select('faults is unknown')).toEqual([]);
  });
  it('sorts unknown below zero, and shows it as nothing', () => {
    for (const name of names) {
      const { key, value } = list.cells(name);
      for (const link of all) if (value(link) === null) expect([name, key(link) < 0]).toEqual([name, true]);
    }
  });
});
