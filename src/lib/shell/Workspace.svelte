<!-- A question screen: its answer and picture, the selection, the list of what it holds, and the dossier. -->
<script lang="ts">
  import { writeNumbers } from '$core/numbers';
  import type { Snippet } from 'svelte';
  import { goto, invalidateAll } from '$app/navigation';
  import { page } from '$app/state';
  import { isListAcross, listedOf } from '$core/lists/columns';
  import type { ListRow, ListWindow } from '$core/lists';
  import { listNames } from '$core/lists/columns';
  import type { ListName } from '$core/lists/columns';
  import { narrowed } from '$core/selection/language';
  import type { SelectionFault } from '$core/selection/language';
  import { carriedOver, screenState, viewQuery, withState } from './address';
  import type { ScreenState } from './address';
  import ColumnChooser from '../list/ColumnChooser.svelte';
  import { cookieOf, columnsToSave, neededColumns, printColumns } from '../list/columns';
  import type { ShownColumn } from '../list/columns';
  import type { Edit } from '$core/draft';
  import Dossier from '../dossier/Dossier.svelte';
  import { editing } from '../draft/editing';
  import SaveSelection from '../selection/SaveSelection.svelte';
  import Menu from './Menu.svelte';
  import type { ListedRows } from '../list/listedRows';
  import { noPicks, pickedOf } from '../list/picks';
  import RowList from '../list/RowList.svelte';
  import { markKeyPages } from './keyPages';
  import { say } from './say.svelte';
  import SelectionBar from '../selection/SelectionBar.svelte';
  import {
    changeTabs,
    commonChanges,
    commonLinkChanges,
    commonSelections,
    groupings,
    listTabs,
    nounFor,
  } from '../list/lists';
  import { number } from './words';
  import { texts } from './texts';

  interface Props {
    base: string;
    site: { id: number; start: string };
    data: { columns: ShownColumn[]; imported: string[]; fault: SelectionFault | null; first: ListWindow };
    /** The answer and the picture, which may ask for the rows below. */
    children: Snippet<[ListedRows]>;
    /** Whether only the selection is shown of the list, and the picture has the room. */
    folded?: boolean;
  }
  let { base, site, data, children, folded = false }: Props = $props();

  const view = $derived(screenState(page.url));
  const over = $derived(listedOf(view.list));
  // A width that is being drawn shows before it is kept.
  let columns = $derived(data.columns);
  const query = $derived(viewQuery(view, neededColumns(view.list, columns)));
  const shown = $derived(
    viewQuery(
      view,
      columns.map(({ name }) => name),
    ),
  );
  const total = $derived(data.first.total);
  let picks = $state.raw(noPicks);
  const picked = $derived(pickedOf(picks, total));

  /** Edits that are added at once. */
  const MOST_EDITED = 5000;

  const show = (changes: Partial<ScreenState>) =>
    goto(withState(page.url, changes), { keepFocus: true, noScroll: true });

  $effect(() => {
    // Rows are numbered anew in another list, selection or crawl.
    void [base, view.list, view.select, view.by];
    picks = noPicks;
  });

  function open({ select, cells }: ListRow) {
    if (view.list === 'pages' || view.list === 'changes')
      return show({ page: cells.url as string, part: view.list === 'changes' ? 'history' : '', at: '' });
    if (view.list === 'links' || (view.list === 'changed_links' && cells.change === 'added'))
      return show({ page: cells.source as string, part: 'source', at: `${cells.line}:${cells.column}` });
    // The line of a link that is gone is one of the earlier source, which is shown beside the new one.
    if (view.list === 'changed_links') return show({ page: cells.source as string, part: 'history', at: '' });
    // A group opens into what it is made of.
    const list = view.list === 'groups' ? 'pages' : view.list === 'changed_edits' ? 'changed_links' : 'links';
    return show({ list, select: narrowed(view.select, select) });
  }
  const isOpen = ({ cells }: ListRow) =>
    view.page !== '' &&
    (view.list === 'pages' || view.list === 'changes'
      ? cells.url === view.page
      : view.list === 'links' && cells.source === view.page && `${cells.line}:${cells.column}` === view.at);

  function keepColumns(changed: ShownColumn[], done = true) {
    const before = columns.map(({ name }) => name).join();
    columns = changed;
    if (!done) return;
    document.cookie = `${cookieOf(view.list)}=${encodeURIComponent(printColumns(columnsToSave(view.reader, changed)))}; path=/; max-age=31536000; samesite=lax`;
    if (before !== changed.map(({ name }) => name).join()) void invalidateAll();
  }

  async function rowsAs(format: 'csv' | 'tsv' | 'json', of = shown): Promise<string> {
    const { named, allBut } = picks;
    const response = await fetch(
      `${base}/export?${of}&format=${format}${allBut ? '&except' : ''}`,
      named.size ? { method: 'POST', body: writeNumbers(named) } : {},
    );
    if (!response.ok) throw new Error(String(response.status));
    return response.text();
  }
  /** What names the rows of the list, one per line. */
  async function addresses(): Promise<string[]> {
    const naming = ['url', 'target', 'host', 'value'];
    const only = viewQuery(view, view.list === 'pages' || view.list === 'changes' ? ['url'] : naming);
    return (await rowsAs('tsv', only)).split('\r\n').slice(1).filter(Boolean);
  }
  const rows: ListedRows = {
    get picked() {
      return picked;
    },
    addresses,
  };
  async function copy(what: 'cells' | 'addresses' | 'csv') {
    try {
      const text = what === 'addresses' ? (await addresses()).join('\n') : await rowsAs(what === 'csv' ? 'csv' : 'tsv');
      await navigator.clipboard.writeText(text);
      say(texts.onTheClipboard(picked || total));
    } catch {
      say(texts.theRowsCouldNotBeCopied, true);
    }
  }
  async function save(format: 'csv' | 'json') {
    try {
      const link = document.createElement('a');
      link.href = URL.createObjectURL(new Blob([await rowsAs(format)]));
      link.download = `${view.list}.${format}`;
      link.click();
      URL.revokeObjectURL(link.href);
      say(texts.rowsAreSaved(picked));
    } catch {
      say(texts.theRowsCouldNotBeSaved, true);
    }
  }

  const edit = editing();
  const editable = $derived(['pages', 'changes', 'links', 'edits', 'anchors'].includes(view.list));
  /** Pages that are picked are edited; links are removed first of all, a group of them wherever it occurs. */
  async function begunEdits(): Promise<Partial<Edit>[]> {
    if (over === 'pages') return (await addresses()).map((source) => ({ op: 'noindex', source }));
    const named = viewQuery(view, ['source', 'target', 'anchor', 'placement']);
    const links = JSON.parse(await rowsAs('json', named)) as Partial<Edit>[];
    return links.map((link) => ({ op: 'remove_link', source: '*', placement: '', ...link }));
  }
  async function mark(key: boolean) {
    try {
      await markKeyPages(site.id, await addresses(), key);
    } catch {
      say(texts.theRowsCouldNotBeRead, true);
    }
  }
  async function editPicked() {
    try {
      const begun = await begunEdits();
      if (begun.length > MOST_EDITED) say(texts.tooManyToEdit(MOST_EDITED), true);
      else edit()?.(begun);
    } catch {
      say(texts.theRowsCouldNotBeRead, true);
    }
  }

  function onkeydown({ key, target }: KeyboardEvent) {
    const typing = target instanceof Element && target.closest('input, dialog, [role=grid]');
    if (key === 'Escape' && view.page && (!typing || !picked)) void show({ page: '' });
  }
  const isAcross = $derived(isListAcross(view.list));
  const common = $derived(
    !isAcross ? commonSelections(over, view.reader) : view.list === 'changes' ? commonChanges : commonLinkChanges,
  );
  const choices = $derived(groupings[view.list === 'changes' ? 'none' : isAcross ? 'changed' : over]);
  const isListName = (value: string): value is ListName => (listNames as readonly string[]).includes(value);
  const toList = (list: ListName) => show({ list, select: carriedOver(view.list, list, view.select), page: '' });
