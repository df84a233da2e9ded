<script lang="ts">
  import DepthPairs from '$lib/draft/DepthPairs.svelte';
  import DraftedPages from '$lib/draft/DraftedPages.svelte';
  import EditCheck from '$lib/draft/EditCheck.svelte';
  import DraftMenu from '$lib/draft/DraftMenu.svelte';
  import EditRows from '$lib/draft/EditRows.svelte';
  import PlanPanel from '$lib/draft/PlanPanel.svelte';
  import PredictionTable from '$lib/draft/PredictionTable.svelte';
  import { redo, undo } from '$lib/draft/draft';
  import { editing } from '$lib/draft/editing';
  import { texts } from '$lib/draft/texts';
  import Answer from '$lib/shell/Answer.svelte';
  import Menu from '$lib/shell/Menu.svelte';
  import Moment from '$lib/shell/Moment.svelte';
  import { crawlPath } from '$lib/shell/routes';
  import { number, shortAddress, verdictLabel } from '$lib/shell/words';

  let { data } = $props();
  const edit = editing();
  const place = $derived({ site: data.site, crawl: data.crawl, draft: data.draft });
  const base = $derived(crawlPath(data.site.id, data.crawl.id, 'drafted'));
  const difference = $derived(crawlPath(data.site.id, data.crawl.id, 'difference'));
  const { start } = $derived(data.site);
  const href = (select: string) => `${base}/reach?${new URLSearchParams({ select })}`;
  const dossier = (address: string) => `${base}/reach?${new URLSearchParams({ page: address })}`;
  const link = 'text-primary hover:underline disabled:opacity-40 disabled:no-underline';
  type Shown = NonNullable<typeof data.shown>;
  const stepText = ({ kind, on, edits }: Shown['steps'][number]) =>
    texts.steps[kind === 'switch' ? (on ? 'on' : 'off') : kind === 'tick' ? (on ? 'done' : 'open') : kind](edits);
</script>

<svelte:head><title>{texts.pageTitle(new URL(start).host)}</title></svelte:head>
<main class="min-w-0 flex-1 overflow-y-auto px-4 pt-3 pb-4">
  {#if data.shown}
    <Answer pieces={data.shown.answer} {href} />
  {:else}
    <Answer pieces={[{ text: texts.nothing }]} {href} />
    <p class="quiet mt-1 max-w-prose">{texts.nothingThen}</p>
  {/if}
  <div class="mt-2.5 grid grid-cols-[minmax(0,2fr)_minmax(0,3fr)] items-start gap-3">
    <section class="panel px-3 py-2.5">
      <div class="flex items-center gap-3 text-xs">
        <h2 class="text-sm font-semibold">{texts.heading}</h2>
        <DraftMenu drafts={data.drafts} {place} />
        <span class="flex-1"></span>
        {#if data.shown}<a class={link} href="{base}/draft/hand-over">{texts.handOver}</a>{/if}
        <button type="button" class={link} disabled={!data.draft.undoable} data-key="u" onclick={() => undo(place)}
          >{texts.undo}</button
        >
        <button type="button" class={link} disabled={!data.draft.redoable} onclick={() => redo(place)}
          >{texts.redo}</button
        >
        {#if data.shown}
          {@const { steps } = data.shown}
          <Menu label={texts.history}>
            <ol class="w-72 p-1 text-xs">
              {#each [...steps].reverse() as step (step.id)}
                <li class="flex justify-between gap-3 py-0.5 {step.undone ? 'opacity-50' : ''}">
                  <span>{stepText(step)}{step.undone ? ` (${texts.undone})` : ''}</span>
                  <span class="quiet"><Moment at={step.at} /></span>
                </li>
              {/each}
            </ol>
          </Menu>
        {/if}
      </div>
      {#if data.shown}
        <EditCheck check={data.shown.check} {place} {start} />
        <EditRows rows={data.shown.edits} {place} {start} />
        {#if data.shown.notes.length}
          <h3 class="mt-2 border-t border-base-300 pt-2 text-xs font-semibold">{texts.pageNotes}</h3>
          <ul class="text-xs">
            {#each data.shown.notes as [address, note] (address)}
              <li class="py-0.5">
                <a class="font-mono hover:underline" href={dossier(address)}>{shortAddress(address, start)}</a>
                <span class="quiet italic">{note}</span>
              </li>
            {/each}
          </ul>
        {/if}
      {/if}
      {#if edit()}
        <button type="button" class="btn btn-outline btn-xs mt-2" data-key="e" onclick={() => edit()?.([])}
          >{texts.addEdit}</button
        >
        <PlanPanel base={crawlPath(data.site.id, data.crawl.id, data.crawl.version)} {place} {start} />
      {/if}
    </section>
    {#if data.shown}
      {@const { depths, pages, prediction, verdicts } = data.shown}
      <div class="grid min-w-0 grid-cols-[minmax(0,1fr)] gap-3">
        {#if prediction}
          <section class="panel px-3 py-2.5">
            <h2 class="font-semibold">{texts.predictionHeading}</h2>
            <PredictionTable {prediction} base={crawlPath(data.site.id, data.crawl.id, 'predicted')} />
          </section>
        {/if}
        <section class="panel px-3 py-2.5">
          <h2 class="font-semibold">{texts.depthHeading}</h2>
          <DepthPairs {depths} />
          {#if verdicts.length}
            <p class="mt-2 flex flex-wrap gap-x-4 border-t border-base-300/60 pt-2 text-xs">
              {#each verdicts as { verdict, before, after } (verdict)}
                <span class="tabular"
                  >{verdictLabel[verdict]} <span class="quiet">{number(before)} →</span> <b>{number(after)}</b></span
                >
              {/each}
            </p>
          {/if}
        </section>
        <section class="panel grid gap-3 px-3 py-2.5">
          <DraftedPages heading={texts.gainHeading} pages={pages.gain} {start} hrefOf={dossier} />
          <DraftedPages heading={texts.loseHeading} pages={pages.lose} {start} hrefOf={dossier} />
          <p class="flex gap-4 text-xs">
            <a class={link} href="{difference}/change">{texts.allChanges}</a>
            <a class={link} href="{difference}/change?picture=findings">{texts.findingChanges}</a>
          </p>
        </section>
      </div>
    {/if}
  </div>
</main>
