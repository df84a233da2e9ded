import { readdirSync, readFileSync } from 'node:fs';
import { expect, it } from 'vitest';

/** The width of the formatter, which leaves prose as it is. */
const WIDTH = 120;

it('docs keep to the width of the code, but for tables and pictures, and what is made of the catalogue of findings', () => {
  const files = [
    ...readdirSync('docs')
      .filter((name) => name.endsWith('.md'))
      .map((name) => `docs/${name}`),
    'README.md',
  ];
  for (const file of files.filter((name) => name !== 'docs/FINDINGS.md')) {
    const lines = readFileSync(file, 'utf8').split('\n');
    const wide = lines.filter((line) => line.length > WIDTH && !/^(\||!\[)/.test(line));
    expect([file, wide]).toEqual([file, []]);
  }
});
