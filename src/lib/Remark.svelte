<!-- What a reader must know before trusting the numbers: how the crawl ended, and what it left out. -->
<script lang="ts">
  interface Props {
    /** Where the crawl is. */
    base: string;
    crawl: { state: string; reason: string | null; settings: { depth: number | null; robots: string } };
  }
  let { base, crawl }: Props = $props();

  const remarks = $derived([
    ...(crawl.reason ? [crawl.reason] : []),
    ...(crawl.settings.depth !== null ? [`Nothing deeper than ${crawl.settings.depth} clicks was fetched.`] : []),
    ...(crawl.reason || crawl.settings.depth !== null
      ? ['Pages that only unfetched pages link to count as without a route.']
      : []),
  ]);
</script>

{#if remarks.length}
  <div class="quiet mt-1 flex items-baseline gap-3">
    <p>{remarks.join(' ')}</p>
    {#if crawl.state === 'stopped'}
      <form method="post" action="{base}/watch?/continue">
        <button class="font-semibold whitespace-nowrap text-primary hover:underline">Continue the crawl</button>
      </form>
    {/if}
  </div>
{/if}
