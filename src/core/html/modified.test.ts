import { describe, expect, it } from 'vitest';
import { readHtml } from '.';

const modifiedOf = (head: string) =>
  readHtml(new TextEncoder().encode(`<head>${head}</head><body>Trams`), 'https://www.larkfield.example/').modified;
const script = (value: unknown) => `<script type="application/ld+json">${JSON.stringify(value)}</script>`;

describe('when a page says that it was changed', () => {
  it.each([
    [
      'in JSON-LD',
      script({ '@type': 'Article', dateModified: '2026-10-02T09:30:00+02:00' }),
      '2026-10-02T09:30:00+02:00',
    ],
    ['in a graph', script({ '@graph': [{ '@type': 'WebSite' }, { dateModified: '2026-10-02' }] }), '2026-10-02'],
    ['in a meta element', '<meta property="article:modified_time" content="2026-10-02">', '2026-10-02'],
    ['in words only', script({ dateModified: 'last Tuesday' }), null],
    ['of something it mentions', script({ comment: [{ dateModified: '2026-10-02' }] }), null],
    ['in a script that is no JSON', '<script type="application/ld+json">{dateModified</script>', null],
    ['nowhere', '', null],
  ])('%s', (_, head, found) => expect(modifiedOf(head)).toBe(found));
});
