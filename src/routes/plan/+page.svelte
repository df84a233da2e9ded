<!-- A site that does not exist yet, from an outline of its pages. -->
<script lang="ts">
  import { enhance } from '$app/forms';
  import Brand from '$lib/shell/Brand.svelte';
  import OutlineFaults from '$lib/structure/OutlineFaults.svelte';
  import { texts } from '$lib/structure/texts';

  let { form } = $props();
  let start = $derived(form?.typed ?? '');
  let outline = $derived(form?.outline ?? '');
  const hasFaults = $derived(Boolean(form && 'faults' in form && form.faults?.length));
</script>

<svelte:head><title>{texts.planTitle}</title></svelte:head>
<Brand />
<main class="mx-auto max-w-4xl px-6 py-8">
  <h1 class="font-serif text-2xl">{texts.planHeading}</h1>
  <p class="quiet mt-1 max-w-prose">{texts.planAbout}</p>
  <form
    method="post"
    class="mt-4 grid gap-3"
    use:enhance={() =>
      ({ update }) =>
        update({ reset: false })}
  >
    <label class="grid gap-1"
      ><span>{texts.start}</span>
      <input
        name="start"
        class="input w-full font-mono"
        required
        bind:value={start}
        placeholder={texts.startExample}
        spellcheck="false"
        aria-invalid={Boolean(form?.fault)}
      /></label
    >
    {#if form?.fault}<p class="lost" role="alert">{form.fault}</p>{/if}
    <label class="grid gap-1"
      ><span>{texts.outline}</span>
      <textarea
        name="outline"
        class="textarea h-80 w-full font-mono text-sm"
        required
        bind:value={outline}
        placeholder={texts.outlineExample}
        spellcheck="false"></textarea></label
    >
    <p class="quiet text-xs">{texts.outlineHint}</p>
    {#if form && 'faults' in form && form.faults}
      <OutlineFaults faults={form.faults} count={form.faultCount ?? 0} pages={form.pages ?? 0} />
    {/if}
    <div class="flex items-center gap-3">
      <button class="btn btn-secondary">{texts.plan}</button>
      {#if hasFaults}<button class="btn btn-outline" name="anyway" value="1">{texts.planAnyway}</button>{/if}
      <a class="text-primary hover:underline" href="/">{texts.back}</a>
    </div>
  </form>
</main>
