<script lang="ts">
  import { enhance } from '$app/forms';
  import Brand from '$lib/Brand.svelte';
  import { crawlPath } from '$lib/routes';
  import type { SettingsFaults, TypedSettings } from '$lib/settingsForm';
  import { moment, number, stateLabel } from '$lib/words';

  let { data, form } = $props();
  const typed: Partial<TypedSettings> | undefined = $derived(form?.typed ?? data.model);
  const faults: SettingsFaults = $derived(form?.faults ?? {});
  // Settings that differ from the defaults, or are wrong, must be in sight.
  const more = $derived(Boolean(data.model) || Object.keys(faults).some((name) => name !== 'start'));
  let sending = $state(false);
</script>

{#snippet hint(name: keyof SettingsFaults, text: string)}
  <span class={faults[name] ? 'lost' : 'quiet'}>{faults[name] ?? text}</span>
{/snippet}

{#snippet whole(name: 'limit' | 'depth' | 'connections', label: string, fallback: string, unit: string, text: string)}
  <label class="block">
    <span class="font-semibold">{label}</span>
    <span class="flex items-center gap-2">
      <input
        {name}
        inputmode="numeric"
        value={typed?.[name] ?? ''}
        placeholder={fallback}
        class="input input-sm tabular w-28"
      />
      {unit}
    </span>
    {@render hint(name, text)}
  </label>
{/snippet}

{#snippet lines(name: 'sitemaps' | 'overrides', label: string, example: string, text: string)}
  <label class="block">
    <span class="font-semibold">{label}</span>
    <textarea
      {name}
      rows="3"
      spellcheck="false"
      placeholder={example}
      class="textarea textarea-sm w-full font-mono"
      value={typed?.[name] ?? ''}></textarea>
    {@render hint(name, text)}
  </label>
{/snippet}

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
        {@render whole('limit', 'At most', '100000', 'pages', 'The crawl ends there and says so.')}
        {@render whole('depth', 'No deeper than', 'any', 'clicks', 'What lies deeper is known, not fetched.')}
        {@render whole('connections', 'Connections', '8', 'at once', 'Fewer are kinder to the server.')}
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
        {@render lines('sitemaps', 'Further sitemaps', '', 'One URL a line, besides those robots.txt names.')}
        <div class="col-span-2">
          {@render lines(
            'overrides',
            'Address overrides',
            'www.example.org=127.0.0.1:8080',
            'host=address:port, one a line, as a hosts file would: to map a staging copy under its final name.',
          )}
        </div>
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
