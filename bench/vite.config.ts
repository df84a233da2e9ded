/** Builds the measurement of the core, which runs outside the application. */
import { defineConfig } from 'vite';
import { alias } from '../alias.config.ts';

export default defineConfig({
  resolve: { alias },
  ssr: { noExternal: true },
  build: {
    ssr: true,
    target: 'node20',
    rollupOptions: {
      // It starts its threads from files of its own.
      external: ['piscina'],
      input: {
        core: 'bench/core.ts',
        coreSite: 'bench/coreSite.ts',
        fuzz: 'bench/fuzz.ts',
        bodies: 'bench/bodies.ts',
        findings: 'bench/findings/main.ts',
        rules: 'bench/rules.ts',
        change: 'bench/change.ts',
        draft: 'bench/draft.ts',
        texts: 'bench/texts.ts',
        maps: 'bench/maps.ts',
      },
    },
  },
});
