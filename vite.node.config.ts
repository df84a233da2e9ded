/** Builds what runs outside the web application: the command line with its worker, and the demo website. */
import { defineConfig } from 'vite';
import { alias } from './alias.config.ts';

export default defineConfig({
  resolve: { alias },
  // Everything in one file: finding and reading two hundred small ones takes longer than a small crawl.
  ssr: { noExternal: true },
  build: {
    ssr: true,
    outDir: 'build-node',
    target: 'node20',
    // Reading the file is a quarter of the start of a command.
    minify: true,
    rollupOptions: {
      input: { main: 'src/cli/main.ts', demo: 'demo/main.ts', readerThread: 'src/crawl/readerThread.ts' },
      // Only of scripts, not of modules, can V8 keep what it has compiled (src/cli/start.cjs).
      output: { format: 'cjs', entryFileNames: '[name].cjs', chunkFileNames: '[name]-[hash].cjs' },
      external: (id) => id.includes('/build/handler.js'),
    },
  },
});
