import { fileURLToPath } from 'node:url';

const folder = (name: string) => fileURLToPath(new URL(`./src/${name}`, import.meta.url));

/** The short names of the source folders, the same as SvelteKit's in svelte.config.js. */
export const alias = {
  $core: folder('core'),
  $crawl: folder('crawl'),
  $server: folder('server'),
  $lib: folder('lib'),
};
