import { describe, expect, it } from 'vitest';
import type { ImportedSource } from '../imports';
import { tiny, tinySite } from '../testing/tinySite';
import { rollCallAnswer } from '.';
import { viewOf } from '../view';

const site = tinySite({ '/': { links: ['/a'] }, '/a': {}, '/old/x': {}, '/old/y': {}, '/b': {} });
const log = (hits: Record<string, number>, answered = hits): ImportedSource => {
  const paths = Object.keys(hits).sort();
  const column = (of: Record<string, number>) => Float64Array.from(paths, (path) => of[path] ?? 0);
  const columns = { hits: column(hits), answered: column(answered), crawler_hits: column({}), last_hit: column({}) };
  return { id: 1, kind: 'log', name: 'May', addresses: paths.map(tiny), columns };
};
const list = (...paths: string[]): ImportedSource => {
  const rows = new Float64Array(paths.length).fill(1);
  return { id: 2, kind: 'list', name: 'Ads', addresses: paths.map(tiny).sort(), columns: { rows } };
};
const answer = (...imports: ImportedSource[]) => rollCallAnswer(viewOf(site, imports));
const said = (...imports: ImportedSource[]) =>
  answer(...imports)
    .map(({ text }) => text)
    .join('');

describe('the answer of Roll call', () => {
  it('asks for other sources where there are none', () =>
    expect(said()).toMatch(/^Links reach 2 pages\. No other source is known: import a list or an access log/));
  it('names the gap of an access log, and the folder that it is under', () =>
    expect(said(log({ '/a': 3, '/old/x': 2, '/old/y': 1 }))).toBe(
      'Links reach 2 pages; the access log knows 3. 2 addresses get visits and have no route, all under /old/.',
    ));
  it('says how much of it is in the folder that holds most, and what the crawl does not know', () =>
    expect(said(log({ '/b': 1, '/old/x': 2, '/old/y': 1, '/old/gone': 1 }))).toBe(
      'Links reach 2 pages; the access log knows 4. 4 addresses get visits and have no route; 3 of them are under /old/. The crawl does not know 1 of the 4.',
    ));
  it('leaves out what the crawl has not met and what only ever answered with an error', () =>
    expect(said(log({ '/a': 3, '/probe': 9 }, { '/a': 3 }))).toBe(
      'Links reach 2 pages; the access log knows 1. All of them have a route.',
    ));
  it('goes to a list where the log has no gap', () =>
    expect(said(log({ '/a': 3 }), list('/a', '/b'))).toBe(
      'Links reach 2 pages; the list “Ads” has 2. 1 of these has no route.',
    ));
  it('has numbers that select what they count', () => {
    const selects = answer(log({ '/b': 1, '/old/x': 2, '/old/y': 1 })).flatMap(({ select }) => select ?? []);
    expect(selects).toEqual([
      'reached',
      'seen in log',
      'seen in log and not reached',
      'seen in log and not reached and path starts "/old/"',
    ]);
  });
});
