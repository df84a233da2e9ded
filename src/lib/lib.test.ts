import { describe, expect, it } from 'vitest';
import { withState } from './address';
import { depthsOf, pickDepth, selectionOf } from './depthSelection';
import { readSettingsForm } from './settingsForm';
import { bytes, number, shortAddress } from './words';

describe('bars and selections', () => {
  it.each([
    [[3], 'depth = 3'],
    [[5, 3], 'depth in (3, 5)'],
    [[null], 'not reached'],
    [[3, null], 'depth = 3 or not reached'],
    [[], ''],
  ])('%o is written as “%s” and read back', (depths, text) => {
    expect(selectionOf(depths)).toBe(text);
    expect(new Set(depthsOf(text))).toEqual(new Set(depths));
  });
  it('does not claim a selection that it could not have written', () =>
    expect(depthsOf('depth = 3 and indexable')).toEqual([]));
  it('picks one, picks it off again, and adds with a key held', () => {
    expect(pickDepth('', 2, false)).toBe('depth = 2');
    expect(pickDepth('depth = 2', 2, false)).toBe('');
    expect(pickDepth('depth = 2', 4, false)).toBe('depth = 4');
    expect(pickDepth('depth = 2', null, true)).toBe('depth = 2 or not reached');
    expect(pickDepth('depth in (2, 4)', 4, true)).toBe('depth = 2');
  });
});

it('keeps the state of a screen in the address, and nothing that is empty', () => {
  const url = new URL('http://127.0.0.1/sites/1/crawls/2/reach?select=depth+%3D+3&sort=title');
  expect(withState(url, { page: 'https://a.example/' })).toBe(
    '/sites/1/crawls/2/reach?select=depth+%3D+3&sort=title&page=https%3A%2F%2Fa.example%2F',
  );
  expect(withState(url, { select: '', sort: '' })).toBe('/sites/1/crawls/2/reach');
});

it('writes numbers with separators, and unknown as a dash', () => {
  expect(number(1234567)).toBe('1,234,567');
  expect(number(null)).toBe('—');
  expect(bytes(2_340)).toBe('2.3 kB');
});
it('shortens addresses of the site only', () => {
  expect(shortAddress('https://a.example/x?y', 'https://a.example/start')).toBe('/x?y');
  expect(shortAddress('http://a.example/x', 'https://a.example/')).toBe('http://a.example/x');
});

describe('the form of a new crawl', () => {
  const form = (fields: Record<string, string>) => {
    const data = new FormData();
    for (const [name, value] of Object.entries(fields)) data.set(name, value);
    return readSettingsForm(data);
  };
  it('reads what was typed', () => {
    const read = form({
      start: 'museum.example',
      limit: '10,000',
      depth: '',
      robots: 'look-past',
      overrides: 'museum.example=127.0.0.1:81\n',
      acceptCertificates: 'on',
    });
    expect(read).toMatchObject({
      ok: true,
      settings: {
        start: 'https://museum.example/',
        limit: 10_000,
        depth: null,
        robots: 'look-past',
        acceptCertificates: true,
        overrides: [{ toPort: 81 }],
      },
    });
  });
  it('says what is wrong field by field and keeps what was typed', () => {
    const read = form({ start: 'no url', limit: 'many', connections: '0', sitemaps: 'map', overrides: 'x' });
    expect(read.ok).toBe(false);
    if (read.ok) return;
    expect(Object.keys(read.faults).sort()).toEqual(['connections', 'limit', 'overrides', 'sitemaps', 'start']);
    expect(read.typed.limit).toBe('many');
  });
});
