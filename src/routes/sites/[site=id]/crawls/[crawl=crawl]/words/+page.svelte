<script lang="ts">
  import { goto, invalidateAll } from '$app/navigation';
  import { page } from '$app/state';
  import { quote } from '$core/selection/language';
  import PictureTabs from '$lib/charts/PictureTabs.svelte';
  import Dossier from '$lib/dossier/Dossier.svelte';
  import ItemList from '$lib/list/ItemList.svelte';
  import type { Item } from '$lib/list/items';
  import GivenText from '$lib/places/GivenText.svelte';
  import PlaceList from '$lib/places/PlaceList.svelte';
  import { texts as placeTexts } from '$lib/places/texts';
  import { screenState, withState } from '$lib/shell/address';
  import type { ScreenState } from '$lib/shell/address';
  import Answer from '$lib/shell/Answer.svelte';
  import { crawlPath, picturesOf } from '$lib/shell/routes';
  import { shortAddress } from '$lib/shell/words';
  import TextSearch from '$lib/textSearch/TextSearch.svelte';
  import MoveTable from '$lib/wordings/MoveTable.svelte';
  import SectionTable from '$lib/wordings/SectionTable.svelte';
  import type { ShownWording } from '$lib/wordings/shown';
  import { texts } from '$lib/wordings/texts';
  import WordingTable from '$lib/wordings/WordingTable.svelte';

  let { data } = $props();
  const view = $derived(screenState(page.url));
  const base = $derived(crawlPath(data.site.id, data.crawl.id, data.crawl.version));
  const { start } = $derived(data.site);
  const show = (changes: Partial<ScreenState>) =>
    goto(withState(page.url, changes), { keepFocus: true, noScroll: true });
  const hrefOf = (address: string) => withState(page.url, { page: address, part: '', at: '' });
  const openSource = (address: string, line: number) => show({ page: address, part: 'source', at: String(line) });
  /** The list of links that a selection holds, folded into edits. */
  const hrefOfEdits = (...tests: string[]) =>
    `${base}/flow?${new URLSearchParams({ list: 'edits', select: ['kind = click', ...tests].join(' and ') })}`;
  const by = $derived((['words', 'page'] as const).find((one) => one === view.order) ?? 'target');
  const hrefOfLinks = ({ target, anchor }: ShownWording) =>
    hrefOfEdits(
      ...(by === 'page' && data.targets?.shown?.address ? [`source = ${quote(data.targets.shown.address)}`] : []),
      `target = ${quote(target.address)}`,
      anchor === '' ? 'anchor is unknown' : `anchor = ${quote(anchor)}`,
    );
  const place = $derived(data.draft ? { site: data.site, crawl: data.crawl, draft: data.draft } : null);

  const INDEX_MS = 1500;
  $effect(() => {
    if (data.isIndexed) return;
    const timer = setTimeout(() => void invalidateAll(), INDEX_MS);
    return () => clearTimeout(timer);
  });

  type Row = { address: string; title: string | null };
  const itemOf = ({ address, title }: Row, figure: string, note: string): Item => ({
    ...{ item: address, label: shortAddress(address, start), more: title ?? '', figure, note },
  });
  const times = (share: number) => (share > 0 ? `${share.toFixed(2)}×` : '');
  /** What the list beside shows, and which of it. */
  const list = $derived.by(() => {
    if (data.need) {
      const { left, all, rows } = data.need;
      const pages = rows.map((one) => ({
        ...itemOf(
          one,
          one.depth === null ? placeTexts.noRoute : placeTexts.depth(one.depth),
          one.good === null ? placeTexts.linking(one.linking) : placeTexts.good(one.good),
        ),
        isDone: one.isDone,
      }));
      const title = left === all ? placeTexts.need(all) : placeTexts.needLeft(left, all);
      return { title, about: '', none: placeTexts.nobody, items: pages, total: data.need.total };
    }
    if (data.givers) {
      const items = data.givers.rows.map((one) => itemOf(one, times(one.figure), texts.linksTo(one.linked ?? 0)));
      const { total } = data.givers;
      return { title: placeTexts.pages(total), about: texts.orderOfPages, none: texts.noTargets, items, total };
    }
    if (!data.targets) return null;
    const { rows, total } = data.targets;
    if (view.picture === 'moves') {
      const items = rows.map((one) => itemOf(one, '', texts.wordings(one.wordings)));
      return { title: texts.targets(total), about: texts.orderOfMoves, none: texts.noMoves, items, total };
    }
    if (by === 'words') {
      const items = rows.map(({ address, figure, wordings }) => ({
        ...{ item: address, label: address || texts.empty, more: null },
        ...{ figure: texts.leadTo(figure), note: texts.links(wordings) },
      }));
      return { title: texts.allWords(total), about: texts.orderOfWords, none: texts.noTargets, items, total };
    }
    if (by === 'page') {
      const items = rows.map((one) => itemOf(one, times(one.figure), texts.linksTo(one.wordings)));
      return { title: texts.linking(total), about: texts.orderOfPages, none: texts.noTargets, items, total };
    }
    const items = rows.map((one) =>
      itemOf(
        one,
        times(one.figure),
        [texts.wordings(one.wordings), ...(one.faulty ? [texts.faulty(one.faulty)] : [])].join(' · '),
      ),
    );
    return { title: texts.targets(total), about: texts.order, none: texts.noTargets, items, total };
  });
  const pages = $derived<Row[]>(data.need?.rows ?? data.givers?.rows ?? data.targets?.rows ?? []);
  const chosen = $derived<Row | undefined>(
    pages.find(({ address }) => address === view.item) ??
      (view.item && !data.targets ? { address: view.item, title: null } : pages[0]),
  );
  const shown = $derived(
    data.targets?.shown ? (data.targets.shown.address ?? data.targets.shown.title ?? '') : (chosen?.address ?? ''),
  );

  async function next() {
    const at = pages.findIndex(({ address }) => address === shown);
    const others = [...pages.slice(at + 1), ...pages.slice(0, at)];
    const done = new Set(data.need?.rows.filter(({ isDone }) => isDone).map(({ address }) => address));
    const following = others.find(({ address }) => !done.has(address));
    if (following) await show({ item: following.address });
  }
  /** Goes to the screen with other values of what only it knows. */
  function ask(values: Record<string, string>, changes: Partial<ScreenState> = {}) {
    const url = new URL(withState(page.url, changes), page.url);
    for (const [name, value] of Object.entries(values))
      if (value) url.searchParams.set(name, value);
      else url.searchParams.delete(name);
    void goto(url, { keepFocus: true, noScroll: true });
  }
  const pick = (picture: string) => ask({ find: '' }, { picture, item: '', order: '' });
