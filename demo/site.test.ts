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

describe('some weeks later', () => {
  const later = (path: string) => demoAnswer('www.larkfield.example', true, path, true);
  it.each([
    ['/events/night-of-the-bells', 404],
    ['/collections/liveries/cream', 200],
    ['/stories/the-blue-lamps', 200],
    ['/learn/worksheets', 301],
    ['/discover/worksheets', 200],
    ['/promo/spring', 301],
    ['/archive/letters-1931', 404],
    ['/shop/?colour=red&sort=price', 200],
  ])('%s answers %i', (path, status) => expect(later(path).status).toBe(status));
  it('has lost a link of its footer, on every page', () => {
    for (const path of ['/', '/visit/', '/shop/', '/events/2026/12/', '/discover/worksheets'])
      expect(later(path).body).not.toContain('href="/press/"');
    expect(get('/visit/').body).toContain('href="/press/"');
  });
  it('has moved a section, whose pages link to where they are now', () => {
    const { body } = later('/discover/');
    expect(body).toContain('href="/discover/worksheets"');
    expect(body).toContain(`rel="canonical" href="https://www.larkfield.example/discover/"`);
    expect(later('/').body).toContain('<a href="/learn/">Learn</a>');
  });
  it('has other titles', () => expect(later('/collections/stops/quay').body).toContain('<h1>Quay tram stop</h1>'));
});

it('says which line of a content file is wrong', () =>
  expect(() => readTable('# a | b\none | two\nthree', ['a', 'b'])).toThrow(/“three”/));
