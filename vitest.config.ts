import { defineConfig } from 'vitest/config';
import { alias } from './alias.config.ts';

const project = (name: string, include: string[], limit: number) => ({
  resolve: { alias },
  test: {
    name,
    include,
    environment: 'node' as const,
    // A hang must end the run; nothing is measured by these limits.
    testTimeout: limit,
    hookTimeout: limit,
  },
});

export default defineConfig({
  test: {
    // Files run side by side: each has a database, a website and ports of its own.
    maxWorkers: 2,
    projects: [
      project('unit', ['src/{core,lib}/**/*.test.ts', 'demo/**/*.test.ts'], 60_000),
      project('database', ['src/{server,crawl,cli}/**/*.test.ts'], 180_000),
      project('whole', ['tests/**/*.test.ts'], 180_000),
    ],
  },
});
