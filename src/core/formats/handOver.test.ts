import { describe, expect, it } from 'vitest';
import { editOf } from '../draft';
import { handOverCsv, handOverMarkdown, redirectsApache, redirectsCsv, redirectsNginx, redirectsOf } from './handOver';

const at = (path: string) => `https://www.larkfield.example${path}`;
const edits = [
  editOf('add_link', at('/trams'), { target: at('/depot'), anchor: 'the *old* depot', placement: 'main' }),
  editOf('redirect', at('/old?line=7'), { target: at('/lines/7') }),
  editOf('reword_link', at('/trams'), { target: at('/shop'), anchor: 'here', value: 'Shop', placement: 'footer' }),
  editOf('move_page', at('/caf%C3%A9'), { target: '/visit/cafe' }),
  editOf('remove_page', at('/gone'), { value: '410' }),
  editOf('remove_page', at('/news'), { value: at('/stories/') }),
];

describe('what a draft hands over', () => {
  it('is a list of work by page, with nothing that Markdown would take for markup', () =>
    expect(handOverMarkdown(edits.slice(0, 3), 'Winter')).toBe(
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
  it('is the same as CSV', () =>
    expect([...handOverCsv(edits)].join('').split('\r\n').slice(0, 2)).toEqual([
      'page,what to do,words,target,placement',
      `${at('/trams')},Add a link “the *old* depot” to ${at('/depot')}.,the *old* depot,${at('/depot')},main`,
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
