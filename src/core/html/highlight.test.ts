import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { sourceSpans } from './highlight';

const parts = (html: string) => sourceSpans(html).map(({ from, to, part }) => `${part} ${html.slice(from, to)}`);

describe('the colours of a source', () => {
  it('tell tags, attributes, values and references from text', () =>
    expect(parts('<p class="big" hidden>Trams &amp; buses</p>')).toEqual([
      ...[
        'tag <p',
        'attribute class',
        'value "big"',
        'attribute hidden',
        'tag >',
        'reference &amp;',
        'tag </p',
        'tag >',
      ],
    ]));
  it('know comments, declarations, and what scripts hold', () =>
    expect(parts('<!doctype html><!-- <a> --><script>if (a<b) "</p>"</script><br/>')).toEqual([
      ...['declaration <!doctype html>', 'comment <!-- <a> -->', 'tag <script', 'tag >', 'raw if (a<b) "</p>"'],
      ...['tag </script', 'tag >', 'tag <br', 'tag >'],
    ]));
  it('end at the end of a document that is cut off', () => {
    expect(parts('<a href="/tra')).toEqual(['tag <a', 'attribute href', 'value "/tra']);
    expect(parts('<!-- never closed')).toEqual(['comment <!-- never closed']);
    expect(parts('3 < 4 &')).toEqual([]);
  });
  it('are in order, and none within another, whatever the document is', () => {
    const piece = fc.constantFrom('<', '>', '/', '"', "'", '=', '&', ';', '!--', '-->', 'a', ' ', 'script', 'é', '\n');
    fc.assert(
      fc.property(fc.array(piece, { maxLength: 80 }), (pieces) => {
        const html = pieces.join('');
        let at = 0;
        for (const { from, to } of sourceSpans(html)) {
          expect(from).toBeGreaterThanOrEqual(at);
          expect(to).toBeGreaterThan(from);
          at = to;
        }
        expect(at).toBeLessThanOrEqual(html.length);
      }),
    );
  });
});
