<!-- What is known of one page, part by part: its way to the index, its links, its source, its facts. -->
<script lang="ts">
  import { markKeyPages } from '../shell/keyPages';
  import { texts as shellTexts } from '../shell/texts';
  import { editing } from '../draft/editing';
  import PageNote from '../draft/PageNote.svelte';
  import { texts as draftTexts } from '../draft/texts';
  import type { PageDossier } from '$core/answers';
  import type { Reach } from '$core/facts';
  import type { Verdict } from '$core/facts';
  import { viewQuery, webAddress } from '../shell/address';
  import type { ScreenState } from '../shell/address';
  import DossierFacts from './DossierFacts.svelte';
  import DossierHistory from './DossierHistory.svelte';
  import DossierLink from './DossierLink.svelte';
  import { known, shareText } from './dossierFacts';
  import DossierLinks from './DossierLinks.svelte';
  import DossierSource from './DossierSource.svelte';
  import DossierWay from './DossierWay.svelte';
  import VerdictMark from '../list/VerdictMark.svelte';
  import { number, reachLabel, shortAddress, verdictLabel } from '../shell/words';
  import { texts } from './texts';

  interface Props {
    base: string;
    site: { id: number; start: string };
    state: ScreenState;
    /** True on the page of its own, where there is room. */
    wide?: boolean;
    onstate: (changes: Partial<ScreenState>) => void;
    hrefOf: (changes: Partial<ScreenState>) => string;
  }
  let { base, site, state: view, wide = false, onstate, hrefOf }: Props = $props();

  const parts = [
    { part: '', label: texts.way },
    { part: 'in', label: texts.linksIn },
    { part: 'out', label: texts.linksOut },
    { part: 'source', label: texts.source },
    { part: 'facts', label: texts.facts },
    { part: 'history', label: texts.history },
  ];
  const short = (address: string) => shortAddress(address, site.start);

  /** The one that is shown until the next is there: no flicker on the way through a list. */
  let dossier = $state.raw<PageDossier | null>(null);
  let trouble = $state('');
  const source = $derived(
    `${base}/dossier?${viewQuery(view, [])}&reader=${view.reader}&page=${encodeURIComponent(view.page)}&at=${view.at}`,
  );
  $effect(() => void read(source));
  async function read(from: string) {
    try {
      const response = await fetch(from);
      if (from !== source) return;
      if (response.ok) {
        dossier = (await response.json()) as PageDossier;
        trouble = '';
      } else {
        // What was shown is another page.
        dossier = null;
        trouble = response.status === 404 ? texts.thisCrawlDoesNotKnow : texts.theDossierCouldNotBeRead;
      }
    } catch {
      if (from === source) trouble = texts.theDossierDidNotArrive;
    }
  }
  const facts = $derived(dossier?.facts ?? {});
  const edit = editing();
  async function mark() {
    if (await markKeyPages(site.id, [view.page], facts.key !== true)) await read(source);
  }
  const lost = $derived(dossier !== null && facts.reach !== 'reached');
  const fact = $derived(view.reader === 'visitor' ? facts.depth : facts.crawler_depth);
</script>

<aside
  data-tour="dossier"
  class="dossier flex min-h-0 flex-col bg-base-100 {wide
    ? 'flex-1'
    : `shrink-0 border-l border-base-300 max-xl:absolute max-xl:inset-y-0 max-xl:right-0 max-xl:z-20 max-xl:shadow-xl ${view.part === 'source' || view.part === 'history' ? 'w-[32rem]' : view.part ? 'w-[26rem]' : 'w-80 xl:w-86'}`}"
  aria-label={texts.dossier}
  aria-busy={!trouble && dossier?.address !== view.page}
