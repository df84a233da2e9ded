<!-- The page of the documentation about one finding. -->
<script lang="ts">
  import Brand from '$lib/shell/Brand.svelte';
  import { texts } from '$lib/findings/texts';

  let { data } = $props();
  const questions = $derived([...new Set(data.all.map(({ question }) => question))]);
</script>

<svelte:head><title>{texts.pageTitle(data.name)}</title></svelte:head>
<div class="flex h-screen flex-col overflow-hidden">
  <Brand />
  <div class="flex min-h-0 flex-1">
    <nav
      class="w-72 shrink-0 overflow-y-auto border-r border-base-300 p-3 text-[0.8125rem]"
      aria-label={texts.findings}
    >
      {#each questions as question (question)}
        <h2 class="heading mt-3 mb-1 first:mt-0">{question}</h2>
        {#each data.all.filter((one) => one.question === question) as { id, name } (id)}
          <a
            href="/findings/{id}"
            aria-current={id === data.id ? 'page' : undefined}
            class="block rounded px-2 py-0.5 {id === data.id ? 'bg-base-100 font-semibold' : 'hover:bg-base-100/60'}"
            >{name}</a
          >
        {/each}
      {/each}
    </nav>
    <main class="min-w-0 flex-1 overflow-y-auto px-8 py-6">
      <article class="max-w-3xl">
        <p class="quiet">
          {data.question}{data.worthALook ? texts.worthALookARule : ''}
        </p>
        <h1 class="font-serif text-2xl">{data.name}</h1>
        <h2 class="heading mt-4">{texts.whenItIsReported}</h2>
        <p>{data.rule}</p>
        {#if data.select}
          <p class="mt-1">
            {texts.asASelectionOf(data.over)} <code class="font-mono text-[0.8125rem] break-words">{data.select}</code>
          </p>
        {/if}
        <h2 class="heading mt-4">{texts.whyItMatters}</h2>
        <p>{data.why}</p>
        <h2 class="heading mt-4">{texts.howToFixIt}</h2>
        <p>{data.remedy}</p>
        <div class="mt-2 grid grid-cols-2 gap-4">
          {#each [[texts.before, data.before], [texts.after, data.after]] as [label, code] (label)}
            <figure>
              <figcaption class="quiet text-xs">{label}</figcaption>
              <pre class="panel overflow-x-auto p-3 font-mono text-xs whitespace-pre-wrap">{code}</pre>
            </figure>
          {/each}
        </div>
        {#if data.related.length}
          <h2 class="heading mt-4">{texts.seeAlso}</h2>
          <ul>
            {#each data.related as { id, name } (id)}
              <li><a class="text-primary hover:underline" href="/findings/{id}">{name}</a></li>
            {/each}
          </ul>
        {/if}
        <h2 class="heading mt-4">{texts.whenToIgnoreIt}</h2>
        <p>{data.ignore}</p>
        <p class="quiet mt-1">
          {texts.toIgnoreItOpenTheQuestion}
        </p>
      </article>
    </main>
  </div>
</div>