</script>

<svelte:window {onkeydown} />
<main class="flex min-w-0 flex-1 flex-col px-4 pt-3 pb-3">
  {@render children(rows)}
  <section
    class="panel mt-2.5 flex min-h-0 flex-col {folded ? 'overflow-visible' : 'flex-1 overflow-clip'}"
    aria-label={texts.selection}
  >
    <div class="relative flex items-center gap-2 border-b border-base-300 px-2 py-1">
      <SelectionBar
        {over}
        select={view.select}
        fault={data.fault}
        {total}
        noun={nounFor(view.list, total)}
        {base}
        site={site.id}
        onselect={(select) => show({ select })}
      />
      {#if view.select}
        <button type="button" class="text-primary hover:underline" onclick={() => show({ select: '' })}
          >{texts.clear}</button
        >
      {/if}
    </div>
    {#if !folded}
      <div class="flex items-center gap-1.5 border-b border-base-300 px-2 py-1 text-xs">
        <div class="flex overflow-hidden rounded border border-base-300" role="group" aria-label={texts.listOf}>
          {#each isAcross ? changeTabs : listTabs as { list, label } (list)}
            {@const here =
              list === view.list ||
              (list === 'links' && view.list === 'edits') ||
              (list === 'changed_links' && view.list === 'changed_edits') ||
              (list === 'pages' && view.list === 'groups')}
            <button
              type="button"
              aria-pressed={here}
              class="px-2 leading-6 whitespace-nowrap {here ? 'bg-primary text-primary-content' : 'hover:bg-base-200'}"
              onclick={() => toList(list)}>{label}</button
            >
          {/each}
        </div>
        {#if choices.length && view.list !== 'anchors' && view.list !== 'hosts'}
          <label class="quiet flex items-center gap-1 whitespace-nowrap"
            >{texts.by}
            <select
              class="rounded border border-base-300 bg-base-100 px-1 leading-6 text-base-content"
              value={view.list === 'groups' ? view.by : view.list}
              onchange={({ currentTarget: { value } }) =>
                show(isListName(value) ? { list: value, page: '' } : { list: 'groups', by: value, page: '' })}
            >
              {#each choices as { value, label } (value)}<option {value}>{label}</option>{/each}
              {#if view.list === 'groups' && !groupings.pages.some(({ value }) => value === view.by)}<option
                  value={view.by}>{view.by.replaceAll('_', ' ')}</option
                >{/if}
            </select>
          </label>
        {/if}
        <div class="flex h-6 min-w-0 flex-1 flex-wrap gap-x-1 gap-y-2 overflow-hidden">
          <!-- Where there is no room even for the first, it goes to a line that is not seen. -->
          <span class="h-6" aria-hidden="true"></span>
          {#if picked}
            <span class="font-semibold whitespace-nowrap">{texts.picked(number(picked))}</span>
            <button type="button" class="text-primary hover:underline" onclick={() => copy('cells')}
              >{texts.copy}</button
            >
            <button type="button" class="text-primary hover:underline" onclick={() => save('csv')}>{texts.save}</button>
            {#if over === 'pages' && view.list === 'pages'}
              <button
                type="button"
                class="text-primary hover:underline"
                title={texts.keyPageTitle}
                onclick={() => mark(true)}>{texts.markKey}</button
              >
              <button type="button" class="text-primary hover:underline" onclick={() => mark(false)}
                >{texts.unmarkKey}</button
              >
            {/if}
            {#if edit() && editable}
              <button type="button" class="text-primary hover:underline" data-key="e" onclick={editPicked}
                >{texts.edit}</button
              >
            {/if}
            <button type="button" class="text-primary hover:underline" onclick={() => (picks = noPicks)}
              >{texts.none}</button
            >
          {:else}
            {#each common as { label, select } (label)}
              <button
                type="button"
                class="rounded-full border px-2 leading-5 whitespace-nowrap {select === view.select
                  ? 'border-primary bg-primary text-primary-content'
                  : 'border-base-300 hover:border-primary'}"
                aria-pressed={select === view.select}
                onclick={() => show({ select: select === view.select ? '' : select })}>{label}</button
              >
            {/each}
          {/if}
        </div>
        <SaveSelection {site} {over} select={view.select} ready={!data.fault && view.select !== ''} />
        <Menu label={texts.columns}>
          <ColumnChooser
            list={view.list}
            {columns}
            imported={data.imported}
            onchange={(changed) => keepColumns(changed)}
          />
        </Menu>
        <Menu label={texts.export}>
          {#snippet children(close)}
            {@const item = 'block w-full rounded px-2 py-1 text-left whitespace-nowrap hover:bg-base-200'}
            <button type="button" class={item} onclick={() => (void copy('cells'), close())}
              >{texts.copyTheCells}</button
            >
            <button type="button" class={item} onclick={() => (void copy('addresses'), close())}
              >{texts.copyTheAddresses}</button
            >
            <button type="button" class={item} onclick={() => (void copy('csv'), close())}>{texts.copyAsCsv}</button>
            <a class={item} href="{base}/export?{shown}&format=csv" download onclick={close}>{texts.saveAsCsv}</a>
            <a class={item} href="{base}/export?{shown}&format=json" download onclick={close}>{texts.saveAsJson}</a>
            {#if over === 'pages' && !isAcross && !data.fault && total > 0}
              <a
                class={item}
                href="{base}/graph?format=graphml&select={encodeURIComponent(view.select)}"
                title={texts.aGraphHas}
                download
                onclick={close}>{texts.saveAsGraph}</a
              >
              <a
                class={item}
                href="{base}/sitemap?select={encodeURIComponent(view.select)}"
                title={texts.aSitemapLists}
                download
                onclick={close}>{texts.saveAsSitemap}</a
              >
              <form method="post" action="{base}/reach?/again">
                <input type="hidden" name="select" value={view.select} />
                <button class={item} title={texts.aNewCrawlFetches}>{texts.fetchThePagesAgain}</button>
              </form>
            {/if}
          {/snippet}
        </Menu>
      </div>
      {#if total > 0}
        <RowList
          list={view.list}
          source="{base}/rows?{query}"
          summarySource="{base}/summary?{viewQuery(
            { ...view, sort: '' },
            columns.map(({ name }) => name),
          )}"
          first={data.first}
          {columns}
          start={site.start}
          sort={view.sort}
          {isOpen}
          {picks}
          onpick={(now) => (picks = now)}
          onsort={(sort) => show({ sort })}
          onopen={open}
          onnarrow={(test) => show({ select: narrowed(view.select, test) })}
          oncolumns={keepColumns}
          oncopy={() => copy('cells')}
        />
      {:else}
        <p class="quiet p-6">
          {texts.nothingIsInThisSelectionChange}
          <a class="text-primary underline" href={withState(page.url, { select: '' })}>{texts.showAll(over)}</a>.
        </p>
      {/if}{/if}
  </section>
</main>
{#if view.page}
  <Dossier {base} {site} state={view} onstate={show} hrefOf={(changes) => withState(page.url, changes)} />
{/if}
