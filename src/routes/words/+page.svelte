<!-- The words of Edge Map's own. -->
<script lang="ts">
  import Brand from '$lib/shell/Brand.svelte';
  import { terms } from '$lib/shell/terms';
  import { texts } from '$lib/shell/texts';
</script>

<svelte:head><title>{texts.wordsEdgeMap}</title></svelte:head>
<Brand />
<main class="mx-auto max-w-3xl px-6 py-8">
  <h1 class="font-serif text-2xl">{texts.words}</h1>
  <p class="mt-1">
    {texts.edgeMapUsesTheTerms}
  </p>
  <dl class="mt-4 space-y-3">
    {#each Object.entries(terms) as [name, { word, text }] (name)}
      <div id={name} class="scroll-mt-4 rounded p-1 target:bg-primary/10">
        <dt class="font-semibold">{word}</dt>
        <dd>{text}</dd>
      </div>
    {/each}
  </dl>
  <p class="mt-6">
    <a class="text-primary underline" href="/findings/links_to_broken">{texts.allFindingsWithExamples}</a>
  </p>
</main>
