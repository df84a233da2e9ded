import { defineConfig } from 'vitest/config';
import { alias } from './alias.config.ts';

const project = (name: string, include: string[], slow = false) => ({
  resolve: { alias },
  test: {
    name,
    include,
    environment: 'node' as const,
    // A hang must end the run; nothing is measured by these limits.
    testTimeout: slow ? 180_000 : 60_000,
    hookTimeout: slow ? 180_000 : 60_000,
    fileParallelism: !slow,
  },
});

export default defineConfig({
  test: {
    projects: [
      project('unit', ['src/{core,lib}/**/*.test.ts', 'demo/**/*.test.ts']),
      project('database', ['src/{server,crawl,cli}/**/*.test.ts'], true),
      project('whole', ['tests/**/*.test.ts'], true),
    ],
  },
});
