import { gunzipSync } from 'node:zlib';
import { describe, expect, it } from 'vitest';
import { demoAnswer, fixedPageCount } from './site';
import { readTable } from './table';

const get = (path: string) => demoAnswer('www.larkfield.example', true, path);

describe('the demo website', () => {
  it('has at least 300 pages', () => expect(fixedPageCount()).toBeGreaterThanOrEqual(300));
  it('sends its variants to one address', () => {
    expect(demoAnswer('larkfield.example', true, '/visit/')).toMatchObject({
      status: 301,
      headers: { location: 'https://www.larkfield.example/visit/' },
    });
    expect(demoAnswer('www.larkfield.example', false, '/').status).toBe(301);
  });
  it.each([
    ['/tickets', 302],
    ['/promo/spring', 301],
    ['/archive/letters-1931', 404],
    ['/collections/liveries/cream', 410],
    ['/visit/cafe/booking', 503],
    ['/stories/night-buses-of-the-coast', 200],
    ['/archive-2009/index.html', 200],
    ['/shop/?colour=red&sort=price', 200],
  ])('%s answers %i', (path, status) => expect(get(path).status).toBe(status));
  it('has a calendar without end', () => {
    expect(get('/events/2999/12/').body).toContain('href="/events/3000/01/"');
    expect(get('/events/2026/13/').status).toBe(404);
  });
  it('lists in its sitemap what nothing links to', () => {
    const listed = gunzipSync(get('/sitemap-stories.xml.gz').body as Buffer).toString();
    expect(listed).toContain('/stories/night-buses-of-the-coast<');
    expect(get('/stories/').body).not.toContain('night-buses-of-the-coast');
  });
});

it('says which line of a content file is wrong', () =>
  expect(() => readTable('# a | b\none | two\nthree', ['a', 'b'])).toThrow(/“three”/));
