<!-- What a draft of robots.txt changes, and what that costs. -->
<script lang="ts">
  import type { JudgedDraft, RobotsEffectCounts } from '$core/robotsEffect';
  import { number } from '../shell/words';
  import BenchAddresses from './BenchAddresses.svelte';
  import { benchTexts as texts } from './benchTexts';

  interface Props {
    judged: JudgedDraft;
    /** Null while it is being worked out. */
    costs: { counts: RobotsEffectCounts; routesLost: string[] } | null;
    start: string;
    pageHref: (address: string) => string;
  }
  let { judged, costs, start, pageHref }: Props = $props();
  const most = $derived(Math.max(1, ...judged.sections.map(({ closed, opened }) => closed + opened)));
  const percent = (part: number) => `${(100 * part).toFixed(part && Math.abs(part) < 0.01 ? 2 : 1)}%`;
</script>

<table class="w-full">
  <tbody>
    {#each [['closed', judged.closed.count], ['opened', judged.opened.count], ['still', judged.still]] as const as [kind, count] (kind)}
      <tr class="border-b border-base-300/60"
        ><td class="py-0.5">{texts.changes[kind]}</td><td
          class="tabular text-right {kind === 'closed' && count ? 'lost font-semibold' : ''}">{number(count)}</td
        ></tr
      >
    {/each}
    {#if costs}
      {#each ['indexable_lost', 'indexable_won', 'routes_lost', 'listed_closed'] as const as kind (kind)}
        <tr class="border-b border-base-300/60"
          ><td class="py-0.5">{texts.costs[kind]}</td><td
            class="tabular text-right {kind !== 'indexable_won' && costs.counts[kind] ? 'lost' : ''}"
            >{number(costs.counts[kind])}</td
          ></tr
        >
      {/each}
      <tr class="border-b border-base-300/60"
        ><td class="py-0.5">{texts.costs.share_lost}</td><td
          class="tabular text-right {costs.counts.share_lost > 0 ? 'lost' : ''}">{percent(costs.counts.share_lost)}</td
        ></tr
      >
    {:else}
      <tr><td colspan="2" class="quiet py-0.5">{texts.workingOut}</td></tr>
    {/if}
  </tbody>
</table>
{#if judged.sections.length}
  <h4 class="heading mt-2">{texts.bySection}</h4>
  {#each judged.sections as { section, closed, opened } (section)}
    <div class="flex items-center gap-2 py-0.5">
      <span class="w-28 truncate font-mono" title={section}>/{section}</span>
      <span class="flex h-2.5 flex-1"
        ><span style:width="{(100 * closed) / most}%" style:background="var(--color-secondary)"></span><span
          style:width="{(100 * opened) / most}%"
          style:background="var(--color-primary)"
        ></span></span
      >
      <span class="tabular">{texts.closedOpened(closed, opened)}</span>
    </div>
  {/each}
{/if}
{#each [['closed', judged.closed], ['opened', judged.opened], ['routes', { count: costs?.counts.routes_lost ?? 0, addresses: costs?.routesLost ?? [] }]] as const as [kind, { count, addresses }] (kind)}
  {#if count}
    <h4 class="heading mt-2">{texts.lists[kind]}</h4>
    <BenchAddresses {addresses} {count} {start} {pageHref} />
  {/if}
{/each}
