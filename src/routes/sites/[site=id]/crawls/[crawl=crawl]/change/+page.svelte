<script lang="ts">
  import { goto } from '$app/navigation';
  import { page } from '$app/state';
  import { flowCategories } from '$core/answers/flowCategories';
  import EarlierCrawl from '$lib/change/EarlierCrawl.svelte';
  import FindingChanges from '$lib/change/FindingChanges.svelte';
  import PageChanges from '$lib/change/PageChanges.svelte';
  import SettingChanges from '$lib/change/SettingChanges.svelte';
  import ThenNow from '$lib/change/ThenNow.svelte';
  import { texts } from '$lib/change/texts';
  import PictureTabs from '$lib/charts/PictureTabs.svelte';
  import { screenState, withState } from '$lib/shell/address';
  import type { ScreenState } from '$lib/shell/address';
  import Answer from '$lib/shell/Answer.svelte';
  import Remark from '$lib/shell/Remark.svelte';
  import { crawlPath, picturesOf } from '$lib/shell/routes';
  import { shortAddress } from '$lib/shell/words';
  import Timeline from '$lib/timeline/Timeline.svelte';
  import Workspace from '$lib/shell/Workspace.svelte';

  let { data } = $props();
  const view = $derived(screenState(page.url));
  const base = $derived(crawlPath(data.site.id, data.crawl.id, data.crawl.version));
  const { start } = $derived(data.site);
  let onlyMoved = $state(true);
  const show = (changes: Partial<ScreenState>) =>
    goto(withState(page.url, changes), { keepFocus: true, noScroll: true });
  const pick = (select: string) => show({ list: 'changes', select: select === view.select ? 'not same' : select });
  const href = (select: string) => withState(page.url, { list: 'changes', select });
  /** Shows a picture, and below it what it is about. */
  const showPicture = (picture: string) =>
    show({
      picture,
      order: '',
      item: '',
      ...(picture === 'links'
        ? { list: 'changed_edits', select: '' }
        : view.list !== 'changes' && { list: 'changes', select: 'not same' }),
    });
  const remarks = $derived.by(() => {
    if (!data.compared) return [];
    const { earlier, counts, limits } = data.compared;
    return [
      ...(earlier.limited && counts.classes.added
        ? [texts.olderStopped(texts.pagesLimit(limits.then), texts.newPages(counts.classes.added))]
        : []),
      ...(data.crawl.limited && counts.classes.removed
        ? [texts.newerStopped(texts.pagesLimit(limits.now), texts.removedPages(counts.classes.removed))]
        : []),
    ];
  });
</script>

