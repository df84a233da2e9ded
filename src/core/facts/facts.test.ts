import { readFileSync, writeFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { changeFacts, linkChangeFacts, linkFacts, pageFacts } from '.';
import type { Fact } from '.';

const MEANINGS = 'docs/MEANINGS.md';
const [BEGIN, END] = ['<!-- facts: made of src/core/facts -->\n', '<!-- end of facts -->'];

const rowOf = ([name, fact]: [string, Pick<Fact, 'type' | 'unit' | 'label' | 'meaning' | 'values'>]) => {
  const kind = fact.values ? fact.values.map((value) => `\`${value}\``).join(', ') : (fact.unit ?? fact.type);
  return `| \`${name}\` | ${fact.label} | ${kind} | ${fact.meaning} |`;
};
const tableOf = (title: string, facts: object) =>
  `### ${title}\n\n| fact | label | kind, unit or values | meaning |\n| --- | --- | --- | --- |\n${Object.entries(facts)
    .map((entry) => rowOf(entry as Parameters<typeof rowOf>[0]))
    .join('\n')}\n`;

describe('the table of facts', () => {
  it('is what docs/MEANINGS.md lists; UPDATE_DOCS=1 writes it there', () => {
    const text = readFileSync(MEANINGS, 'utf8');
    const [from, to] = [text.indexOf(BEGIN) + BEGIN.length, text.indexOf(END)];
    const list = `\n${tableOf('Of pages', pageFacts)}\n${tableOf('Of links', linkFacts)}\n${tableOf('Of change', changeFacts)}\n${tableOf('Of links that changed', linkChangeFacts)}\n`;
    if (process.env.UPDATE_DOCS) writeFileSync(MEANINGS, text.slice(0, from) + list + text.slice(to));
    else expect(text.slice(from, to)).toBe(list);
  });
  it('says in one line what each fact means, and how it is sorted', () => {
    for (const [name, { label, meaning, sort }] of Object.entries<Fact>(pageFacts)) {
      expect([name, label.length > 0, /^[^\n]+[.?]$/.test(meaning)]).toEqual([name, true, true]);
      expect(['low', 'high', 'none']).toContain(sort);
    }
  });
  it('bounds every text', () => {
    for (const [name, { type, from, limit, values }] of Object.entries<Fact>(pageFacts))
      if (type === 'text' && from === 'base' && !values) expect([name, (limit ?? 0) > 0]).toEqual([name, true]);
  });
});
