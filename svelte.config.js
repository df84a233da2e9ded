import adapter from '@sveltejs/adapter-node';
import { vitePreprocess } from '@sveltejs/vite-plugin-svelte';

/** @type {import('@sveltejs/kit').Config} */
export default {
  preprocess: vitePreprocess(),
  kit: {
    adapter: adapter({ out: 'build' }),
    alias: { $core: 'src/core', $crawl: 'src/crawl', $server: 'src/server' },
    typescript: {
      config: (config) => {
        config.include.push('../demo/**/*.ts', '../bench/**/*.ts', '../tests/**/*.ts', '../*.config.ts');
      },
    },
  },
};
