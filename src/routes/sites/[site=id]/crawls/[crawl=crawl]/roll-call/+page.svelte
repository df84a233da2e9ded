<script lang="ts">
  import { goto } from '$app/navigation';
  import { page } from '$app/state';
  import Picture from '$lib/charts/Picture.svelte';
  import PictureTabs from '$lib/charts/PictureTabs.svelte';
  import Agreement from '$lib/rollCall/Agreement.svelte';
  import Folders from '$lib/rollCall/Folders.svelte';
  import ImportDialog from '$lib/rollCall/ImportDialog.svelte';
  import Sitemaps from '$lib/rollCall/Sitemaps.svelte';
  import SourceTable from '$lib/rollCall/SourceTable.svelte';
  import { orders, sourcesText } from '$lib/rollCall/sources';
  import type { Order } from '$lib/rollCall/sources';
  import { texts } from '$lib/rollCall/texts';
  import { screenState, withState } from '$lib/shell/address';
  import type { ScreenState } from '$lib/shell/address';
  import Answer from '$lib/shell/Answer.svelte';
  import Remark from '$lib/shell/Remark.svelte';
  import { crawlPath, picturesOf } from '$lib/shell/routes';
  import { shortAddress } from '$lib/shell/words';
  import Workspace from '$lib/shell/Workspace.svelte';

  let { data } = $props();
  const view = $derived(screenState(page.url));
  const base = $derived(crawlPath(data.site.id, data.crawl.id, data.crawl.version));
  const host = $derived(new URL(data.site.start).host);
  const href = (select: string) => withState(page.url, { list: 'pages', select });
  const show = (changes: Partial<ScreenState>) =>
    goto(withState(page.url, changes), { keepFocus: true, noScroll: true });

  const chosen = $derived(
    data.sources.flatMap(({ name, urls, isChosen }, at) => (isChosen ? [{ name, urls, at }] : [])),
  );
  const order = $derived<Order>(orders.find((one) => one === view.order) ?? 'urls');
  const rows = $derived(
    [...data.rows].sort((a, b) =>
      order === 'indexable' ? b.indexable / b.urls - a.indexable / a.urls : b[order] - a[order],
    ),
  );
  let dialog: ReturnType<typeof ImportDialog>;
  let isUnknownShown = $state(false);
</script>

<svelte:head><title>{texts.pageTitle(host)}</title></svelte:head>
<svelte:window
  ondragover={(event) => event.preventDefault()}
  ondrop={(event) => {
    event.preventDefault();
    const file = event.dataTransfer?.files[0];
    if (file) dialog.open(file);
  }}
/>
<ImportDialog bind:this={dialog} site={data.site.id} />
<Workspace {base} site={data.site} data={data.list}>
  <Answer pieces={data.answer} {href} />
  <Remark {base} crawl={data.crawl} />
  <div class="mt-2 flex shrink-0 gap-3">
    <section class="panel flex min-w-0 flex-1 flex-col px-2 pt-1.5 pb-1" aria-label={texts.picture}>
      <div class="flex flex-wrap items-center gap-x-3 gap-y-1 pr-14 pb-1 text-xs">
        <PictureTabs
          pictures={picturesOf('roll-call')}
          picture={view.picture}
          onpick={(picture) => show({ picture })}
        />
        {#if view.picture === ''}
          <label class="quiet flex items-center gap-1.5"
            >{texts.order}
            <select
              class="select select-xs w-auto text-base-content"
              value={order}
              onchange={({ currentTarget }) =>
                show({ order: currentTarget.value === 'urls' ? '' : currentTarget.value })}
            >
              {#each orders as one (one)}<option value={one}>{texts.orders[one]}</option>{/each}
            </select></label
          >
        {/if}
      </div>
      {#if view.picture === 'sitemaps'}
        <div class="max-h-68 overflow-y-auto px-2">
          <Sitemaps
            files={data.sitemaps ?? []}
            site={data.site.id}
            faults={data.faults}
            {href}
            {base}
            start={data.site.start}
          />
        </div>
      {:else if data.folders}
        <div class="max-h-68 overflow-y-auto">
          <Folders
            rows={data.folders.rows}
            first={data.names[data.folders.first]}
            second={data.names[data.folders.second]}
            {href}
          />
        </div>
      {:else if rows.length === 0}
        <p class="quiet p-4">{texts.noCombination}</p>
      {:else}
        <Picture
          name="agreement"
          table={() => [
            ['sources', 'urls', 'indexable', 'hits'],
            ...rows.map(({ sources, urls, indexable, hits }) => [
              sources.map((at) => data.names[at]).join('+'),
              urls,
              indexable,
              hits,
            ]),
          ]}
        >
          <div class="max-h-68 overflow-y-auto">
            <Agreement
              sources={chosen}
              {rows}
              names={data.names}
              select={view.select}
              onpick={(select) => show({ list: 'pages', select })}
            />
          </div>
        </Picture>
      {/if}
      {#if data.unknown.total && view.picture !== 'sitemaps'}
        <form
          method="post"
          action="?/fetch"
          class="flex flex-wrap items-baseline gap-x-3 border-t border-base-300/60 px-2 py-1"
        >
          <span class="lost">{texts.unknownAddresses(data.unknown.total)}</span>
          <button
            type="button"
            class="text-primary hover:underline"
            aria-expanded={isUnknownShown}
            onclick={() => (isUnknownShown = !isUnknownShown)}>{texts.showThem}</button
          >
          {#if data.hasEnded}
            <button class="text-primary hover:underline" title={texts.fetchThemMeans}>{texts.fetchThem}</button>
          {/if}
          {#if data.unknown.errors}<span class="quiet text-xs">{texts.onlyErrors(data.unknown.errors)}</span>{/if}
          {#if isUnknownShown}
            <ul class="max-h-28 w-full overflow-y-auto font-mono text-xs">
              {#each data.unknown.first as address (address)}
                <li class="truncate" title={address}>{shortAddress(address, data.site.start)}</li>
              {/each}
              {#if data.unknown.total > data.unknown.first.length}
                <li class="quiet font-sans">{texts.andMore(data.unknown.total - data.unknown.first.length)}</li>
              {/if}
            </ul>
          {/if}
        </form>
      {/if}
    </section>
    <SourceTable
      site={data.site.id}
      sources={data.sources}
      earlier={data.earlier}
      onchoose={(names) => show({ sources: names.length === data.sources.length ? '' : sourcesText(names) })}
      onimport={() => dialog.choose()}
    />
  </div>
</Workspace>