</script>

<svelte:head><title>{texts.pageTitle(new URL(start).host)}</title></svelte:head>
<main class="flex min-h-0 min-w-0 flex-1 flex-col px-4 pt-3 pb-4">
  <Answer pieces={data.answer} href={(select) => `${base}/reach?${new URLSearchParams({ select })}`} />
  <div class="mt-2.5 flex flex-wrap items-center gap-3 text-xs">
    <PictureTabs pictures={picturesOf('words')} picture={view.picture} onpick={pick} />
    {#if view.picture === ''}
      <span class="flex items-center gap-1.5" role="group" aria-label={texts.by}>
        <span class="quiet">{texts.by}</span>
        {#each Object.entries(texts.orders) as [order, label] (order)}
          <button
            type="button"
            class={view.order === order ? 'font-semibold text-primary' : 'hover:underline'}
            aria-pressed={view.order === order}
            onclick={() => ask({ find: '' }, { order, item: '' })}>{label}</button
          >
        {/each}
      </span>
    {/if}
    {#if !data.isIndexed}
      <span class="quiet" role="status"
        >{placeTexts.indexing}
        {data.progress?.steps ? placeTexts.indexed(data.progress.stepsDone, data.progress.steps) : ''}</span
      >
    {/if}
  </div>
  <div class="mt-2.5 grid min-h-0 flex-1 grid-cols-[clamp(13rem,33%,22rem)_minmax(0,1fr)] gap-3">
    {#if data.search}
      <TextSearch
        search={data.search}
        {start}
        isIndexed={data.isIndexed}
        {hrefOf}
        hrefOfList={(select) => `${base}/reach?${new URLSearchParams({ select })}`}
        onfind={(words, without) => ask({ words, without, size: '' })}
        onsource={openSource}
        onmore={() => ask({ size: String(data.search!.size + 40) })}
      />
    {:else if data.sections}
      <SectionTable
        sections={data.sections}
        shown={view.item}
        href={(item) => withState(page.url, { item })}
        hrefOfLinks={(from, to, words) =>
          hrefOfEdits(
            `from (section = ${quote(from)})`,
            `to (section = ${quote(to)})`,
            words === '' ? 'anchor is unknown' : `anchor = ${quote(words)}`,
          )}
      />
    {:else if view.picture === 'given'}
      <GivenText {base} {start} {hrefOf} />
    {/if}
    {#if list}
      <ItemList
        {...list}
        {shown}
        find={data.find}
        onfind={(find) => ask({ find })}
        href={(item) => withState(page.url, { item })}
      >
        {#if data.need}
          <label class="flex items-center gap-1.5"
            >{placeTexts.wanted}
            <input
              class="input input-xs tabular w-12 text-right"
              type="number"
              min="1"
              max="50"
              value={data.wanted}
              onchange={({ currentTarget }) => ask({ wanted: String(currentTarget.valueAsNumber || 1) })}
            /></label
          >
        {/if}
      </ItemList>
      {#if data.targets?.shown?.address && view.picture === 'moves'}
        <MoveTable
          shown={{ ...data.targets.shown, address: data.targets.shown.address }}
          site={data.site}
          {place}
          {hrefOf}
          {hrefOfLinks}
          onnext={next}
        />
      {:else if data.targets?.shown}
        <WordingTable shown={data.targets.shown} {by} {start} {hrefOf} {hrefOfLinks} />
      {:else if chosen && data.isIndexed}
        <PlaceList
          {base}
          site={data.site}
          {place}
          page={chosen}
          direction={data.need ? 'to' : 'from'}
          {hrefOf}
          hrefOfSearch={(words, without) =>
            `${base}/words?${new URLSearchParams({ picture: 'search', words, without })}`}
          onsource={openSource}
          onnext={next}
        />
      {/if}
    {/if}
  </div>
</main>
{#if view.page}
  <Dossier {base} site={data.site} state={view} onstate={show} hrefOf={(changes) => withState(page.url, changes)} />
{/if}
