<script lang="ts">
  import { page } from '$app/state';
  import { texts } from '$lib/shell/texts';
</script>

<svelte:head><title>{texts.errorTitle(page.status)}</title></svelte:head>
<main class="mx-auto max-w-xl px-6 pt-24">
  <p class="quiet tabular">{page.status}</p>
  <h1 class="font-serif text-2xl">{page.error?.message}</h1>
  {#if page.error?.remedy}<p class="mt-2">{page.error.remedy}</p>{/if}
  <a href="/" class="btn btn-primary btn-sm mt-6">{texts.yourSites}</a>
</main>
