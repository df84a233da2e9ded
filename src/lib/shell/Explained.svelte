<!-- A text in which words of ours stand as `[word|term]`, each with its tooltip. -->
<script lang="ts">
  import Term from './Term.svelte';
  import type { TermName } from './terms';

  let { text }: { text: string } = $props();
  /** Odd parts are words of ours. */
  const parts = $derived(text.split(/\[([^\]]+)\]/));
</script>

{#each parts as part, i (i)}{#if i % 2}{@const [word, term] = part.split('|')}<Term of={term as TermName}>{word}</Term
    >{:else}{part}{/if}{/each}
