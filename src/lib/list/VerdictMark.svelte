<!-- A verdict as a shape: the colour only repeats it. `lost` draws the dashed ring of a page without a route. -->
<script lang="ts">
  import type { Verdict } from '$core/facts';

  let { verdict, lost = false, size = 12 }: { verdict: Verdict; lost?: boolean; size?: number } = $props();
  const ink = $derived(lost ? 'var(--lost)' : `var(--v-${verdict})`);
</script>

<svg width={size} height={size} viewBox="0 0 12 12" aria-hidden="true" style:color={ink} class="shrink-0">
  {#if lost}
    <circle cx="6" cy="6" r="4.4" fill="none" stroke="currentColor" stroke-width="1.6" stroke-dasharray="2.6 1.9" />
  {:else if verdict === 'indexable'}
    <circle cx="6" cy="6" r="4.6" fill="currentColor" />
  {:else if verdict === 'noindex'}
    <circle cx="6" cy="6" r="4.3" fill="none" stroke="currentColor" stroke-width="1.3" />
    <path d="M6 1.7a4.3 4.3 0 0 1 0 8.6z" fill="currentColor" />
  {:else if verdict === 'canonicalised'}
    <path d="M6 1 11 6 6 11 1 6z" fill="none" stroke="currentColor" stroke-width="1.6" />
  {:else if verdict === 'blocked'}
    <path d="M2 2h8v8H2zM2 10 10 2" fill="none" stroke="currentColor" stroke-width="1.5" />
  {:else if verdict === 'redirect'}
    <path d="M2.5 1.5 10 6 2.5 10.5 4.5 6z" fill="currentColor" />
  {:else if verdict === 'broken'}
    <path d="M2 2l8 8M10 2l-8 8" stroke="currentColor" stroke-width="2" fill="none" />
  {:else if verdict === 'failing'}
    <path d="M6 1.5v5.5M6 9v1.8" stroke="currentColor" stroke-width="2.2" fill="none" />
  {:else if verdict === 'unanswered'}
    <path d="M1.5 6h2M5 6h2M8.5 6h2" stroke="currentColor" stroke-width="2" fill="none" />
  {:else if verdict === 'not_html'}
    <path d="M3 1.5h4l2.5 2.5v6.5H3z" fill="none" stroke="currentColor" stroke-width="1.3" />
  {:else}
    <circle cx="6" cy="6" r="1.8" fill="none" stroke="currentColor" stroke-width="1.4" />
  {/if}
</svg>
