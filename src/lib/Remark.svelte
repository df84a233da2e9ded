<!-- What a reader must know before trusting the numbers: how the crawl ended, and what it left out. -->
<script lang="ts">
  interface Props {
    crawl: { state: string; reason: string | null; settings: { depth: number | null; robots: string } };
  }
  let { crawl }: Props = $props();

  const remarks = $derived([
    ...(crawl.reason ? [crawl.reason] : []),
    ...(crawl.settings.depth !== null ? [`Nothing deeper than ${crawl.settings.depth} clicks was fetched.`] : []),
    ...(crawl.reason || crawl.settings.depth !== null
      ? ['Pages that only unfetched pages link to count as without a route.']
      : []),
  ]);
</script>

{#if remarks.length}<p class="quiet mt-1">{remarks.join(' ')}</p>{/if}
