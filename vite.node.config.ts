/**
 * Builds what runs outside the web application, a program a mode: the command line, the threads of its worker, and the
 * demo website.
 */
import { defineConfig } from 'vite';
import { alias } from './alias.config.ts';

const entries: Record<string, string> = {
  main: 'src/cli/main.ts',
  parserThread: 'src/crawl/parserThread.ts',
  baseThread: 'src/crawl/baseThread.ts',
  analysisThread: 'src/crawl/analysisThread.ts',
  zstdThread: 'src/crawl/zstdThread.ts',
  importThread: 'src/server/imports/importThread.ts',
  watchdogThread: 'src/cli/watchdogThread.ts',
  demo: 'demo/main.ts',
};

export default defineConfig(({ mode }) => ({
  resolve: { alias },
  // Everything in few files: finding and reading two hundred small ones takes longer than a small crawl.
  ssr: { noExternal: true },
  build: {
    ssr: true,
    outDir: 'build-node',
    emptyOutDir: false,
    target: 'node20',
    // Reading the file is a quarter of the start of a command.
    minify: true,
    rollupOptions: {
      input: { [mode]: entries[mode] },
      // What a command does is in files of its own, which help and a check of a call do not read.
      output: { format: 'cjs', entryFileNames: '[name].cjs', chunkFileNames: `${mode}-[name].cjs` },
      // A pool of threads starts its threads from files of its own.
      external: (id) => id === 'piscina' || id.includes('/build/handler.js'),
    },
  },
}));
