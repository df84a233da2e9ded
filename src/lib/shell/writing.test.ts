/**
 * What a person reads is plain, present-day English: turns of phrase that are not, and that crept in before, stay out.
 */
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { parse } from 'svelte/compiler';
import type { AST } from 'svelte/compiler';
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

/** The words that a component holds itself, outside of its expressions: as text, or in attributes that are read. */
function textsOf(source: string): string[] {
  const read = new Set(['title', 'placeholder', 'aria-label', 'label', 'about']);
  const found: string[] = [];
  const visit = (node: unknown, attribute: string | null): void => {
    if (Array.isArray(node)) return node.forEach((one) => visit(one, attribute));
    if (typeof node !== 'object' || node === null) return;
    const { type, name, data } = node as { type?: string; name?: string; data?: string };
    const within = type === 'Attribute' || type === 'StyleDirective' ? name! : attribute;
    if (type === 'Text' && /\p{L}{2}/u.test(data!) && (within === null || read.has(within))) found.push(data!.trim());
    if (type !== 'ExpressionTag') for (const child of Object.values(node)) visit(child, within);
  };
  visit((parse(source, { modern: true }) satisfies AST.Root).fragment, null);
  return found;
}

it.each(files.filter((file) => file.endsWith('.svelte')))('%s takes its texts from the module of its area', (file) => {
  expect(textsOf(readFileSync(file, 'utf8'))).toEqual([]);
});
