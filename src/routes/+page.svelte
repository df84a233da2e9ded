<script lang="ts">
  import { enhance } from '$app/forms';
  import Brand from '$lib/shell/Brand.svelte';
  import { crawlPath } from '$lib/shell/routes';
  import { moment, number, stateLabel } from '$lib/shell/words';

  let { data, form } = $props();
  // What was typed comes back when it is refused.
  let start = $derived(form?.typed ?? '');
  let sending = $state(false);
</script>

<svelte:head><title>Edge Map</title></svelte:head>
<Brand />
<main class="mx-auto max-w-4xl px-6 py-10">
  <form
    method="post"
    use:enhance={() => {
      sending = true;
      return async ({ update }) => {
        await update({ reset: false });
        sending = false;
      };
    }}
  >
    <h1 class="font-serif text-2xl"><label for="start">Map a website</label></h1>
    <div class="mt-3 flex gap-2">
      <input
        id="start"
        name="start"
        bind:value={start}
        placeholder="https://www.example.org/"
        autocomplete="off"
        spellcheck="false"
        class="input flex-1 font-mono"
        aria-invalid={Boolean(form?.fault)}
        aria-describedby="start-fault"
      />
      <button class="btn btn-secondary" disabled={sending}>{sending ? 'Starting …' : 'Crawl'}</button>
      <a href="/settings?start={encodeURIComponent(start)}" class="btn btn-outline">Settings …</a>
    </div>
    <p id="start-fault" class="lost mt-1 min-h-5" role="alert">{form?.fault ?? ''}</p>
    <p class="quiet">
      Edge Map follows links from this address, obeys robots.txt and slows down when the server asks for it. Change
      scope, crawl rate and user agent in Settings.
    </p>
  </form>

  <h2 class="mt-10 mb-2 font-serif text-xl">Your sites</h2>
  {#if data.sites.length}
    <div class="panel overflow-hidden">
      <table class="w-full">
        <thead class="heading text-left text-xs">
          <tr class="border-b border-base-300">
            <th class="px-3 py-1.5">Start address</th>
            <th class="px-3">Latest crawl</th>
            <th class="px-3"></th>
            <th class="px-3 text-right">URLs known</th>
            <th class="px-3"><span class="sr-only">Settings</span></th>
          </tr>
        </thead>
        <tbody>
          {#each data.sites as { id, start, newest } (id)}
            <tr class="border-b border-base-300/60 last:border-0 hover:bg-base-200/70">
              <td class="max-w-0 w-1/2 truncate px-3 py-2 font-mono" title={start}>
                <a
                  href={newest ? crawlPath(id, newest.id) : `/settings?site=${id}`}
                  class="text-primary hover:underline">{start}</a
                >
              </td>
              <td class="tabular px-3 whitespace-nowrap">{moment(newest?.at ?? null)}</td>
              <td class="px-3 {newest?.state === 'failed' ? 'lost' : ''}"
                >{newest ? stateLabel[newest.state] : 'Not crawled yet'}</td
              >
              <td class="tabular px-3 text-right">{number(newest?.known)}</td>
              <td class="px-3 text-right"
                ><a href="/settings?site={id}" class="text-primary hover:underline">Settings</a></td
              >
            </tr>
          {/each}
        </tbody>
      </table>
    </div>
  {:else}
    <p class="quiet">There are no sites yet. Enter the address of a page above to map your first one.</p>
  {/if}
</main>
