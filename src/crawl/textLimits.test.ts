import { describe, expect, it } from 'vitest';
import { limitOf } from '$core/facts';
import { readHtml } from '$core/html';
import { nothingFound } from '$core/snapshot';
import { withinLimits } from './textLimits';

const TRAM = String.fromCodePoint(0x1f68b);

describe('texts of a page', () => {
  it('that are within their bounds stay as they are', () => {
    const facts = { ...nothingFound, title: 'x'.repeat(limitOf('title')), language: 'en' };
    expect(withinLimits(facts)).toEqual(facts);
  });
  it.each([
    'title',
    'description',
    'h1',
    'language',
    'robots',
    'canonical',
    'redirectTo',
    'contentType',
    'pageRules',
  ] as const)('are cut where %s is longer than its bound, and the page says so', (name) => {
    const cut = withinLimits({ ...nothingFound, [name]: TRAM.repeat(10_000) });
    expect(cut.truncated).toBe(true);
    expect(cut[name]!.length).toBeLessThan(10_000);
    expect(cut[name]!.isWellFormed()).toBe(true);
  });
  it('that a document makes too long say so, too', () => {
    const long = 'tram '.repeat(1000);
    const html = `<title>${long}</title><meta name=description content="${long}"><h1>${long}</h1>`;
    const { title, description, h1 } = readHtml(new TextEncoder().encode(html), 'https://museum.example/');
    for (const [name, text] of Object.entries({ title, description, h1: h1[0] })) {
      const cut = withinLimits({ ...nothingFound, [name]: text });
      expect([name, cut.truncated]).toEqual([name, true]);
    }
  });
});
