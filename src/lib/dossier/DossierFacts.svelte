<!-- The facts of a page, its hits in logs, and the head of its answer. -->
<script lang="ts">
  import type { PageDossier } from '$core/answers';
  import { dossierFacts } from './dossierFacts';
  import { texts } from './texts';

  let { site, dossier, wide }: { site: { id: number; start: string }; dossier: PageDossier; wide: boolean } = $props();
</script>

<div class={wide ? 'grid max-w-6xl grid-cols-2 gap-x-12 gap-y-5' : 'space-y-4'}>
  <section>
    <h3 class="heading mb-1">{texts.facts}</h3>
    <dl class="facts text-xs">
      {#each dossierFacts(dossier.facts, site.start) as [label, value] (label)}
        <dt class="quiet">{label}</dt>
        <dd class="break-words">{value}</dd>
      {/each}
    </dl>
  </section>
  {#if dossier.hits}
    {@const most = Math.max(...dossier.hits.byDay.map(({ hits }) => hits), 1)}
    <section>
      <h3 class="heading mb-1">{texts.hitsInLogs}</h3>
      {#if dossier.hits.byDay.length}
        <div class="flex h-10 items-end gap-px" role="img" aria-label={texts.hitsByDay(dossier.hits.byDay.length)}>
          {#each dossier.hits.byDay as { day, hits } (day)}
            <span
              class="min-w-px flex-1 bg-primary"
              style:height="{(100 * hits) / most}%"
              title={texts.hitsOnDay(day, hits)}
            ></span>
          {/each}
        </div>
        <p class="quiet flex justify-between text-xs">
          <span>{dossier.hits.byDay[0].day}</span><span>{dossier.hits.byDay[dossier.hits.byDay.length - 1].day}</span>
        </p>
      {/if}
      <p class="text-xs">{texts.hitsByStatus(dossier.hits.byStatus)}</p>
    </section>
  {/if}
  <section class={wide ? 'col-span-2' : ''}>
    <h3 class="heading mb-1">{texts.responseHeaders}</h3>
    {#if dossier.headers}
      <pre class="font-mono text-xs break-all whitespace-pre-wrap">{dossier.headers}</pre>
    {:else}
      <p class="quiet text-xs">
        {texts.noHeadersAreStoredTheServer}
      </p>
    {/if}
  </section>
</div>

<style>
  .facts {
    display: grid;
    grid-template-columns: 6.5rem minmax(0, 1fr);
    gap: 0.15rem 0.5rem;
  }
</style>
