<!-- What a site is made of, as one bar: a length for each verdict. -->
<script lang="ts">
  import type { Verdict } from '$core/facts';
  import { number, verdictLabel } from '../shell/words';
  import { texts } from './texts';

  let { verdicts }: { verdicts: { verdict: Verdict; pages: number }[] } = $props();
  const HEIGHT = 20;
  let width = $state(480);
  const all = $derived(verdicts.reduce((sum, { pages }) => sum + pages, 0));
  /** Even the rarest verdict is seen. */
  const long = (pages: number) => Math.max(2, ((width - 2 * verdicts.length) * pages) / all);
  const parts = $derived(
    verdicts.map(({ verdict, pages }, i) => ({
      verdict,
      pages,
      from: verdicts.slice(0, i).reduce((sum, { pages }) => sum + long(pages) + 1, 0),
    })),
  );
</script>

<div bind:clientWidth={width}>
  <svg {width} height={HEIGHT} class="max-w-full" role="img" aria-label={texts.pagesByVerdict}>
    {#each parts as { verdict, pages, from } (verdict)}
      <rect x={from} width={long(pages)} height={HEIGHT} rx="1.5" fill="var(--v-{verdict})"
        ><title>{verdictLabel[verdict]}: {number(pages)}</title></rect
      >
    {/each}
  </svg>
</div>
