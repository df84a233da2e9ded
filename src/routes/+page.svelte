<script lang="ts">
  import { enhance } from '$app/forms';
  import Brand from '$lib/Brand.svelte';
  import { crawlPath } from '$lib/routes';
  import { moment, number, stateLabel } from '$lib/words';

  let { data, form } = $props();
  const typed = $derived(form?.typed ?? data.model);
  const faults = $derived(form?.faults ?? {});
  // Settings that differ from the defaults, or are wrong, must be in sight.
  const more = $derived(Boolean(data.model) || Object.keys(faults).some((name) => name !== 'start'));
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
    <h1 class="font-serif text-2xl"><label for="start">Which site is to be mapped?</label></h1>
    <div class="mt-3 flex gap-2">
      <input
        id="start"
        name="start"
        value={typed?.start ?? ''}
        placeholder="https://www.example.org/"
        autocomplete="off"
        spellcheck="false"
        class="input flex-1 font-mono"
        aria-invalid={Boolean(faults.start)}
        aria-describedby="start-fault"
      />
      <!-- prettier-ignore -->
      <button class="btn btn-secondary" disabled={sending}>{sending ? 'Starting …' : 'Crawl'}</button>
    </div>
    <p id="start-fault" class="lost mt-1 min-h-5" role="alert">{faults.start ?? ''}</p>

    <details open={more}>
      <summary class="cursor-pointer text-primary">Settings</summary>
      <div class="panel mt-2 grid grid-cols-3 gap-x-6 gap-y-3 p-4">
        <label class="block">
          <span class="font-semibold">At most</span>
          <span class="flex items-center gap-2"
            ><input
              name="limit"
              inputmode="numeric"
              value={typed?.limit ?? ''}
              placeholder="100000"
              class="input input-sm tabular w-28"
            /> pages</span
          >
          <span class={faults.limit ? 'lost' : 'quiet'}>{faults.limit ?? 'The crawl ends there and says so.'}</span>
        </label>
        <label class="block">
          <span class="font-semibold">No deeper than</span>
          <span class="flex items-center gap-2"
            ><input
              name="depth"
              inputmode="numeric"
              value={typed?.depth ?? ''}
              placeholder="any"
              class="input input-sm tabular w-28"
            /> clicks</span
          >
          <span class={faults.depth ? 'lost' : 'quiet'}
            >{faults.depth ?? 'What lies deeper is known, not fetched.'}</span
          >
        </label>
        <label class="block">
          <span class="font-semibold">Connections</span>
          <span class="flex items-center gap-2"
            ><input
              name="connections"
              inputmode="numeric"
              value={typed?.connections ?? ''}
              placeholder="8"
              class="input input-sm tabular w-28"
            /> at once</span
          >
          <span class={faults.connections ? 'lost' : 'quiet'}
            >{faults.connections ?? 'Fewer are kinder to the server.'}</span
          >
        </label>
        <fieldset class="col-span-3 flex flex-wrap items-center gap-x-6">
          <legend class="font-semibold">robots.txt</legend>
          <label class="flex items-center gap-2"
            ><input
              type="radio"
              name="robots"
              value="obey"
              class="radio radio-xs"
              checked={typed?.robots !== 'look-past'}
            /> Obey it: closed pages are known, not fetched</label
          >
          <label class="flex items-center gap-2"
            ><input
              type="radio"
              name="robots"
              value="look-past"
              class="radio radio-xs"
              checked={typed?.robots === 'look-past'}
            /> Look past it: fetch them too, and report what closes them</label
          >
        </fieldset>
        <label class="col-span-3 block sm:col-span-1">
          <span class="font-semibold">Further sitemaps</span>
          <textarea
            name="sitemaps"
            rows="3"
            spellcheck="false"
            class="textarea textarea-sm w-full font-mono"
            value={typed?.sitemaps ?? ''}></textarea>
          <span class={faults.sitemaps ? 'lost' : 'quiet'}
            >{faults.sitemaps ?? 'One URL a line, besides those robots.txt names.'}</span
          >
        </label>
        <label class="col-span-3 block sm:col-span-2">
          <span class="font-semibold">Address overrides</span>
          <textarea
            name="overrides"
            rows="3"
            spellcheck="false"
            placeholder="www.example.org=127.0.0.1:8080"
            class="textarea textarea-sm w-full font-mono"
            value={typed?.overrides ?? ''}></textarea>
          <span class={faults.overrides ? 'lost' : 'quiet'}
            >{faults.overrides ??
              'host=address:port, one a line, as a hosts file would: to map a staging copy under its final name.'}</span
          >
        </label>
        <label class="col-span-3 flex items-center gap-2">
          <input
            type="checkbox"
            name="acceptCertificates"
            class="checkbox checkbox-xs"
            checked={typed?.acceptCertificates === 'on'}
          />
          Accept certificates that cannot be checked
        </label>
      </div>
    </details>
  </form>

  <h2 class="mt-10 mb-2 font-serif text-xl">Sites</h2>
  {#if data.sites.length}
    <div class="panel overflow-hidden">
      <table class="w-full">
        <thead class="heading text-left text-xs">
          <tr class="border-b border-base-300">
            <th class="px-3 py-1.5">Start address</th>
            <th class="px-3">Newest crawl</th>
            <th class="px-3"></th>
            <th class="px-3 text-right">URLs known</th>
          </tr>
        </thead>
        <tbody>
          {#each data.sites as { id, start, newest } (id)}
            <tr class="border-b border-base-300/60 last:border-0 hover:bg-base-200/70">
              <td class="max-w-0 w-1/2 truncate px-3 py-2 font-mono" title={start}>
                <a href={newest ? crawlPath(id, newest.id) : `/?like=${id}`} class="text-primary hover:underline"
                  >{start}</a
                >
              </td>
              <td class="tabular px-3 whitespace-nowrap">{moment(newest?.startedAt ?? newest?.createdAt ?? null)}</td>
              <td class="px-3 {newest?.state === 'failed' ? 'lost' : ''}"
                >{newest ? stateLabel[newest.state] : 'Not crawled yet'}</td
              >
              <td class="tabular px-3 text-right">{number(newest?.known)}</td>
            </tr>
          {/each}
        </tbody>
      </table>
    </div>
  {:else}
    <p class="quiet">None yet. Give the address of a page above, and Edge Map follows its links from there.</p>
  {/if}
</main>
