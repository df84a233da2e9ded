<!-- The way of a page from discovery to index, its route from the start, its findings, and its share. -->
<script lang="ts">
  import type { PageDossier, RouteStep, SharePart } from '$core/answers';
  import type { Reader } from '$core/reach';
  import type { ScreenState } from '../shell/address';
  import Explained from '../shell/Explained.svelte';
  import EgoMap from './EgoMap.svelte';
  import { factText, shareText } from './dossierFacts';
  import { findingHref } from '../shell/routes';
  import { number, shortAddress } from '../shell/words';
  import { texts } from './texts';

  interface Props {
    base: string;
    site: { start: string };
    dossier: PageDossier;
    reader: Reader;
    wide: boolean;
    hrefOf: (changes: Partial<ScreenState>) => string;
  }
  let { base, site, dossier, reader, wide, hrefOf }: Props = $props();
  const short = (address: string) => shortAddress(address, site.start);
  const f = $derived(dossier.facts);

  let without = $state('');
  let left = $state.raw<RouteStep[] | null>(null);
  async function goWithout(address: string) {
    without = without === address ? '' : address;
    left = null;
    if (!without) return;
    const query = new URLSearchParams({ page: dossier.address, reader, without });
    const response = await fetch(`${base}/dossier?${query}`).catch(() => null);
    if (response?.ok && without === address) left = ((await response.json()) as { route: RouteStep[] }).route;
  }
  $effect(() => {
    void [dossier, reader];
    without = '';
    left = null;
  });
  const most = $derived(
    Math.max(
      0.001,
      dossier.share.rest,
      ...dossier.share.from.map(({ share }) => share),
      ...dossier.share.to.map(({ share }) => share),
    ),
  );
</script>

