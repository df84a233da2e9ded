<script lang="ts">
  import { goto } from '$app/navigation';
  import { page } from '$app/state';
  import { depthFact, noRouteSelection } from '$core/reach/reach';
  import { verdicts } from '$core/facts';
  import { listedOf } from '$core/lists/columns';
  import { selectionWith } from '$lib/selection/pictureSelection';
  import { screenState, withState } from '$lib/shell/address';
  import type { ScreenState } from '$lib/shell/address';
  import Answer from '$lib/shell/Answer.svelte';
  import DepthChart from '$lib/charts/DepthChart.svelte';
  import { depthsOf, pickDepth } from '$lib/selection/depthSelection';
  import DifferencePicture from '$lib/charts/DifferencePicture.svelte';
  import FamilyTable from '$lib/charts/FamilyTable.svelte';
  import GatesPicture from '$lib/charts/GatesPicture.svelte';
  import NoRoutePicture from '$lib/charts/NoRoutePicture.svelte';
  import Picture from '$lib/charts/Picture.svelte';
  import PictureTabs from '$lib/charts/PictureTabs.svelte';
  import ReadAs from '$lib/shell/ReadAs.svelte';
  import Remark from '$lib/shell/Remark.svelte';
  import { crawlPath, picturesOf } from '$lib/shell/routes';
  import TrapTable from '$lib/charts/TrapTable.svelte';
  import VerdictMark from '$lib/list/VerdictMark.svelte';
  import { number, verdictLabel } from '$lib/shell/words';
  import Meant from '$lib/structure/Meant.svelte';
  import Unlinked from '$lib/shell/Unlinked.svelte';
  import Workspace from '$lib/shell/Workspace.svelte';
  import { texts } from './texts';

  let { data } = $props();
  const view = $derived(screenState(page.url));
  const base = $derived(crawlPath(data.site.id, data.crawl.id, data.crawl.version));
  const picked = $derived(depthsOf(view.select, view.reader));
  const met = $derived(verdicts.filter((_, v) => data.bars?.some(({ byVerdict }) => byVerdict[v] > 0)).reverse());
  const host = $derived(new URL(data.site.start).host);
  const lost = $derived(noRouteSelection(view.reader));
  let past = $state(3);
  const pagesPast = $derived(
    (data.bars ?? []).reduce((sum, { depth, pages }) => sum + (depth !== null && depth > past ? pages : 0), 0),
  );

  const pagesOf = (select: string): Partial<ScreenState> => ({ list: 'pages', select });
  const href = (select: string) => withState(page.url, pagesOf(select));
  const show = (changes: Partial<ScreenState>) =>
    goto(withState(page.url, changes), { keepFocus: true, noScroll: true });
  /** Shows a picture, and below it what it is about. */
  const showPicture = (picture: string) =>
    show({ picture, ...(listedOf(view.list) === 'pages' && { select: selectionWith(picture, view) }) });
</script>

<svelte:head><title>{texts.pageTitle(host)}</title></svelte:head>
<Workspace {base} site={data.site} data={data.list}>
  <div class="flex items-start gap-4">
    <div class="min-w-0 flex-1"><Answer pieces={data.answer} {href} /></div>
    <div class="shrink-0 space-y-1">
      <ReadAs
        reader={view.reader}
        onread={(reader) => show({ reader, select: selectionWith(view.picture, { picture: '', select: '', reader }) })}
      />
      {#if data.bars}
        <form
          class="quiet flex items-center justify-end gap-1 text-xs"
          onsubmit={(event) => {
            event.preventDefault();
            void show(pagesOf(`${depthFact(view.reader)} > ${past}`));
          }}
        >
          <label for="past">{texts.past}</label>
          <input id="past" type="number" min="0" max="999" bind:value={past} class="input input-xs tabular w-13" />
          <button class="text-primary hover:underline">{texts.clicks(number(pagesPast))}</button>
        </form>
      {/if}
    </div>
  </div>
  <Remark {base} crawl={data.crawl} />
  {#if data.difference.pages > 0}
    <p class="quiet mt-0.5">
      {texts.aSearchCrawlerDoesNotReach}
      <a
        class="lost underline decoration-1 underline-offset-2"
        href={withState(page.url, { picture: 'readers', ...pagesOf('reached and crawler_depth is unknown') })}
        >{number(data.difference.pages)}</a
      >
      {texts.pagesThatAVisitorReaches(data.difference.pages)}
    </p>
  {/if}
  <Unlinked counts={data.unlinked} {href} />

  <section class="panel mt-2 shrink-0 px-2 pt-1.5 pb-1" aria-label={texts.picture}>
    <div class="flex flex-wrap items-center gap-x-2.5 gap-y-1 pr-14 text-xs">
      <PictureTabs pictures={picturesOf('reach')} picture={view.picture} onpick={showPicture} />
      {#if data.bars}
        {#each met as verdict (verdict)}
          <a href={href(`verdict = ${verdict}`)} class="flex items-center gap-1 hover:underline">
            <VerdictMark {verdict} size={11} />{verdictLabel[verdict]}
          </a>
        {/each}
        {#if data.bars.some(({ depth }) => depth === null)}
          <a href={href(lost)} class="lost flex items-center gap-1 hover:underline">
            <VerdictMark verdict="indexable" lost size={11} />{texts.noRoute}
          </a>
        {/if}
      {/if}
    </div>
    {#if data.bars}
      <Picture
        name="depth-{view.reader}"
        table={() => [
          ['depth', 'pages', 'selected', ...verdicts],
          ...data.bars!.map(({ depth, pages, selected, byVerdict }) => [
            depth ?? texts.noRouteInTable,
            pages,
            selected,
            ...byVerdict,
          ]),
        ]}
      >
        <DepthChart
          bars={data.bars}
          picked={(depth) => picked.includes(depth)}
          onpick={(depth, add) => show(pagesOf(pickDepth(view.select, depth, add, view.reader)))}
        />
      </Picture>
    {:else if data.noRoute}
      <NoRoutePicture noRoute={data.noRoute} start={data.site.start} {href} />
    {:else if data.gates}
      <GatesPicture
        gates={data.gates}
        start={data.site.start}
        select={view.select}
        onpick={(select, address) => show({ ...pagesOf(select), page: address })}
      />
    {:else if data.meant}
      <Meant
        meant={data.meant}
        site={data.site.id}
        start={data.site.start}
        hrefOf={(address) => withState(page.url, { page: address })}
      />
    {:else if data.traps}
      <div class="max-h-64 overflow-y-auto px-2">
        <TrapTable
          traps={data.traps}
          start={data.site.start}
          hrefOf={(address) => withState(page.url, { page: address })}
        />
        <FamilyTable
          families={data.families}
          start={data.site.start}
          hrefOf={(address) => withState(page.url, { page: address })}
        />
      </div>
    {:else}
      <DifferencePicture difference={data.difference} {href} />
    {/if}
  </section>
</Workspace>
