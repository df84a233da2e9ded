<script lang="ts">
  import { goto } from '$app/navigation';
  import { page } from '$app/state';
  import { screenState, withState } from '$lib/shell/address';
  import type { ScreenState } from '$lib/shell/address';
  import PictureTabs from '$lib/charts/PictureTabs.svelte';
  import MapPicture from '$lib/maps/MapPicture.svelte';
  import { texts } from '$lib/maps/texts';
  import Remark from '$lib/shell/Remark.svelte';
  import { crawlPath, picturesOf } from '$lib/shell/routes';
  import Workspace from '$lib/shell/Workspace.svelte';

  let { data } = $props();
  const view = $derived(screenState(page.url));
  const base = $derived(crawlPath(data.site.id, data.crawl.id, data.crawl.version));
  const host = $derived(new URL(data.site.start).host);
  const findings = $derived(data.findings.filter(({ over }) => over === 'pages'));
  const hasEarlier = $derived(data.crawls.some(({ id }) => id < data.crawl.id));
  let isFolded = $state(true);
  const show = (changes: Partial<ScreenState>) =>
    goto(withState(page.url, changes), { keepFocus: true, noScroll: true });
</script>

<svelte:head><title>{texts.pageTitle(host)}</title></svelte:head>
<Workspace {base} site={data.site} data={data.list} folded={isFolded}>
  <Remark {base} crawl={data.crawl} />
  {#key base}
    <MapPicture {base} state={view} {findings} {hasEarlier} isTall={isFolded} onstate={show}>
      {#snippet tabs()}
        <PictureTabs
          pictures={picturesOf('maps')}
          picture={view.picture}
          onpick={(picture) => show({ picture, item: '', from: '' })}
        />
      {/snippet}
      {#snippet end()}
        <button type="button" class="text-primary hover:underline" onclick={() => (isFolded = !isFolded)}
          >{isFolded ? texts.showList : texts.hideList}</button
        >
      {/snippet}
    </MapPicture>
  {/key}
</Workspace>
