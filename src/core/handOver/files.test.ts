import { describe, expect, it } from 'vitest';
import { editOf } from '../draft';
import type { Edit } from '../draft';
import {
  bySource,
  handOverCsv,
  handOverHtml,
  handOverMarkdown,
  redirectsApache,
  redirectsCsv,
  redirectsNginx,
  redirectsOf,
} from './files';

const at = (path: string) => `https://www.larkfield.example${path}`;
const edits = [
  editOf('add_link', at('/trams'), { target: at('/depot'), anchor: 'the *old* depot', placement: 'main' }),
  editOf('redirect', at('/old?line=7'), { target: at('/lines/7') }),
  editOf('reword_link', at('/trams'), { target: at('/shop'), anchor: 'here', value: 'Shop', placement: 'footer' }),
  editOf('move_page', at('/caf%C3%A9'), { target: '/visit/cafe' }),
  editOf('remove_page', at('/gone'), { value: '410' }),
  editOf('remove_page', at('/news'), { value: at('/stories/') }),
];

const pagesOf = (some: Edit[]) =>
  [...bySource(some)].map(([source, own]) => ({ source, example: null, editAt: null, note: '', edits: own }));

describe('what a draft hands over', () => {
  it('is a list of work by page, with nothing that Markdown would take for markup', () =>
    expect(handOverMarkdown(pagesOf(edits.slice(0, 3)), 'Winter')).toBe(
      [
        '# Winter',
        '',
        '## https://www.larkfield.example/trams',
        '',
        '- [ ] Add a link “the \\*old\\* depot” to https://www.larkfield.example/depot.',
        '- [ ] Change the words of the link “here” to https://www.larkfield.example/shop in the footer to “Shop”.',
        '',
        '## https://www.larkfield.example/old?line=7',
        '',
        '- [ ] Redirect to https://www.larkfield.example/lines/7 (301).',
        '',
      ].join('\n'),
    ));
  it('has the sentences before and after, and where the page is edited', () => {
    const block = (words: string) => ({ before: 'From the ', words, after: ' to the *harbour*.' });
    const [edit] = edits;
    const page = {
      source: edit.source,
      example: null,
      editAt: 'https://cms.larkfield.example/7',
      note: 'Ask the depot.',
    };
    const text = handOverMarkdown(
      [{ ...page, edits: [{ ...edit, before: block('depot'), after: block('sheds'), placed: true }] }],
      'Winter',
    );
    expect(text.split('\n').slice(4)).toEqual([
      'Edit: <https://cms.larkfield.example/7>',
      '',
      'Ask the depot.',
      '',
      expect.stringMatching(/^- \[ \] Add a link/),
      '  - before: From the **depot** to the \\*harbour\\*.',
      '  - after: From the **sheds** to the \\*harbour\\*.',
      '',
    ]);
  });
  it('is formatted text, with links and nothing that is markup by accident', () => {
    const html = handOverHtml(pagesOf([editOf('add_page', at('/new'), { value: '<b>Lines & stops' })]), 'Winter');
    expect(html).toBe(
      `<h1>Winter</h1><h2><a href="${at('/new')}">${at('/new')}</a></h2>` +
        '<ul><li>Create this page with the title “&lt;b&gt;Lines &amp; stops”.</li></ul>',
    );
  });
  it('is the same as CSV', () =>
    expect([...handOverCsv(pagesOf(edits))].join('').split('\r\n').slice(0, 2)).toEqual([
      'page,edit at,what to do,words,target,placement,before,after',
      `${at('/trams')},,Add a link “the *old* depot” to ${at('/depot')}.,the *old* depot,${at('/depot')},main,,`,
    ]));
});

describe('redirects', () => {
  const redirects = redirectsOf(edits);
  it('are those of pages that redirect, move, or are removed for another one', () =>
    expect([...redirectsCsv(redirects)].join('').trim().split('\r\n')).toEqual([
      'from,to',
      `${at('/old?line=7')},${at('/lines/7')}`,
      `${at('/caf%C3%A9')},${at('/visit/cafe')}`,
      `${at('/news')},${at('/stories/')}`,
    ]));
  it('are a map by path and query for nginx', () =>
    expect(redirectsNginx(redirects)).toContain(`  "/old?line=7" "${at('/lines/7')}";`));
  it('are rules by decoded path and query for Apache', () => {
    const rules = redirectsApache(redirects);
    expect(rules).toContain('RewriteCond %{REQUEST_URI} "=/old"\nRewriteCond %{QUERY_STRING} "=line=7"\n');
    expect(rules).toContain('RewriteCond %{REQUEST_URI} "=/café"');
  });
});

it('the redirects of a folder are rules for all that is below it', () => {
  const redirects = redirectsOf([editOf('move_page', at('/learn/*'), { target: '/discover/*' })]);
  expect(redirects).toEqual([{ from: at('/learn/*'), to: at('/discover/*') }]);
  expect(redirectsNginx(redirects)).toContain(`  "~^/learn/(?<rest>.*)$" "${at('/discover/')}$rest";`);
  expect(redirectsApache(redirects)).toContain(
    `RewriteCond %{REQUEST_URI} "^/learn/(.*)$"\nRewriteRule ^ "${at('/discover/')}%1"`,
  );
});
