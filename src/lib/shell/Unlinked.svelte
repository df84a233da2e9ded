<!-- Indexable pages without a route, without any link, and without a link from running text, side by side. -->
<script lang="ts">
  import type { UnlinkedCount } from '$core/answers';
  import Term from './Term.svelte';
  import { texts } from './texts';
  import { number } from './words';

  let { counts, href }: { counts: UnlinkedCount[]; href: (select: string) => string } = $props();
</script>

{#if counts.some(({ pages }) => pages > 0)}
  <p class="quiet mt-0.5">
    {texts.unlinkedPages}
    {#each counts as { lacks, pages, select }, i (lacks)}{i ? ' · ' : ' '}{#if pages}<a
          class="underline decoration-1 underline-offset-2"
          href={href(select)}>{number(pages)}</a
        >{:else}0{/if}
      {texts.lacks[lacks]}{/each}
    <Term of="running_text">{texts.runningText}</Term>
  </p>
{/if}