{#snippet steps(route: RouteStep[], ask: boolean)}
  <ol class="text-xs">
    {#each route as { address, title, byRedirect, gate }, i (address)}
      <li class="flex items-baseline gap-2 py-0.5">
        <span class="quiet tabular w-4 text-right" aria-hidden="true">{byRedirect ? '↪' : i === 0 ? '•' : '→'}</span>
        <a
          href={hrefOf({ page: address, at: '' })}
          data-sveltekit-noscroll
          class="min-w-0 flex-1 truncate font-mono hover:underline"
          title={title ?? address}>{short(address)}</a
        >
        {#if gate}<span class="lost font-semibold" title={texts.everyRouteToThisPagePasses}>{texts.gate}</span>
        {:else if ask && i > 0 && i < route.length - 1}
          <button
            type="button"
            class="quiet hover:text-primary {without === address ? 'font-semibold text-primary' : ''}"
            aria-pressed={without === address}
            title={texts.theRouteThatRemainsWithout}
            onclick={() => goWithout(address)}>{texts.withoutIt}</button
          >
        {/if}
      </li>
    {/each}
  </ol>
{/snippet}
{#snippet bars(parts: SharePart[])}
  {#each parts as { address, by, share } (`${address} ${by}`)}
    <li class="grid grid-cols-[minmax(0,1fr)_5rem_3rem] items-center gap-2 text-xs">
      <a
        href={hrefOf({ page: address, at: '' })}
        data-sveltekit-noscroll
        class="truncate py-0.5 font-mono hover:underline"
        title={by ? texts.byWayOf(address, by) : address}>{short(address)}{by ? ' ↪' : ''}</a
      >
      <span class="h-2 rounded-sm bg-base-200"
        ><span class="block h-2 rounded-sm bg-primary" style:width="{(100 * share) / most}%"></span></span
      >
      <span class="tabular text-right">{shareText(share)}</span>
    </li>
  {/each}
{/snippet}

<div class={wide ? 'grid max-w-6xl grid-cols-2 gap-x-12 gap-y-5' : 'space-y-4'}>
  <section>
    <h3 class="heading mb-1.5">{texts.fromDiscoveryToIndex}</h3>
    <ol>
      {#each dossier.steps as { text: words, evidence, state }, i (i)}
        {@const last = i === dossier.steps.length - 1}
        <li class="flex gap-2.5">
          <span class="flex flex-col items-center" aria-hidden="true">
            <svg width="14" height="14" viewBox="0 0 14 14" class="mt-0.5 shrink-0">
              {#if state === 'passed'}
                <circle cx="7" cy="7" r="6.5" fill="var(--color-primary)" />
                {#if !last}<path
                    d="M4 7.2 6.2 9.4 10 5"
                    fill="none"
                    stroke="var(--color-base-100)"
                    stroke-width="1.6"
                  />{/if}
              {:else if state === 'stopped'}
                <rect x="1" y="1" width="12" height="12" fill="none" stroke="var(--lost)" stroke-width="1.6" />
                <path d="M4 7h6" stroke="var(--lost)" stroke-width="2" />
              {:else}
                <circle
                  cx="7"
                  cy="7"
                  r="6"
                  fill="none"
                  stroke="var(--quiet)"
                  stroke-width="1.4"
                  stroke-dasharray="2.5 2"
                />
              {/if}
            </svg>
            {#if !last}<span class="w-px flex-1 bg-base-300"></span>{/if}
          </span>
          <span class="min-w-0 pb-2 {last ? 'font-semibold' : ''} {state === 'stopped' ? 'lost' : ''}">
            {words}
            {#if evidence}<span class="quiet block text-xs font-normal break-words">{evidence}</span>{/if}
          </span>
        </li>
      {/each}
    </ol>
    {#if dossier.endsAt}
      <p class="mt-1 text-xs">
        {texts.itEndsAt}
        <a
          href={hrefOf({ page: dossier.endsAt, at: '' })}
          data-sveltekit-noscroll
          class="font-mono text-primary hover:underline">{short(dossier.endsAt)}</a
        >
      </p>
    {/if}
  </section>

  <section>
    <h3 class="heading mb-1">{reader === 'crawler' ? texts.routeOfASearchCrawler : texts.route}</h3>
    {#if dossier.route.length}
      {@render steps(dossier.route, true)}
      {#if without}
        <div class="mt-1 border-l-2 border-secondary pl-2" aria-live="polite">
          {#if left === null}<p class="quiet text-xs">{texts.lookingForAnotherRoute}</p>
          {:else if left.length}
            <p class="quiet text-xs">{texts.withoutSteps(short(without), left.length - 1)}</p>
            {@render steps(left, false)}
          {:else}<p class="lost text-xs">{texts.withoutThereIsNoRoute(short(without))}</p>{/if}
        </div>
      {/if}
    {:else if reader === 'crawler' && f.reach === 'reached'}
      <p class="lost">
        {f.held_back ? texts.heldBack[f.held_back as keyof typeof texts.heldBack] : texts.onlyAVisitorGetsHere}
      </p>
    {:else}
      <p class="lost">
        {f.reach === 'orphan' ? texts.orphan : texts.onIsland}
        {#if f.reach === 'orphan'}<span class="quiet">{texts.itIsKnownFrom((f.seen_in as string[]) ?? [])}</span>{/if}
      </p>
    {/if}
    {#if dossier.routeBefore}
      <h3 class="heading mt-2 mb-1">{texts.routeBefore}</h3>
      {#if dossier.routeBefore.length}{@render steps(dossier.routeBefore, false)}
      {:else}<p class="quiet">{texts.noRouteBefore}</p>{/if}
    {/if}
  </section>

  <section>
    <h3 class="heading mb-1">
      {dossier.findings.length ? texts.findingsCounted(number(dossier.findings.length)) : texts.findings}
    </h3>
    <ul class="space-y-1">
      {#each dossier.findings as finding (finding.id)}
        <li>
          <a href={findingHref(base, finding)} class="text-primary hover:underline" data-sveltekit-noscroll
            >{finding.name}</a
          >
          {#if finding.worthALook}<span class="quiet text-xs">{texts.worthALook}</span>{/if}
          <a class="quiet text-xs hover:underline" href="/findings/{finding.id}" aria-label={texts.about(finding.name)}
            >?</a
          >
          <span class="block text-xs">
            {finding.rule}
            {#if finding.evidence.length}<span class="quiet"
                >{texts.here(finding.evidence.map(({ name, value }) => factText(name, value)).join(', '))}</span
              >{/if}
          </span>
          <span class="quiet block text-xs">{finding.remedy}</span>
        </li>
      {:else}
        <li class="quiet">{texts.noFindingIsAboutThisPage}</li>
      {/each}
    </ul>
  </section>

  {#if dossier.share.from.length + dossier.share.to.length > 0}
    <section>
      <h3 class="heading mb-1 flex justify-between">
        {texts.around}
        <a
          class="text-xs font-normal text-primary hover:underline"
          href={`${base}/maps?picture=links&page=${encodeURIComponent(dossier.address)}`}>{texts.onTheMap}</a
        >
      </h3>
      <EgoMap share={dossier.share} {short} {hrefOf} />
    </section>
  {/if}

  <section>
    <h3 class="heading mb-1"><Explained text={texts.whereItsShareComesFrom} /></h3>
    {#if typeof f.share === 'number' && f.share > 0}
      <ul>
        {@render bars(dossier.share.from)}
        {#if dossier.share.fromPages > dossier.share.from.length}<li class="quiet text-xs">
            {texts.andPagesMore(dossier.share.fromPages - dossier.share.from.length)}
          </li>{/if}
        <li class="quiet grid grid-cols-[minmax(0,1fr)_5rem_3rem] items-center gap-2 text-xs">
          <span>{texts.whatEveryPageHasAndSmaller}</span>
          <span class="h-2 rounded-sm bg-base-200"
            ><span class="block h-2 rounded-sm bg-primary/40" style:width="{(100 * dossier.share.rest) / most}%"
            ></span></span
          >
          <span class="tabular text-right">{shareText(dossier.share.rest)}</span>
        </li>
      </ul>
      <h3 class="heading mt-3 mb-1">{texts.whereItGoes}</h3>
      <ul>
        {@render bars(dossier.share.to)}
        {#if dossier.share.toPages > dossier.share.to.length}<li class="quiet text-xs">
            {texts.andPagesMore(dossier.share.toPages - dossier.share.to.length)}
          </li>{/if}
        {#if dossier.share.to.length === 0}<li class="quiet text-xs">
            {f.verdict === 'indexable' ? texts.nowhereItLinksToNoPage : texts.nowhereWhatCannotBeIndexedKeeps}
          </li>{/if}
      </ul>
    {:else}
      <p class="quiet text-xs">
        {f.share === 0 ? texts.allItGetsIsPassed : texts.noLinkLeads}
      </p>
    {/if}
  </section>
</div>
