import { describe, expect, it } from 'vitest';
import { readCrawlCall, UsageError } from './options';

describe('edgemap crawl', () => {
  it('reads its options', () =>
    expect(
      readCrawlCall(['museum.example', '--limit', '50', '--depth=3', '--connections', '2', '--look-past-robots', '--insecure', '--sitemap', 'https://museum.example/a.xml', '--sitemap', 'https://museum.example/b.xml', '--override', 'museum.example=127.0.0.1:81', '--out', 'x']), // prettier-ignore
    ).toMatchObject({
      out: 'x',
      settings: {
        start: 'https://museum.example/',
        limit: 50,
        depth: 3,
        connections: 2,
        robots: 'look-past',
        sitemaps: ['https://museum.example/a.xml', 'https://museum.example/b.xml'],
        overrides: [{ host: 'museum.example', toHost: '127.0.0.1', toPort: 81 }],
        acceptCertificates: true,
      },
    }));
  it.each([
    [[], /one address/],
    [['a.example', 'b.example'], /one address/],
    [['not a url'], /not a URL/],
    [['a.example', '--limit', 'ten'], /--limit takes a whole number/],
    [['a.example', '--limit', '0'], /--limit/],
    [['a.example', '--connections', '1000'], /--connections/],
    [['a.example', '--obey-robots', '--look-past-robots'], /exclude each other/],
    [['a.example', '--override', 'a.example'], /host=address:port/],
    [['a.example', '--sitemap', 'map'], /--sitemap takes a URL/],
    [['a.example', '--colour'], /--colour/],
    [['a.example', '--out'], /--out/],
  ])('refuses %o', (words, message) => {
    expect(() => readCrawlCall(words)).toThrow(UsageError);
    expect(() => readCrawlCall(words)).toThrow(message);
  });
});
