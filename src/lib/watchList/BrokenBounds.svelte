<!-- What breaks of the watch list, at the head of a screen. -->
<script lang="ts">
  import type { CheckedBound } from '$core/watchList';
  import { texts } from './texts';

  interface Props {
    bounds: CheckedBound[];
    hrefOf: (bound: CheckedBound) => string;
  }
  let { bounds, hrefOf }: Props = $props();
  const broken = $derived(bounds.filter(({ isBroken }) => isBroken));
</script>

{#if broken.length}
  <section class="mt-2 border-l-3 border-[var(--lost)] pl-3" aria-label={texts.heading} role="status">
    <h2 class="lost font-semibold">{texts.breaks(broken.length)}</h2>
    <ul>
      {#each broken as bound (bound.id)}
        <li>
          <a href={hrefOf(bound)} class="hover:underline"
            >{bound.atMost === null
              ? texts.brokenRise(bound.name, bound.before ?? 0, bound.count ?? 0)
              : texts.brokenAtMost(bound.name, bound.count ?? 0, bound.atMost)}</a
          >
        </li>
      {/each}
    </ul>
  </section>
{/if}
