import { parse } from 'csv-parse/sync';
import { describe, expect, it } from 'vitest';
import { tiny, TINY_START, tinySite } from '../testing/tinySite';
import { answerSheetMarkdown, ruleTables } from './rules';

const naming = (to: string) => ({
  canonical: tiny(to),
  declared: [['canonical', tiny(to)]] as [['canonical', string]],
});
const site = tinySite({
  '/': { ...naming('/'), links: ['/visit', '/visit/', '/print'] },
  '/visit': {},
  '/visit/': {},
  '/print': { ...naming('/'), pageRules: 'all noindex meta', robots: 'noindex' },
  '/de/': { declared: [['hreflang', '/']] },
});
const table = (name: string) => parse([...ruleTables(site, TINY_START)[name]].join(''), { columns: true }) as object[];

describe('the tables about rules', () => {
  it('have a row for each page with a canonical, and one for each without', () => {
    expect(table('canonicals.csv')).toContainEqual(
      expect.objectContaining({ url: tiny('/print'), canonical: tiny('/'), outcome: 'other', cluster: tiny('/') }),
    );
    expect(table('canonicals.csv')).toContainEqual(
      expect.objectContaining({ url: tiny('/visit'), outcome: 'missing' }),
    );
  });
  it('have addresses of one page in one group', () => {
    const group = table('variants.csv').filter((row) => 'group' in row && row.group === '1');
    expect(group).toEqual([
      expect.objectContaining({ url: tiny('/visit'), differs_in: 'slash', settles_on: '' }),
      expect.objectContaining({ url: tiny('/visit/'), differs_in: 'slash', settles_on: '' }),
    ]);
  });
  it('answer each question in a row, in CSV as in Markdown', () => {
    const rows = table('answer_sheet.csv') as { question: string; answer: string }[];
    const text = answerSheetMarkdown(site, TINY_START);
    expect(text).toMatch(/^# tiny\.example\n\n\| Question \| Answer \| Number \| Example \|\n\| --- /);
    for (const { question, answer } of rows) expect(text).toContain(`| ${question} | ${answer} |`);
  });
});