<svelte:head><title>{texts.pageTitle(new URL(start).host)}</title></svelte:head>
{#snippet chooser()}
  <EarlierCrawl
    sites={data.sites}
    host={new URL(data.site.start).host}
    earlier={data.compared?.earlier.id ?? null}
    map={view.map}
    pair={view.pair}
    onchange={(changes) => show(changes)}
  />
{/snippet}
{#snippet timeline(shown: NonNullable<typeof data.timeline>)}
  <Timeline
    site={data.site}
    here={data.crawl.id}
    timeline={shown}
    shown={view.item}
    onshow={(item) => show({ item })}
  />
{/snippet}
{#if !data.compared}
  <main class="min-w-0 flex-1 px-5 py-4">
    {#if data.timeline}<section class="panel mb-4 p-3">{@render timeline(data.timeline)}</section>{/if}
    <Answer pieces={[{ text: texts.nothingBefore }]} {href} />
    <p class="quiet mt-2 max-w-prose">{texts.nothingBeforeThen}</p>
    {#if !data.timeline}
      <p class="mt-2">
        <a class="text-primary hover:underline" href={withState(page.url, { picture: 'timeline' })}
          >{texts.openTimeline}</a
        >
      </p>
    {/if}
    {#if data.sites.length}
      <p class="quiet mt-4 mb-1">{texts.anotherSite}</p>
      {@render chooser()}
    {/if}
  </main>
{:else}
  {@const { compared } = data}
  <Workspace {base} site={data.site} data={data.list}>
    <Answer pieces={compared.answer} {href} />
    <Remark {base} crawl={data.crawl} />
    <SettingChanges changes={compared.settings} {remarks} />
    {#if compared.counts.unfetchedNow || compared.counts.unfetchedThen}
      <p class="quiet mt-0.5">
        {texts.unfetched}
        <button type="button" class="text-primary hover:underline" onclick={() => pick(compared.unfetched.now)}
          >{texts.unfetchedNow(compared.counts.unfetchedNow)}</button
        >,
        <button type="button" class="text-primary hover:underline" onclick={() => pick(compared.unfetched.then)}
          >{texts.unfetchedThen(compared.counts.unfetchedThen)}</button
        >.
      </p>
    {/if}
    {#if compared.counts.arrived && !view.pair.includes('redirect')}
      <p class="quiet mt-0.5">
        {texts.arrived(compared.counts.arrived)}
        <button
          type="button"
          class="text-primary hover:underline"
          onclick={() => show({ pair: `${view.pair},redirect` })}>{texts.pairByRedirect}</button
        >
      </p>
    {/if}
    <section class="panel mt-2 shrink-0 px-2 pt-1.5 pb-1" aria-label={texts.picture}>
      <div class="flex flex-wrap items-center gap-x-3 gap-y-1 pr-14 pb-1 text-xs">
        <PictureTabs pictures={picturesOf('change')} picture={view.picture} onpick={showPicture} />
        {#if compared.flow}
          <label class="quiet flex items-center gap-1"
            >{texts.by}
            <select
              class="rounded border border-base-300 bg-base-100 px-1 leading-6 text-base-content"
              value={compared.flow.category}
              onchange={({ currentTarget: { value } }) => show({ order: value === 'verdict' ? '' : value, item: '' })}
            >
              {#each flowCategories as category (category)}
                <option value={category}>{texts.category(category)}</option>
              {/each}
            </select>
          </label>
          {#if compared.flow.category === 'finding'}
            <select
              aria-label={texts.whichFinding}
              class="max-w-72 rounded border border-base-300 bg-base-100 px-1 leading-6"
              value={compared.flow.finding}
              onchange={({ currentTarget: { value } }) => show({ item: value })}
            >
              {#each compared.flow.findings as { id, name } (id)}<option value={id}>{name}</option>{/each}
            </select>
          {/if}
          <label class="flex items-center gap-1"
            ><input type="checkbox" class="checkbox checkbox-xs" bind:checked={onlyMoved} />{texts.onlyMoved}</label
          >
        {/if}
        <span class="flex-1"></span>
        {#if data.crawl.version === 'crawled'}{@render chooser()}{/if}
      </div>
      {#if compared.flow}
        {#if compared.flow.category === 'finding' && compared.flow.findings.length === 0}
          <p class="quiet px-2 py-6">{texts.noFindings}</p>
        {:else}
          <ThenNow
            flow={compared.flow}
            category={compared.flow.category}
            {onlyMoved}
            select={view.select}
            onpick={pick}
          />
        {/if}
      {:else if data.timeline}
        <div class="px-2 pb-1">{@render timeline(data.timeline)}</div>
      {:else if view.picture === 'pages'}
        <PageChanges counts={compared.counts} select={view.select} onpick={pick} />
      {:else if compared.links}
        <div class="px-2 pb-1">
          {#if compared.links.edits === 0}<p class="quiet py-4">{texts.noLinkChange}</p>
          {:else}
            <p class="quiet text-xs">
              {texts.linksOf(compared.links.added, compared.links.removed, compared.links.edits)}
            </p>
            <ul class="mt-1">
              {#each compared.links.first as { id, cells, select } (id)}
                <li class="truncate border-t border-base-300/60 py-0.5 first:border-0">
                  <button
                    type="button"
                    class="text-left hover:underline"
                    onclick={() => show({ list: 'changed_links', select })}
                    >{texts.edit(
                      cells.change === 'added' ? 'added' : 'removed',
                      String(cells.placement),
                      shortAddress(String(cells.target), start),
                      Number(cells.pages),
                    )}</button
                  >
                  <span class="quiet">{texts.anchor(String(cells.anchor))}</span>
                </li>
              {/each}
            </ul>
          {/if}
        </div>
      {:else if compared.findings}
        <div class="max-h-66 overflow-y-auto px-2">
          <FindingChanges rows={compared.findings} select={view.select} onpick={pick} />
        </div>
      {/if}
    </section>
  </Workspace>
{/if}
