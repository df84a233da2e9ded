import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { readBlocks, sourceRange } from '.';

const utf8 = new TextEncoder();
const read = (html: string) => readBlocks(utf8.encode(html), 'utf-8');
const told = (html: string) => read(html).blocks.map(({ kind, text }) => [kind, text.replace(/\s+/g, ' ').trim()]);

describe('the blocks of a page', () => {
  it('are those of its main content, each with what it is', () =>
    expect(
      told(`<body><header><p>Larkfield</p></header><main><h1>The depot</h1><nav><a href=/>Home</a></nav>
        <p>It has a <b>glass</b> roof<br>and <img src=x> six tracks.</p><figure><img src=y><figcaption>The roof</figcaption></figure>
        <ul class="toc"><li><a href=#a>Roof</a></ul><table><tr><th>Year<td>1911</table><script>let a;</script></main><p>Outside</p>`),
    ).toEqual([
      ['heading', 'The depot'],
      ['text', 'It has a glass roof'],
      ['text', 'and six tracks.'],
      ['label', 'The roof'],
      ['navigation', 'Roof'],
      ['label', 'Year'],
      ['text', '1911'],
    ]));
  it('stand in no landmark where there is no main element', () =>
    expect(told('<title>T</title><nav>Menu</nav><p>One</p><div>Two</div>')).toEqual([
      ['text', 'One'],
      ['text', 'Two'],
    ]));
  it('tell links and code apart', () => {
    const [block] = read(
      '<p>Call <code>open()</code> or <a href="/x">see <i>this</i></a> now, <a>not</a> that.',
    ).blocks;
    expect(block.runs.map(({ raw, isLink, isCode }) => [raw, isLink, isCode])).toEqual([
      ['Call ', false, false],
      ['open()', false, true],
      [' or ', false, false],
      ['see ', true, false],
      ['this', true, false],
      [' now, ', false, false],
      ['not', false, false],
      [' that.', false, false],
    ]);
  });
});

describe('the place of a text in the source', () => {
  const placeOf = (html: string, words: string) => {
    const { blocks, markup } = read(html);
    const block = blocks.find(({ text }) => text.includes(words));
    const from = block?.text.indexOf(words) ?? 0;
    const range = block && sourceRange(block, from, from + words.length, markup);
    return range && new TextDecoder().decode(utf8.encode(html).slice(...range));
  };
  it.each([
    ['<p>The <b>roof</b> of Lantern Lane</p>', 'Lantern Lane', 'Lantern Lane'],
    ['<p>Café &amp; caf&eacute; &#x1F68B; Lantern &amp; Lane, straße</p>', 'Lantern & Lane', 'Lantern &amp; Lane'],
    ['<p>電車の車庫は大きい</p>', '車庫', '車庫'],
    ['<p>🚋 tram 🚋 depot</p>', 'depot', 'depot'],
    ['<p>Lantern <b>Lane</b></p>', 'Lantern Lane', null],
  ])('in %s of “%s” is %s', (html, words, written) => expect(placeOf(html, words)).toBe(written));
  it('is right for every part of any text', () =>
    fc.assert(
      fc.property(
        fc.array(fc.constantFrom('tram ', '&amp;', '&lt;b&gt;', 'é', '電', '🚋', '<b>', '</b>', '\n', '&nbsp;', '& '), {
          maxLength: 30,
        }),
        fc.nat(40),
        fc.nat(40),
        (parts, at, length) => {
          const html = `<p>x${parts.join('')}</p>`;
          const { blocks, markup } = read(html);
          const [{ text, runs }] = blocks;
          const from = Math.min(at, text.length);
          const to = Math.min(text.length, from + 1 + length);
          const range = sourceRange(blocks[0], from, to, markup);
          const isInOne = runs.some(
            (run) => run.from <= from && runs.every((one) => one.from <= run.from || one.from >= to),
          );
          const cutsChar = [from, to].some((place) => (text.charCodeAt(place) & 0xfc00) === 0xdc00);
          if (range === null) expect(cutsChar || !isInOne || to <= from).toBe(true);
          else expect(markup.binary.slice(...range)).not.toContain('<');
        },
      ),
    ));
});
