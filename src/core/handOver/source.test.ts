import { execFileSync } from 'node:child_process';
import { mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { editOf } from '../draft';
import type { Edit } from '../draft';
import { scopeOf } from '../scope';
import { settingsSchema } from '../settings';
import { unifiedDiff } from './diff';
import { editSource } from './source';

const at = (path: string) => `https://www.larkfield.example${path}`;
const scope = scopeOf(settingsSchema.parse({ start: at('/') }));
const page = `<!doctype html>
<html>
  <head>
    <title>Trams</title>
    <meta name="robots" content="noarchive">
  </head>
  <body>
    <nav>
      <ul>
        <li><a href="/">Home</a></li>
        <li><a href="/shop">Shop</a></li>
      </ul>
    </nav>
    <main>
      <h1>Trams</h1>
      <p>Our trams run from the <a href="/depot">old <b>depot</b></a> to the café by the harbour.</p>
    </main>
  </body>
</html>
`;
const edit = (edits: Edit[], source = page) =>
  editSource({ address: at('/trams/'), bytes: new TextEncoder().encode(source), charset: undefined }, edits, scope);
/** The lines that differ. */
const changed = (one: Edit, source = page) => {
  const { source: text, edits } = edit([one], source);
  expect(edits[0].placed).toBe(true);
  const before = text!.before.split('\n');
  return text!.after
    .split('\n')
    .filter((line) => !before.includes(line))
    .map((line) => line.trim());
};
const link = (path: string, rest: Partial<Edit>) => ({ target: at(path), ...rest });

describe('an edit in the source of its page', () => {
  it('puts a link on words that stand in the text once', () =>
    expect(changed(editOf('add_link', at('/trams/'), link('/café?a=1&b=2', { anchor: 'café' })))).toEqual([
      '<p>Our trams run from the <a href="/depot">old <b>depot</b></a> to the <a href="/caf%C3%A9?a=1&amp;b=2">café</a> by the harbour.</p>',
    ]));
  it.each([
    ['Ask (in-memory) & for Lane’s [old] price: $5 + 1.', 'in-memory', '<a href="/lines">in-memory</a>'],
    [
      'Ask (in-memory) & for Lane’s [old] price: $5 + 1.',
      'Lane’s [old] price: $5 +',
      'Lane’s [old] price: $5 +</a> 1.',
    ],
  ])('puts a link on the words of the sentence “%s” that it names: %s', (sentence, anchor, made) => {
    const body = `<p>Of in-memory and Lane’s things.</p><p>${sentence.replace('&', '&amp;')} The end of Lane’s.</p>`;
    const source = page.replace('<h1>Trams</h1>', body);
    const add = editOf('add_link', at('/trams/'), link('/lines', { anchor, placement: 'main', value: sentence }));
    const lines = changed(add, source).join('');
    expect(lines).toContain(made);
    expect(lines.indexOf('<a href="/lines">')).toBeGreaterThan(lines.indexOf('Ask ('));
  });
  it('leaves a link in a sentence that is gone to a person', () => {
    const gone = link('/lines', { anchor: 'café', placement: 'main', value: 'A café was here.' });
    expect(edit([editOf('add_link', at('/trams/'), gone)]).edits[0].placed).toBe(false);
  });
  it('puts a link at the end of the content where its words stand nowhere, or in a heading', () => {
    const add = (anchor: string) => changed(editOf('add_link', at('/trams/'), link('/lines', { anchor })));
    expect(add('All lines & stops')).toEqual(['<p><a href="/lines">All lines &amp; stops</a></p>']);
    expect(add('Trams')).toEqual(['<p><a href="/lines">Trams</a></p>']);
    expect(add('cafe')).toEqual(['<p><a href="/lines">cafe</a></p>']);
  });
  it('puts a link at the end of a page that has no main element', () => {
    const plain = '<html>\n<body>\nOld trams.\n</body>\n</html>\n';
    const add = editOf('add_link', at('/trams/'), link('/lines', { anchor: 'All lines' }));
    expect(changed(add, plain)).toEqual(['<p><a href="/lines">All lines</a></p>']);
  });
  it('removes a link and leaves its words, but not an item that would be empty', () => {
    expect(changed(editOf('remove_link', at('/trams/'), link('/depot', {})))).toEqual([
      '<p>Our trams run from the old <b>depot</b> to the café by the harbour.</p>',
    ]);
    expect(edit([editOf('remove_link', at('/trams/'), link('/shop', {}))]).source!.after).toBe(
      page.replace('\n        <li><a href="/shop">Shop</a></li>', ''),
    );
  });
  it('rewords a link, and changes where it leads', () => {
    expect(changed(editOf('reword_link', at('/trams/'), link('/shop', { value: 'Gifts' })))).toEqual([
      '<li><a href="/shop">Gifts</a></li>',
    ]);
    expect(changed(editOf('retarget_link', at('/trams/'), link('/shop', { value: at('/gifts/') })))).toEqual([
      '<li><a href="/gifts/">Shop</a></li>',
    ]);
  });
  it('does not reword a link of which it cannot tell the words', () =>
    expect(edit([editOf('reword_link', at('/trams/'), link('/depot', { value: 'sheds' }))]).edits[0].placed).toBe(
      false,
    ));
  it('sets what the page says to crawlers', () => {
    expect(changed(editOf('noindex', at('/trams/')))).toEqual(['<meta name="robots" content="noarchive, noindex">']);
    const plain = page.replace(/ {4}<meta.*\n/, '');
    expect(changed(editOf('nofollow', at('/trams/')), plain)).toEqual(['<meta name="robots" content="nofollow">']);
    const closed = page.replace('noarchive', 'none');
    expect(changed(editOf('index', at('/trams/')), closed)).toEqual(['<meta name="robots" content="nofollow">']);
    const open = page.replace('noarchive', 'Index, follow');
    expect(changed(editOf('noindex', at('/trams/')), open)).toEqual(['<meta name="robots" content="follow, noindex">']);
    expect(changed(editOf('canonical', at('/trams/'), { target: at('/lines/') }))).toEqual([
      `<link rel="canonical" href="${at('/lines/')}">`,
    ]);
  });
  it('is told with the sentence that it is about, before and after', () => {
    const [removed, reworded, added] = edit([
      editOf('remove_link', at('/trams/'), link('/depot', {})),
      editOf('reword_link', at('/trams/'), link('/shop', { value: 'Gifts' })),
      editOf('add_link', at('/trams/'), link('/cafe', { anchor: 'café by' })),
    ]).edits;
    const sentence = { before: 'Our trams run from the ', words: 'old depot', after: ' to the café by the harbour.' };
    expect(removed).toEqual({ before: sentence, after: null, placed: true });
    expect(reworded.after).toEqual({ before: '', words: 'Gifts', after: '' });
    expect(added.after).toEqual({
      before: 'Our trams run from the old depot to the ',
      words: 'café by',
      after: ' the harbour.',
    });
  });
  it('is not made in a place that another edit has changed', () => {
    const twice = [
      editOf('remove_link', at('/trams/'), link('/shop', {})),
      editOf('reword_link', at('/trams/'), link('/shop', { value: 'Gifts' })),
    ];
    expect(edit(twice).edits.map(({ placed }) => placed)).toEqual([true, false]);
  });
  it('is left to a person where the page is not in UTF-8', () => {
    const bytes = Uint8Array.from('<main><p>caf\xe9 a</p></main>', (char) => char.charCodeAt(0));
    expect(
      editSource({ address: at('/'), bytes, charset: 'windows-1252' }, [editOf('noindex', at('/'))], scope).source,
    ).toBeNull();
  });
});

it('the diff of edited pages applies with git, in the files of a static website', () => {
  const folder = mkdtempSync(join(tmpdir(), 'diff-'));
  try {
    mkdirSync(join(folder, 'trams'));
    writeFileSync(join(folder, 'trams/index.html'), page);
    const { source } = edit([
      editOf('remove_link', at('/trams/'), link('/shop', {})),
      editOf('add_link', at('/trams/'), link('/lines', { anchor: 'All lines' })),
      editOf('noindex', at('/trams/')),
    ]);
    execFileSync('git', ['apply', '-'], { cwd: folder, input: unifiedDiff([{ address: at('/trams/'), ...source! }]) });
    expect(readFileSync(join(folder, 'trams/index.html'), 'utf8')).toBe(source!.after);
    expect(source!.after).not.toBe(page);
  } finally {
    rmSync(folder, { recursive: true });
  }
});
