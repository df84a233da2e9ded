/** What a person reads is plain, present-day English: turns of phrase that are not, and that crept in before, stay out. */
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { expect, it } from 'vitest';

const banned = [
  /\b(is|are|be|was) mended\b/i,
  /\bmends?\b/i,
  /\bknows? of\b/i,
  /\blet (it|them) go on\b/i,
  /\bby the rules of\b/i,
  /\bwhat came of\b/i,
  /\bcalled so\b/i,
  /\bwith most\b/i,
  /\bplease\b/i,
  /\bastray\b/i,
  /\bupon\b/i,
  /\bhardly any\b/i,
  /\bwhat costs most\b/i,
  /\bwho asks\b/i,
];

/** Comments are for programmers, and are left out. */
const withoutComments = (text: string) =>
  text.replace(/\/\*[\s\S]*?\*\/|<!--[\s\S]*?-->|(^|[\s{])\/\/.*$/gm, (found) => found.replace(/[^\n]/g, ' '));

const folders = ['src/lib', 'src/routes', 'src/core/findings', 'src/core/messages', 'src/core/answers', 'src/cli'];
const files = folders.flatMap((folder) =>
  readdirSync(folder, { recursive: true, encoding: 'utf8' })
    .filter((name) => /\.(svelte|ts)$/.test(name) && !name.endsWith('.test.ts'))
    .map((name) => join(folder, name)),
);

it.each(files)('%s', (file) => {
  const lines = withoutComments(readFileSync(file, 'utf8')).split('\n');
  const found = lines.flatMap((line, i) =>
    banned.filter((turn) => turn.test(line)).map((turn) => `line ${i + 1}, ${turn}: ${line.trim()}`),
  );
  expect(found).toEqual([]);
});
