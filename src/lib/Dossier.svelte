<!-- What is known of one page: its route, its way from discovery to index, and what links to it. -->
<script lang="ts">
  import type { Dossier } from '$core/answers';
  import type { Reach } from '$core/reach';
  import type { Verdict } from '$core/verdict';
  import { dossierFacts, known } from './dossierFacts';
  import VerdictMark from './VerdictMark.svelte';
  import { number, reachLabel, shortAddress, verdictLabel } from './words';

  interface Props {
    /** Where dossiers are asked for. */
    source: string;
    address: string;
    start: string;
    hrefOf: (address: string) => string;
    closeHref: string;
  }
  let { source, address, start, hrefOf, closeHref }: Props = $props();

  const asked = $derived(read(source, address));
  async function read(from: string, page: string): Promise<Dossier> {
    const response = await fetch(`${from}?page=${encodeURIComponent(page)}`);
    if (!response.ok)
      throw new Error(
        response.status === 404
          ? 'This crawl does not know the page.'
          : 'The dossier could not be read. Is Edge Map still running?',
      );
    return response.json();
  }
  const short = (of: string) => shortAddress(of, start);
</script>

<aside class="dossier flex w-72 shrink-0 xl:w-86 flex-col border-l border-base-300 bg-base-100" aria-label="Dossier">
  {#await asked}
    <p class="quiet p-4">Opening {short(address)} …</p>
  {:then dossier}
    {@const f = dossier.facts}
    {@const lost = f.reach !== 'reached'}
    <div class="flex items-center justify-between gap-2 px-4 pt-3">
      <span class="flex items-center gap-1.5 rounded border border-base-300 px-2 py-0.5 text-xs">
        <VerdictMark verdict={f.verdict as Verdict} />
        {verdictLabel[f.verdict as Verdict]}
        {#if lost}
          <VerdictMark verdict={f.verdict as Verdict} {lost} />
          <span class="lost">{reachLabel[f.reach as Reach]}</span>
        {/if}
      </span>
      <span class="flex gap-3 text-xs">
        <a
          href={dossier.address}
          target="_blank"
          rel="noreferrer noopener nofollow"
          class="text-primary hover:underline">Open page ↗</a
        >
        <a href={closeHref} class="quiet hover:underline" data-sveltekit-noscroll aria-label="Close the dossier"
          >Close ✕</a
        >
      </span>
    </div>
    <div class="min-h-0 flex-1 space-y-4 overflow-y-auto px-4 pt-2 pb-6">
      <div>
        <h2 class="font-serif text-lg leading-tight">{f.title || short(dossier.address)}</h2>
        <p class="quiet font-mono text-xs break-all">{short(dossier.address)}</p>
      </div>

      <dl class="grid grid-cols-4 gap-2">
        {#each [['Depth', lost ? 'none' : number(f.depth)], ['Pages linking', number(f.pages_linking)], ['Links out', number(f.links_out)], ['Status', known(f.status)]] as [label, value] (label)}
          <div>
            <dt class="quiet text-xs">{label}</dt>
            <dd class="tabular text-base font-semibold">{value}</dd>
          </div>
        {/each}
      </dl>

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
                {#if evidence}<span class="quiet block text-xs font-normal break-words">{short(evidence)}</span>{/if}
              </span>
            </li>
          {/each}
        </ol>
      </section>

      <section>
        <h3 class="heading mb-1.5">Route from the start</h3>
        {#if dossier.route.length}
          <ol class="border-l-2 border-primary/40 pl-3">
            {#each dossier.route as { address: at, title, byRedirect }, i (at)}
              <li class="pb-1">
                <a
                  href={hrefOf(at)}
                  class="block truncate font-mono text-xs hover:underline"
                  title={at}
                  data-sveltekit-noscroll
                >
                  {byRedirect ? '↳ ' : ''}{short(at)}
                </a>
                <span class="quiet block truncate text-xs"
                  >{i === 0 ? 'start' : byRedirect ? 'by redirect' : (title ?? '')}</span
                >
              </li>
            {/each}
          </ol>
        {:else}
          <p class="lost">
            No route: {f.reach === 'orphan'
              ? 'no page links to it.'
              : 'only pages link to it that have no route themselves.'}
          </p>
        {/if}
      </section>

      <section>
        <h3 class="heading mb-1.5">
          {dossier.linkingTotal === 1 ? '1 page links' : `${number(dossier.linkingTotal)} pages link`} here
        </h3>
        {#if dossier.linkingTotal > dossier.linking.length}
          <p class="quiet text-xs">The {dossier.linking.length} nearest to the start:</p>
        {/if}
        <ul class="divide-y divide-base-300/70">
          {#each dossier.linking as { address: from, links } (from)}
            <li class="py-1.5">
              <a
                href={hrefOf(from)}
                class="block truncate font-mono text-xs hover:underline"
                title={from}
                data-sveltekit-noscroll>{short(from)}</a
              >
              {#each links.slice(0, 3) as { anchor, rel, landmark, line, column, path } (`${line}:${column}`)}
                <div class="flex gap-2 text-xs">
                  <span class="min-w-0 flex-1 truncate" title={anchor}
                    >{#if anchor}“{anchor}”{:else}<span class="lost">no words</span>{/if}</span
                  >
                  <span class="quiet tabular whitespace-nowrap" title={path}
                    >{landmark}{rel ? ` ${rel}` : ''} line {line}:{column}</span
                  >
                </div>
              {/each}
              {#if links.length > 3}<p class="quiet text-xs">and {links.length - 3} more on this page</p>{/if}
            </li>
          {/each}
        </ul>
      </section>

      <section>
        <h3 class="heading mb-1.5">Facts</h3>
        <dl class="facts text-xs">
          {#each dossierFacts(f, start) as [label, value] (label)}
            <dt class="quiet">{label}</dt>
            <dd class="break-words">{value}</dd>
          {/each}
        </dl>
      </section>
    </div>
  {:catch error}
    <div class="p-4">
      <p class="lost" role="alert">{(error as Error).message}</p>
      <a href={closeHref} class="text-primary underline">Close</a>
    </div>
  {/await}
</aside>

<style>
  .facts {
    display: grid;
    grid-template-columns: 6.5rem minmax(0, 1fr);
    gap: 0.15rem 0.5rem;
  }
</style>
