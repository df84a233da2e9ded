<script lang="ts">
  import { goto } from '$app/navigation';
  import { page } from '$app/state';
  import { richAs } from '$core/answers/flow';
  import type { Found } from '$core/findings';
  import { quote } from '$core/selection/language';
  import { listedOf } from '$core/lists/columns';
  import { selectionWith } from '$lib/selection/pictureSelection';
  import { screenState, withState } from '$lib/shell/address';
  import type { ScreenState } from '$lib/shell/address';
  import Answer from '$lib/shell/Answer.svelte';
  import FindingTable from '$lib/findings/FindingTable.svelte';
  import IgnoredList from '$lib/findings/IgnoredList.svelte';
  import LeakBars from '$lib/charts/LeakBars.svelte';
  import Picture from '$lib/charts/Picture.svelte';
  import PictureTabs from '$lib/charts/PictureTabs.svelte';
  import Remark from '$lib/shell/Remark.svelte';
  import { crawlPath, picturesOf } from '$lib/shell/routes';
  import SectionMatrix from '$lib/charts/SectionMatrix.svelte';
  import ShareCurve from '$lib/charts/ShareCurve.svelte';
  import Workspace from '$lib/shell/Workspace.svelte';
  import { texts } from './texts';

  let { data } = $props();
  const view = $derived(screenState(page.url));
  const base = $derived(crawlPath(data.site.id, data.crawl.id, data.crawl.version));
  const host = $derived(new URL(data.site.start).host);
  const show = (changes: Partial<ScreenState>) =>
    goto(withState(page.url, changes), { keepFocus: true, noScroll: true });
  /** What a finding selects: links by the edit that mends them. */
  const stateOf = ({ over, select }: Found): Partial<ScreenState> => ({
    list: over === 'links' ? 'edits' : 'pages',
    select,
    page: '',
  });
  const sectionsOf = (from: string, to: string) =>
    from === '…' || to === '…'
      ? ''
      : `kind = click and from (section = ${quote(from)}) and to (section = ${quote(to)})`;
  const matrix = $derived(view.picture === 'carried' ? data.flow.carried : data.flow.links);
  /** Shows a picture, and below it what it is about. */
  const showPicture = (picture: string) =>
    show({ picture, ...(listedOf(view.list) === 'pages' && { select: selectionWith(picture, view) }) });
</script>

<svelte:head><title>{texts.pageTitle(host)}</title></svelte:head>
<Workspace {base} site={data.site} data={data.list}>
  <Answer pieces={data.answer} href={(select) => withState(page.url, { list: 'pages', select })} />
  <Remark {base} crawl={data.crawl} />
  <section class="panel mt-2 shrink-0 px-2 pt-1.5 pb-1" aria-label={texts.picture}>
    <div class="flex flex-wrap items-center gap-x-3 gap-y-1 pr-14 text-xs">
      <PictureTabs pictures={picturesOf('flow')} picture={view.picture} onpick={showPicture} />
      {#if view.picture === ''}
        <span class="quiet">{texts.indexablePagesOrderedByTheirShare}</span>
      {/if}
    </div>
    {#if view.picture === '' && data.curve.pages === 0}
      <p class="quiet p-4">{texts.thereIsNothingToDrawShare}</p>
    {:else if view.picture === ''}
      <Picture
        name="share"
        table={() => [
          ['rank', 'share', 'part'],
          ...data.curve.points.map(({ rank, share, part }) => [rank, share, part]),
        ]}
      >
        <ShareCurve curve={data.curve} onpick={(_, share) => show({ list: 'pages', select: richAs(share) })} />
      </Picture>
    {:else if view.picture === 'findings'}
      <div class="max-h-56 overflow-y-auto px-2 py-1">
        <FindingTable
          findings={data.findings}
          isHere={({ select }) => select === view.select}
          href={(finding) => withState(page.url, stateOf(finding))}
          site={data.site.id}
        />
        <IgnoredList site={data.site.id} ignored={data.ignored} />
      </div>
    {:else if view.picture === 'leaks'}
      <LeakBars leaks={data.leaks} select={view.select} onpick={(select) => show({ list: 'edits', select })} />
    {:else}
      <Picture
        name="sections-{view.picture}"
        table={() => [['from', ...data.flow.sections], ...data.flow.sections.map((from, i) => [from, ...matrix[i]])]}
      >
        <SectionMatrix
          flow={data.flow}
          of={view.picture === 'carried' ? 'share' : 'links'}
          onpick={(from, to) => sectionsOf(from, to) && show({ list: 'edits', select: sectionsOf(from, to) })}
        />
      </Picture>
    {/if}
  </section>
</Workspace>
