<script lang="ts">
  import { goto } from '$app/navigation';
  import { page } from '$app/state';
  import { screenState, withState } from '$lib/shell/address';
  import type { ScreenState } from '$lib/shell/address';
  import Dossier from '$lib/dossier/Dossier.svelte';
  import { crawlPath } from '$lib/shell/routes';
  import { shortAddress } from '$lib/shell/words';
  import { texts } from '$lib/shell/texts';

  let { data } = $props();
  const view = $derived(screenState(page.url));
  const base = $derived(crawlPath(data.site.id, data.crawl.id, data.crawl.version));
  /** Lists are looked at on the screens that have one. */
  const hrefOf = (changes: Partial<ScreenState>) =>
    withState(page.url, changes, 'list' in changes ? `${base}/flow` : page.url.pathname);
</script>

<svelte:head><title>{texts.pageTitle(shortAddress(view.page, data.site.start))}</title></svelte:head>
<main class="flex min-w-0 flex-1">
  <Dossier
    {base}
    site={data.site}
    state={view}
    wide
    onstate={(changes) => goto(withState(page.url, changes))}
    {hrefOf}
  />
</main>
