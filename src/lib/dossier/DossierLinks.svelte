<!-- The links to or from a page: one by one, by the edit that mends them, or by their words. -->
<script lang="ts">
  import type { CellValue, ListRow, ListWindow } from '$core/lists';
  import { quote } from '$core/selection/language';

  import type { Verdict } from '$core/facts';
  import type { ScreenState } from '../shell/address';
  import VerdictMark from '../list/VerdictMark.svelte';
  import { number, shortAddress, verdictLabel } from '../shell/words';
  import { texts } from './texts';

  interface Props {
    base: string;
    site: { start: string };
    page: string;
    direction: 'in' | 'out';
    hrefOf: (changes: Partial<ScreenState>) => string;
  }
  let { base, site, page, direction, hrefOf }: Props = $props();

  const ways = [
    { list: 'edits', label: texts.oneEdit },
    { list: 'links', label: texts.eachLink },
    { list: 'anchors', label: texts.wordings },
  ] as const;
  let list = $state<(typeof ways)[number]['list']>('edits');
  let rows = $state.raw<ListRow[]>([]);
  let total = $state(-1);
  let trouble = $state('');

  const select = $derived(
    direction === 'in'
      ? `kind = click and not self and to (url = ${quote(page)})`
      : `kind = click and from (url = ${quote(page)})`,
  );
  const columns = {
    edits: 'source,target,anchor,placement,pages,links,above,line,column,target_verdict,ends_at,faults',
    links: 'source,target,anchor,placement,rel,followed,line,column,target_verdict,ends_at,faults',
    anchors: 'anchor,target,links,pages,placements,followed_links,faults',
  } as const;
  const SIZE = 100;

  $effect(() => void read(list, select, 0));
  async function read(of: typeof list, about: string, from: number) {
    const sort = of === 'links' && direction === 'in' ? 'source_share:desc' : '';
    const query = new URLSearchParams({
      list: of,
      select: about,
      sort,
      columns: columns[of],
      from: String(from),
      size: String(SIZE),
    });
    const response = await fetch(`${base}/rows?${query}`).catch(() => null);
    if (of !== list || about !== select) return;
    if (!response?.ok) {
      trouble = texts.theLinksCouldNotBeRead;
      return;
    }
    const found = (await response.json()) as ListWindow;
    rows = from === 0 ? found.rows : [...rows, ...found.rows];
    total = found.total;
    trouble = '';
  }
  const short = (address: CellValue | undefined) => shortAddress(String(address), site.start);
  const text = (value: CellValue | undefined) => (value === '' || value === null ? '' : String(value));
</script>

<div class="mb-2 flex items-center gap-2 text-xs">
  <div class="flex overflow-hidden rounded border border-base-300" role="group" aria-label={texts.groupedBy}>
    {#each ways as { list: way, label } (way)}
      <button
        type="button"
        aria-pressed={list === way}
        class="px-2 leading-6 {list === way ? 'bg-primary text-primary-content' : 'hover:bg-base-200'}"
        onclick={() => (list = way)}>{label}</button
      >
    {/each}
  </div>
  <span class="quiet tabular" aria-live="polite">{total < 0 ? '…' : number(total)}</span>
  <a class="ml-auto text-primary hover:underline" href={hrefOf({ list, select, sort: '' })} data-sveltekit-noscroll
    >{texts.asAList}</a
  >
</div>
{#if trouble}<p class="lost" role="alert">{trouble}</p>{/if}
{#if total === 0}
  <p class="quiet">{direction === 'in' ? texts.noPageLinksHere : texts.itHasNoClickLinks}</p>
{/if}
<ul class="divide-y divide-base-300/70 text-xs">
  {#each rows as { id, cells } (`${list}${id}`)}
    {@const other = direction === 'in' ? cells.source : cells.target}
    {@const faults = (cells.faults as string[] | null) ?? []}
    <li class="py-1.5">
      <div class="flex items-baseline gap-2">
        <span class="min-w-0 flex-1 truncate font-semibold" title={text(cells.anchor)}
          >{#if text(cells.anchor)}“{text(cells.anchor)}”{:else}<span class="lost">{texts.noWords}</span>{/if}</span
        >
        {#if list !== 'links'}<span class="tabular whitespace-nowrap"
            >{texts.timesOnPages(number(cells.links), Number(cells.pages))}</span
          >{/if}
      </div>
      {#if !(list === 'anchors' && direction === 'in')}
        <div class="flex items-baseline gap-2">
          {#if list === 'edits' && direction === 'in' && Number(cells.pages) > 1}<span class="quiet"
              >{texts.suchAs}</span
            >{/if}
          <a
            class="min-w-0 flex-1 truncate font-mono hover:underline"
            href={hrefOf({ page: String(other), part: '', at: '' })}
            data-sveltekit-noscroll
            title={String(other)}>{short(other)}</a
          >
          {#if direction === 'out' && cells.target_verdict && cells.target_verdict !== 'indexable'}
            <span class="flex items-center gap-1 whitespace-nowrap"
              ><VerdictMark verdict={cells.target_verdict as Verdict} size={10} />{verdictLabel[
                cells.target_verdict as Verdict
              ]}</span
            >
          {/if}
        </div>
      {/if}
      {#if direction === 'out' && cells.ends_at}
        <p class="quiet truncate">{texts.endsAt} <span class="font-mono">{short(cells.ends_at)}</span></p>
      {/if}
      <div class="quiet flex flex-wrap items-baseline gap-x-2">
        {#if list === 'anchors'}
          <span>{((cells.placements as string[]) ?? []).join(', ')}</span>
          {#if Number(cells.followed_links) < Number(cells.links)}<span
              >{texts.linksNotFollowed(number(Number(cells.links) - Number(cells.followed_links)))}</span
            >{/if}
        {:else}
          <span title={text(cells.above)}
            >{cells.placement === 'none' ? texts.inNoPlacement : String(cells.placement)}</span
          >
          {#if cells.rel}<span>{texts.rel(String(cells.rel))}</span>{/if}
          {#if cells.followed === false}<span class="lost">{texts.notFollowed}</span>{/if}
          {#if cells.line !== null}
            <a
              class="text-primary hover:underline"
              href={hrefOf({ page: String(cells.source), part: 'source', at: `${cells.line}:${cells.column ?? 1}` })}
              data-sveltekit-noscroll>{texts.line(String(cells.line))}</a
            >
          {/if}
          {#if list === 'edits' && text(cells.above)}<span class="w-full truncate font-mono" title={text(cells.above)}
              >{text(cells.above)}</span
            >{/if}
        {/if}
        {#each faults as fault (fault)}<span class="lost">{fault.replaceAll('_', ' ')}</span>{/each}
      </div>
    </li>
  {/each}
</ul>
{#if rows.length < total}
  <button type="button" class="mt-2 text-primary hover:underline" onclick={() => read(list, select, rows.length)}
    >{texts.showMore(number(Math.min(SIZE, total - rows.length)))}</button
  >
{/if}
