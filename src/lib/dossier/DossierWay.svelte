<!-- The way of a page from discovery to index, its route from the start, its findings, and its share. -->
<script lang="ts">
  import type { PageDossier, RouteStep, SharePart } from '$core/answers';
  import type { Reader } from '$core/reach';
  import type { ScreenState } from '../shell/address';
  import Term from '../shell/Term.svelte';
  import { factText, shareText } from './dossierFacts';
  import { findingHref } from '../shell/routes';
  import { number, shortAddress } from '../shell/words';

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
        {#if gate}<span class="lost font-semibold" title="Every route to this page passes through here">gate</span>
        {:else if ask && i > 0 && i < route.length - 1}
          <button
            type="button"
            class="quiet hover:text-primary {without === address ? 'font-semibold text-primary' : ''}"
            aria-pressed={without === address}
            title="The route that remains without this page"
            onclick={() => goWithout(address)}>without it</button
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
        title={by ? `${address}, by way of ${by}` : address}>{short(address)}{by ? ' ↪' : ''}</a
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
    <h3 class="heading mb-1.5">From discovery to index</h3>
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
        It ends at <a
          href={hrefOf({ page: dossier.endsAt, at: '' })}
          data-sveltekit-noscroll
          class="font-mono text-primary hover:underline">{short(dossier.endsAt)}</a
        >
      </p>
    {/if}
  </section>

  <section>
    <h3 class="heading mb-1">Route{reader === 'crawler' ? ' of a search crawler' : ''}</h3>
    {#if dossier.route.length}
      {@render steps(dossier.route, true)}
      {#if without}
        <div class="mt-1 border-l-2 border-secondary pl-2" aria-live="polite">
          {#if left === null}<p class="quiet text-xs">Looking for another route …</p>
          {:else if left.length}
            <p class="quiet text-xs">Without {short(without)}, {number(left.length - 1)} steps:</p>
            {@render steps(left, false)}
          {:else}<p class="lost text-xs">Without {short(without)} there is no route.</p>{/if}
        </div>
      {/if}
    {:else if reader === 'crawler' && f.reach === 'reached'}
      <p class="lost">
        A visitor gets here, a search crawler does not{f.held_back
          ? `: it is kept back by ${f.held_back === 'robots' ? 'robots.txt' : f.held_back === 'both' ? 'nofollow and robots.txt' : 'nofollow'}`
          : ''}.
      </p>
    {:else}
      <p class="lost">
        No route: {f.reach === 'orphan'
          ? 'no page links to it.'
          : 'only pages link to it that have no route themselves.'}
        {#if f.reach === 'orphan'}<span class="quiet"
            >It is known from {(f.seen_in as string[])?.join(', ') || 'nowhere'}.</span
          >{/if}
      </p>
    {/if}
  </section>

  <section>
    <h3 class="heading mb-1">{dossier.findings.length ? `Findings (${dossier.findings.length})` : 'Findings'}</h3>
    <ul class="space-y-1">
      {#each dossier.findings as finding (finding.id)}
        <li>
          <a href={findingHref(base, finding)} class="text-primary hover:underline" data-sveltekit-noscroll
            >{finding.name}</a
          >
          {#if finding.worthALook}<span class="quiet text-xs">(worth a look)</span>{/if}
          <a class="quiet text-xs hover:underline" href="/findings/{finding.id}" aria-label="About “{finding.name}”"
            >?</a
          >
          <span class="block text-xs"
            >{finding.rule}{#if finding.evidence.length}
              <span class="quiet"
                >Here: {finding.evidence.map(({ name, value }) => factText(name, value)).join(', ')}.</span
              >{/if}</span
          >
          <span class="quiet block text-xs">{finding.remedy}</span>
        </li>
      {:else}
        <li class="quiet">No finding is about this page.</li>
      {/each}
    </ul>
  </section>

  <section>
    <h3 class="heading mb-1">Where its <Term of="share">share</Term> comes from</h3>
    {#if typeof f.share === 'number' && f.share > 0}
      <ul>
        {@render bars(dossier.share.from)}
        {#if dossier.share.fromPages > dossier.share.from.length}<li class="quiet text-xs">
            and {number(dossier.share.fromPages - dossier.share.from.length)} pages more
          </li>{/if}
        <li class="quiet grid grid-cols-[minmax(0,1fr)_5rem_3rem] items-center gap-2 text-xs">
          <span>what every page has, and smaller sources</span>
          <span class="h-2 rounded-sm bg-base-200"
            ><span class="block h-2 rounded-sm bg-primary/40" style:width="{(100 * dossier.share.rest) / most}%"
            ></span></span
          >
          <span class="tabular text-right">{shareText(dossier.share.rest)}</span>
        </li>
      </ul>
      <h3 class="heading mt-3 mb-1">Where it goes</h3>
      <ul>
        {@render bars(dossier.share.to)}
        {#if dossier.share.toPages > dossier.share.to.length}<li class="quiet text-xs">
            and {number(dossier.share.toPages - dossier.share.to.length)} pages more
          </li>{/if}
        {#if dossier.share.to.length === 0}<li class="quiet text-xs">
            {f.verdict === 'indexable'
              ? 'Nowhere: it links to no page of the site.'
              : 'Nowhere: what cannot be indexed keeps what it gets.'}
          </li>{/if}
      </ul>
    {:else}
      <p class="quiet text-xs">
        {f.share === 0 ? 'All it gets is passed on to where it ends.' : 'No link leads to it or from it.'}
      </p>
    {/if}
  </section>
</div>
