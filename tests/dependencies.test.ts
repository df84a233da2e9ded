import { readFileSync } from 'node:fs';
import { expect, it } from 'vitest';

it('every package has its reason in docs/CONTRIBUTING.md', () => {
  const { dependencies, devDependencies } = JSON.parse(readFileSync('package.json', 'utf8')) as Record<string, object>;
  const [, list] = readFileSync('docs/CONTRIBUTING.md', 'utf8').split('## Dependencies');
  const rows = list.matchAll(/^\| (\S+) \| (.+) \|$/gm);
  const reasons = [...rows].map(([, name]) => name).filter((name) => name !== '---' && name !== 'package');
  expect(reasons).toEqual(expect.arrayContaining(Object.keys({ ...dependencies, ...devDependencies })));
  expect(reasons.filter((name) => !(name in { ...dependencies, ...devDependencies }))).toEqual([]);
});
