import adapter from '@sveltejs/adapter-node';
import { vitePreprocess } from '@sveltejs/vite-plugin-svelte';

/** @type {import('@sveltejs/kit').Config} */
export default {
  preprocess: vitePreprocess(),
  kit: {
    adapter: adapter({ out: 'build' }),
    // Scripts of ours only, by nonce; styles are written into elements by charts and transitions.
    csp: {
      mode: 'nonce',
      directives: {
        'default-src': ['self'],
        'script-src': ['self'],
        'style-src': ['self', 'unsafe-inline'],
        'img-src': ['self', 'data:', 'blob:'],
        'font-src': ['self', 'data:'],
        'object-src': ['none'],
        'base-uri': ['self'],
        'form-action': ['self'],
        'frame-ancestors': ['none'],
      },
    },
    alias: { $core: 'src/core', $crawl: 'src/crawl', $server: 'src/server' },
    typescript: {
      config: (config) => {
        config.include.push('../demo/**/*.ts', '../bench/**/*.ts', '../tests/**/*.ts', '../*.config.ts');
      },
    },
  },
};
