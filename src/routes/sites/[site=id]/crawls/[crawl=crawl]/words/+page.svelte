<script lang="ts">
  import { goto, invalidateAll } from '$app/navigation';
  import { page } from '$app/state';
  import { quote } from '$core/selection/language';
  import PictureTabs from '$lib/charts/PictureTabs.svelte';
  import NeedList from '$lib/places/NeedList.svelte';
  import PlaceList from '$lib/places/PlaceList.svelte';
  import { texts as placeTexts } from '$lib/places/texts';
  import { screenState, withState } from '$lib/shell/address';
  import type { ScreenState } from '$lib/shell/address';
  import Answer from '$lib/shell/Answer.svelte';
  import { crawlPath, picturesOf } from '$lib/shell/routes';
  import MoveTable from '$lib/wordings/MoveTable.svelte';
  import TargetList from '$lib/wordings/TargetList.svelte';
  import { texts } from '$lib/wordings/texts';
  import WordingTable from '$lib/wordings/WordingTable.svelte';

  let { data } = $props();
  const view = $derived(screenState(page.url));
  const base = $derived(crawlPath(data.site.id, data.crawl.id, data.crawl.version));
  const { start } = $derived(data.site);
  const show = (changes: Partial<ScreenState>) =>
    goto(withState(page.url, changes), { keepFocus: true, noScroll: true });
  const hrefOf = (address: string, at = '') =>
    `${base}/flow?${new URLSearchParams({ page: address, ...(at && { part: 'source', at }) })}`;
  const hrefOfLinks = (target: string) => (anchor: string) =>
    `${base}/flow?${new URLSearchParams({
      list: 'edits',
      select: `kind = click and target = ${quote(target)} and anchor = ${quote(anchor)}`,
    })}`;
  const place = $derived(data.draft ? { site: data.site, crawl: data.crawl, draft: data.draft } : null);
  const target = $derived(data.need.pages.find(({ address }) => address === view.item) ?? data.need.pages[0]);

  const INDEX_MS = 1500;
  $effect(() => {
    if (data.isIndexed) return;
    const timer = setTimeout(() => void invalidateAll(), INDEX_MS);
    return () => clearTimeout(timer);
  });

  function next() {
    const pages: readonly { address: string }[] = view.picture === 'places' ? data.need.pages : data.targets.pages;
    const shown = view.picture === 'places' ? target?.address : data.shown?.address;
    const at = pages.findIndex(({ address }) => address === shown);
    if (pages.length) void show({ item: pages[(at + 1) % pages.length].address });
  }
  function want(wanted: number) {
    const url = new URL(page.url);
    url.searchParams.set('wanted', String(wanted));
    void goto(url, { keepFocus: true, noScroll: true });
  }
</script>

<svelte:head><title>{texts.pageTitle(new URL(start).host)}</title></svelte:head>
<main class="flex min-h-0 min-w-0 flex-1 flex-col px-4 pt-3 pb-4">
  <Answer pieces={data.answer} href={(select) => `${base}/reach?${new URLSearchParams({ select })}`} />
  <div class="mt-2.5 flex flex-wrap items-center gap-3 text-xs">
    <PictureTabs
      pictures={picturesOf('words')}
      picture={view.picture}
      onpick={(picture) => show({ picture, item: '' })}
    />
    {#if !data.isIndexed}
      <span class="quiet" role="status"
        >{placeTexts.indexing}
        {data.progress?.steps ? placeTexts.indexed(data.progress.stepsDone, data.progress.steps) : ''}</span
      >
    {/if}
  </div>
  <div class="mt-2.5 grid min-h-0 flex-1 grid-cols-[minmax(15rem,22rem)_minmax(0,1fr)] gap-3">
    {#if view.picture === 'places'}
      <NeedList
        need={data.need}
        wanted={data.wanted}
        {start}
        shown={target?.address ?? ''}
        href={(item) => withState(page.url, { item })}
        onwanted={want}
      />
      {#if target && data.isIndexed}
        <PlaceList {base} site={data.site} {place} {target} {hrefOf} onnext={next} />
      {/if}
    {:else}
      <TargetList
        targets={data.targets}
        {start}
        shown={data.shown?.address ?? ''}
        href={(item) => withState(page.url, { item })}
        order={view.picture === 'moves' ? texts.orderOfMoves : texts.order}
        none={view.picture === 'moves' ? texts.noMoves : texts.noTargets}
      />
      {#if data.shown && view.picture === 'moves'}
        <MoveTable
          shown={data.shown}
          site={data.site}
          {place}
          {hrefOf}
          hrefOfLinks={hrefOfLinks(data.shown.address)}
          onnext={next}
        />
      {:else if data.shown}
        <WordingTable shown={data.shown} {start} {hrefOf} hrefOfLinks={hrefOfLinks(data.shown.address)} />
      {/if}
    {/if}
  </div>
</main>
