<script lang="ts">
  import { goto } from '$app/navigation';
  import { page } from '$app/state';
  import { verdicts } from '$core/verdict';
  import { screenState, withState } from '$lib/address';
  import type { ScreenState } from '$lib/address';
  import Answer from '$lib/Answer.svelte';
  import DepthChart from '$lib/DepthChart.svelte';
  import { depthsOf, pickDepth } from '$lib/depthSelection';
  import Dossier from '$lib/Dossier.svelte';
  import PageList from '$lib/PageList.svelte';
  import Remark from '$lib/Remark.svelte';
  import { crawlPath } from '$lib/routes';
  import SelectionBar from '$lib/SelectionBar.svelte';
  import VerdictMark from '$lib/VerdictMark.svelte';
  import { verdictLabel } from '$lib/words';

  let { data } = $props();
  const view = $derived(screenState(page.url));
  const base = $derived(crawlPath(data.site.id, data.crawl.id));
  const query = $derived(new URLSearchParams({ select: view.select, sort: view.sort }));
  const picked = $derived(depthsOf(view.select));
  const met = $derived(verdicts.filter((_, v) => data.bars.some(({ byVerdict }) => byVerdict[v] > 0)).reverse());
  const host = $derived(new URL(data.site.start).host);

  const show = (changes: Partial<ScreenState>) =>
    goto(withState(page.url, changes), { keepFocus: true, noScroll: true });

  function onkeydown({ key, target }: KeyboardEvent) {
    const typing = target instanceof Element && target.closest('input, dialog');
    if (key === 'Escape' && view.page && !typing) void show({ page: '' });
  }
</script>

<svelte:head><title>Reach · {host} · Edge Map</title></svelte:head>
<svelte:window {onkeydown} />
<main class="flex min-w-0 flex-1 flex-col px-4 pt-3 pb-3">
  <Answer pieces={data.answer} href={(select) => withState(page.url, { select })} />
  <Remark {base} crawl={data.crawl} />

  <section class="panel mt-2.5 shrink-0 px-2 pt-2 pb-1" aria-label="Picture">
    <div class="flex flex-wrap items-center gap-x-3 gap-y-0.5 px-2 text-xs">
      {#each met as verdict (verdict)}
        <a
          href={withState(page.url, { select: `verdict = ${verdict}` })}
          class="flex items-center gap-1 hover:underline"
        >
          <VerdictMark {verdict} size={11} />{verdictLabel[verdict]}
        </a>
      {/each}
      {#if data.bars.some(({ depth }) => depth === null)}
        <a href={withState(page.url, { select: 'not reached' })} class="lost flex items-center gap-1 hover:underline">
          <VerdictMark verdict="indexable" lost size={11} />No route
        </a>
      {/if}
    </div>
    <DepthChart
      bars={data.bars}
      picked={(depth) => picked.includes(depth)}
      onpick={(depth, add) => show({ select: pickDepth(view.select, depth, add) })}
    />
  </section>

  <section class="panel mt-2.5 flex min-h-0 flex-1 flex-col overflow-hidden" aria-label="Pages">
    <SelectionBar
      select={view.select}
      fault={data.fault}
      total={data.list.total}
      exportHref="{base}/pages.csv?{query}"
      onselect={(select) => show({ select })}
    />
    {#if data.list.total > 0}
      <PageList
        source="{base}/rows?{query}"
        first={data.list}
        start={data.site.start}
        sort={view.sort}
        picked={view.page}
        onsort={(sort) => show({ sort })}
        onpick={(address) => show({ page: address })}
      />
    {:else}
      <p class="quiet p-6">
        No page is in this selection. Change it above, or <a
          class="text-primary underline"
          href={withState(page.url, { select: '' })}>show all pages</a
        >.
      </p>
    {/if}
  </section>
</main>
{#if view.page}
  <Dossier
    source="{base}/dossier"
    address={view.page}
    start={data.site.start}
    hrefOf={(address) => withState(page.url, { page: address })}
    closeHref={withState(page.url, { page: '' })}
  />
{/if}
