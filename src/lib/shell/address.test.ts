import { describe, expect, it } from 'vitest';
import { carriedOver, screenState, viewQuery, webAddress, withState } from './address';
import { depthsOf, pickDepth } from '../selection/depthSelection';
import { findingHref } from './routes';

const reach = (query = '') => new URL(`http://127.0.0.1/sites/1/crawls/2/reach${query}`);
const flow = (query = '') => new URL(`http://127.0.0.1/sites/1/crawls/2/flow${query}`);

describe('an address that becomes a link', () => {
  it('is one of the web', () => expect(webAddress('https://museum.example/a?b')).toBe('https://museum.example/a?b'));
  it.each([
    'javascript:alert(1)',
    'JaVaScRiPt:alert(1)',
    ' javascript:alert(1)',
    'data:text/html,x',
    '//x.example/',
    '',
  ])('“%s” is none', (address) => expect(webAddress(address)).toBeNull());
});

describe('the state of a screen', () => {
  it('begins as its screen does', () => {
    expect(screenState(reach())).toMatchObject({ list: 'pages', sort: '', reader: 'visitor', page: '' });
    expect(screenState(flow())).toMatchObject({ list: 'pages', sort: 'share:desc' });
  });
  it('passes over what no screen knows', () =>
    expect(screenState(reach('?list=frobs&reader=nobody&select=depth+%3D+1'))).toMatchObject({
      list: 'pages',
      reader: 'visitor',
      select: 'depth = 1',
    }));
  it('is written into the address and read back', () => {
    const changes = {
      list: 'edits',
      select: 'to (broken)',
      page: 'https://a.example/?x=1&y',
      part: 'source',
      at: '3:14',
      reader: 'crawler',
      picture: 'leaks',
    } as const;
    const address = withState(flow(), changes);
    expect(screenState(new URL(address, flow()))).toMatchObject(changes);
  });
  it('says when what it begins with is not wanted', () =>
    expect(withState(flow(), { sort: '' })).toBe('/sites/1/crawls/2/flow?sort='));
  it('loses its sort with its list, and the parts of a dossier with its page', () => {
    expect(withState(reach('?sort=depth'), { list: 'links' })).toBe('/sites/1/crawls/2/reach?list=links');
    expect(withState(reach('?page=x&part=source&at=1%3A1'), { page: '' })).toBe('/sites/1/crawls/2/reach');
  });
  it('keeps its reader on the way to another screen, and nothing else', () =>
    expect(withState(reach('?reader=crawler&select=orphan'), { select: 'indexable' }, '/sites/1/crawls/2/flow')).toBe(
      '/sites/1/crawls/2/flow?select=indexable&reader=crawler',
    ));
  it('asks for rows by what concerns them', () => {
    const query = new URLSearchParams(viewQuery(screenState(reach('?select=orphan&page=x')), ['url', 'depth']));
    expect(Object.fromEntries(query)).toEqual({ list: 'pages', select: 'orphan', sort: '', columns: 'url,depth' });
  });
});

it.each([
  ['pages', 'groups', 'depth > 3', 'depth > 3'],
  ['pages', 'links', 'depth > 3', 'kind = click and from (depth > 3)'],
  ['pages', 'hosts', '', 'kind = click and external'],
  ['links', 'anchors', 'kind = click', 'kind = click'],
  ['edits', 'pages', 'kind = click', ''],
] as const)('a selection of %s becomes one of %s: “%s”', (from, to, select, expected) =>
  expect(carriedOver(from, to, select)).toBe(expected),
);

it('picks bars in the words of the reader', () => {
  expect(pickDepth('', 2, false, 'crawler')).toBe('crawler_depth = 2');
  expect(pickDepth('crawler_depth = 2', null, true, 'crawler')).toBe('crawler_depth = 2 or crawler_depth is unknown');
  expect(depthsOf('crawler_depth = 2 or crawler_depth is unknown', 'crawler')).toEqual([2, null]);
  expect(depthsOf('depth = 2', 'crawler')).toEqual([]);
});

it.each([
  [{ question: 'Flow', over: 'links', select: 'to (broken)' }, '/c/flow?list=edits&select=to+%28broken%29'],
  [{ question: 'Words', over: 'links', select: 'faults has empty' }, '/c/flow?list=edits&select=faults+has+empty'],
  [{ question: 'Rules', over: 'pages', select: 'noindex' }, '/c/rules?select=noindex'],
  [{ question: 'Rules', over: 'files', select: '' }, '/c/overview#files'],
] as const)('a finding is looked at where its question is, or its list: %o', (finding, expected) =>
  expect(findingHref('/c', finding)).toBe(expected),
);

it('keeps the state of a screen in the address, and nothing that is empty', () => {
  const url = new URL('http://127.0.0.1/sites/1/crawls/2/reach?select=depth+%3D+3&sort=title');
  expect(withState(url, { page: 'https://a.example/' })).toBe(
    '/sites/1/crawls/2/reach?select=depth+%3D+3&sort=title&page=https%3A%2F%2Fa.example%2F',
  );
  expect(withState(url, { select: '', sort: '' })).toBe('/sites/1/crawls/2/reach');
});