>
  <div class="flex items-center justify-between gap-2 px-4 pt-2.5 text-xs">
    {#if dossier}
      <span class="flex min-w-0 items-center gap-1.5 rounded border border-base-300 px-2 py-0.5">
        <VerdictMark verdict={facts.verdict as Verdict} />
        <span class="truncate">{verdictLabel[facts.verdict as Verdict]}</span>
        {#if lost}
          <VerdictMark verdict={facts.verdict as Verdict} lost />
          <span class="lost">{reachLabel[facts.reach as Reach]}</span>
        {/if}
      </span>
    {/if}
    <span class="flex flex-1 justify-end gap-2.5 whitespace-nowrap">
      {#if dossier?.place}
        <span class="quiet tabular">{texts.placeInList(number(dossier.place.at), number(dossier.place.of))}</span>
        <button
          type="button"
          data-key="p"
          class="hover:text-primary disabled:opacity-30"
          aria-label={texts.thePageBefore}
          disabled={!dossier.place.before}
          onclick={() => dossier?.place?.before && onstate({ page: dossier.place.before, at: '' })}>◂</button
        >
        <button
          type="button"
          data-key="n"
          class="hover:text-primary disabled:opacity-30"
          aria-label={texts.thePageAfter}
          disabled={!dossier.place.after}
          onclick={() => dossier?.place?.after && onstate({ page: dossier.place.after, at: '' })}>▸</button
        >
      {/if}
      {#if dossier}
        <button
          type="button"
          class="hover:text-primary {facts.key ? 'text-primary' : 'quiet'}"
          aria-pressed={facts.key === true}
          aria-label={shellTexts.keyPage}
          title={shellTexts.keyPageTitle}
          data-key="k"
          onclick={() => void mark()}>{facts.key ? '★' : '☆'}</button
        >
      {/if}
      {#if edit()}
        <button
          type="button"
          class="text-primary hover:underline"
          data-key="e"
          title={draftTexts.editTitle}
          onclick={() => edit()?.([{ source: view.page }])}>{draftTexts.edit}</button
        >
      {/if}
      {#if !wide}
        <a
          href={`${base}/page?page=${encodeURIComponent(view.page)}`}
          class="text-primary hover:underline"
          title={texts.theDossierAsAPage}>{texts.openFullPage}</a
        >
        <a
          href={hrefOf({ page: '' })}
          class="quiet hover:underline"
          data-sveltekit-noscroll
          aria-label={texts.closeTheDossier}>✕</a
        >
      {/if}
    </span>
  </div>
  <div class="px-4 pt-1.5">
    <h2 class="line-clamp-2 font-serif text-lg leading-tight wrap-anywhere">
      {(dossier?.address === view.page && facts.title) || short(view.page)}
    </h2>
    <a
      href={webAddress(view.page)}
      target="_blank"
      rel="noreferrer noopener nofollow"
      class="quiet block font-mono text-xs break-all hover:underline {view.part ? 'truncate' : 'line-clamp-3'}"
      title={texts.open(view.page)}>{short(view.page)} ↗</a
    >
    {#if dossier && edit()}
      <PageNote address={view.page} note={dossier.note} onkept={() => void read(source)} />
    {/if}
    {#if dossier}
      <dl class="mt-1.5 grid grid-cols-4 gap-2 {wide ? 'max-w-xl' : ''}">
        {#each [[texts.depth, fact === null ? 'none' : number(fact)], [texts.pagesLinking, number(facts.pages_linking)], [texts.share, shareText(facts.share)], [texts.status, known(facts.status)]] as [label, value] (label)}
          <div>
            <dt class="quiet text-xs whitespace-nowrap">{label}</dt>
            <dd class="tabular text-base font-semibold">{value}</dd>
          </div>
        {/each}
      </dl>
    {/if}
  </div>
  <!-- The parts differ in width; by the right edge their tabs stay where they are. -->
  <div
    class="mt-2 flex gap-1 border-b border-base-300 px-3 text-xs {wide ? '' : 'justify-end'}"
    role="tablist"
    aria-label={texts.partsOfTheDossier}
  >
    {#each parts as { part, label } (part)}
      <button
        type="button"
        role="tab"
        aria-selected={view.part === part}
        class="-mb-px border-b-2 px-1.5 py-1 whitespace-nowrap {view.part === part
          ? 'border-primary font-semibold'
          : 'quiet border-transparent hover:text-base-content'}"
        onclick={() => onstate({ part, at: '' })}>{label}</button
      >
    {/each}
  </div>
  <div
    class="min-h-0 flex-1 overflow-y-auto px-4 pt-3 pb-6"
    role="tabpanel"
    tabindex="0"
    aria-label={parts.find(({ part }) => part === view.part)?.label}
  >
    {#if view.part === 'history'}
      <DossierHistory {base} {site} {wide} state={view} />
    {:else if trouble}
      <p class="lost" role="alert">{trouble}</p>
    {:else if view.part === 'source'}
      {#if dossier?.link && view.at}<DossierLink link={dossier.link} {short} {hrefOf} />{/if}
      <DossierSource
        {base}
        page={view.page}
        at={view.at}
        hrefOfLine={(line) => hrefOf({ part: 'source', at: String(line) })}
      />
    {:else if view.part === 'in' || view.part === 'out'}
      <DossierLinks {base} {site} page={view.page} direction={view.part} {hrefOf} />
    {:else if !dossier}
      <p class="quiet">{texts.opening}</p>
    {:else if view.part === 'facts'}
      <DossierFacts {site} {dossier} {wide} />
    {:else}
      <DossierWay {base} {site} {dossier} reader={view.reader} {wide} {hrefOf} />
    {/if}
  </div>
</aside>
