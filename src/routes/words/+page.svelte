<!-- The words of Edge Map's own. -->
<script lang="ts">
  import Brand from '$lib/shell/Brand.svelte';
  import { terms } from '$lib/shell/terms';
</script>

<svelte:head><title>Words · Edge Map</title></svelte:head>
<Brand />
<main class="mx-auto max-w-3xl px-6 py-8">
  <h1 class="font-serif text-2xl">Words</h1>
  <p class="mt-1">
    Edge Map uses the terms of the trade where there are any: crawl, orphan page, anchor text, canonical, noindex,
    redirect chain. These words are its own.
  </p>
  <dl class="mt-4 space-y-3">
    {#each Object.entries(terms) as [name, { word, text }] (name)}
      <div id={name} class="scroll-mt-4 rounded p-1 target:bg-primary/10">
        <dt class="font-semibold">{word}</dt>
        <dd>{text}</dd>
      </div>
    {/each}
  </dl>
  <p class="mt-6"><a class="text-primary underline" href="/findings/links_to_broken">All findings, with examples</a></p>
</main>
