<!-- A verdict as a shape: the colour only repeats it. `lost` draws the dashed ring of a page without a route. -->
<script lang="ts">
  import type { Verdict } from '$core/facts';
  import { verdictShapes } from './verdictShapes';

  let { verdict, lost = false, size = 12 }: { verdict: Verdict; lost?: boolean; size?: number } = $props();
  const ink = $derived(lost ? 'var(--lost)' : `var(--v-${verdict})`);
  const { filled, line, width, dashes } = $derived(verdictShapes[lost ? 'lost' : verdict]);
</script>

<svg width={size} height={size} viewBox="0 0 12 12" aria-hidden="true" style:color={ink} class="shrink-0">
  {#if line}<path d={line} fill="none" stroke="currentColor" stroke-width={width} stroke-dasharray={dashes} />{/if}
  {#if filled}<path d={filled} fill="currentColor" />{/if}
</svg>
