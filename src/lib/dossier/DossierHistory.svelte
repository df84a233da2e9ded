<!-- How a page was in each crawl, and its text or source then and now. -->
<script lang="ts">
  import { page } from '$app/state';
  import type { ListRow, ListWindow } from '$core/lists';
  import type { Verdict } from '$core/facts';
  import { quote } from '$core/selection/language';
  import { viewQuery } from '../shell/address';
  import type { ScreenState } from '../shell/address';
  import Moment from '../shell/Moment.svelte';
  import { crawlPath } from '../shell/routes';
  import { number, verdictLabel } from '../shell/words';
  import VerdictMark from '../list/VerdictMark.svelte';
  import { shareText } from './dossierFacts';
  import PageDifference from './PageDifference.svelte';
  import { texts } from './texts';

  interface Props {
    base: string;
    site: { id: number; start: string };
    wide: boolean;
    state: ScreenState;
  }
  let { base, site, wide, state: view }: Props = $props();

  type Cells = ListRow['cells'];
  const facts = ['verdict', 'status', 'depth', 'share', 'links_in', 'links_out', 'word_count', 'title'] as const;
  const here = $derived(Number(base.slice(base.lastIndexOf('/') + 1)));
  /** Crawls that can be looked at, newest first. */
  const crawls = $derived(
    (page.data.crawls as { id: number; at: Date; state: string }[])
      .filter(({ state }) => state === 'done' || state === 'stopped')
      .toReversed(),
  );
  const earlier = $derived(Number(view.since) || (crawls.find(({ id }) => id < here)?.id ?? null));

  /** What each crawl tells; null for a crawl that does not know the page, undefined while it has not been asked. */
  let told = $state.raw(new Map<number, Cells | null>());
  let change = $state.raw<Cells | null>(null);
  let trouble = $state('');

  async function ask(at: string, changes: Partial<ScreenState>, columns: readonly string[]): Promise<Cells | null> {
    const response = await fetch(`${at}/rows?${viewQuery({ ...view, sort: '', ...changes }, columns)}&size=1`);
    if (!response.ok) throw new Error(String(response.status));
    return ((await response.json()) as ListWindow).rows[0]?.cells ?? null;
  }
  async function read(address: string, of: typeof crawls) {
    told = new Map();
    change = null;
    trouble = '';
    try {
      const select = `url = ${quote(address)}`;
      if (earlier !== null)
        change = await ask(base, { list: 'changes', select: `${select} or was (${select})` }, [
          'change',
          'changed_facts',
          'was_url',
          'moved_to',
        ]);
      // One after the other: each may have to be opened first.
      for (const { id } of of) {
        const cells = await ask(crawlPath(site.id, id), { list: 'pages', select }, facts);
        if (address !== view.page) return;
        told = new Map(told).set(id, cells);
      }
    } catch {
      if (address === view.page) trouble = texts.historyCouldNotBeRead;
    }
  }
  $effect(() => void read(view.page, crawls));

  /** Whether a crawl tells another value than the one before it. */
  const isOther = (i: number, fact: (typeof facts)[number]) => {
    const [now, then] = [told.get(crawls[i].id), crawls[i + 1] && told.get(crawls[i + 1].id)];
    return Boolean(now && then && now[fact] !== then[fact]);
  };
  const changedFacts = $derived((change?.changed_facts ?? []) as readonly string[]);
</script>

<div class="space-y-4">
  {#if change}
    <p class="text-[0.8125rem]">
      {texts.since(earlier ?? 0)}
      <b>{texts.changeOf(String(change.change))}</b>{#if change.moved_to}{texts.movedTo(
          String(change.moved_to),
        )}{/if}{#if changedFacts.length}: {changedFacts.map((fact) => fact.replaceAll('_', ' ')).join(', ')}{/if}
    </p>
  {/if}
  <table class="w-full text-xs">
    <thead class="quiet">
      <tr>
        <th class="text-left font-normal">{texts.crawl}</th>
        <th class="text-left font-normal">{texts.verdict}</th>
        {#each [texts.status, texts.depth, texts.share, texts.in, texts.out, texts.wordsHead] as head (head)}
          <th class="text-right font-normal">{head}</th>
        {/each}
      </tr>
    </thead>
    <tbody>
      {#each crawls as { id, at }, i (id)}
        {@const cells = told.get(id)}
        {@const other = (fact: (typeof facts)[number]) => (isOther(i, fact) ? 'font-semibold text-primary' : '')}
        <tr class="border-t border-base-300/60 align-baseline">
          <td class="py-1 whitespace-nowrap">
            {#if id === here}<b><Moment {at} /></b>{:else}<a
                class="text-primary hover:underline"
                href="{crawlPath(site.id, id)}/page?page={encodeURIComponent(view.page)}"><Moment {at} /></a
              >{/if}
          </td>
          {#if cells}
            <td class={other('verdict')}
              ><span class="flex items-center gap-1"
                ><VerdictMark verdict={cells.verdict as Verdict} size={10} />{verdictLabel[
                  cells.verdict as Verdict
                ]}</span
              ></td
            >
            <td class="tabular text-right {other('status')}">{cells.status ?? '—'}</td>
            <td class="tabular text-right {other('depth')}">{cells.depth ?? texts.noDepth}</td>
            <td class="tabular text-right {other('share')}">{shareText(cells.share)}</td>
            <td class="tabular text-right {other('links_in')}">{number(cells.links_in)}</td>
            <td class="tabular text-right {other('links_out')}">{number(cells.links_out)}</td>
            <td class="tabular text-right {other('word_count')}">{number(cells.word_count)}</td>
          {:else}
            <td class="quiet" colspan="7">{cells === undefined ? (trouble ? '—' : texts.opening) : texts.notKnown}</td>
          {/if}
        </tr>
        {#if cells?.title && (i === crawls.length - 1 || isOther(i, 'title') || i === 0)}
          <tr>
            <td></td>
            <td colspan="7" class="pb-1 {other('title') || 'quiet'}">{cells.title}</td>
          </tr>
        {/if}
      {/each}
    </tbody>
  </table>
  {#if trouble}<p class="lost" role="alert">{trouble}</p>{/if}
  {#if earlier !== null && change}
    <PageDifference {base} page={view.page} was={String(change.was_url ?? '')} since={earlier} {wide} />
  {:else if earlier === null}
    <p class="quiet">{texts.noEarlierCrawl}</p>
  {/if}
</div>
