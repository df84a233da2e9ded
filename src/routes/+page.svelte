<script lang="ts">
  import { deserialize, enhance } from '$app/forms';
  import { invalidateAll } from '$app/navigation';
  import type { SubmitFunction } from '@sveltejs/kit';
  import { changesBetween } from '$lib/home/changes';
  import { planOf } from '$lib/home/plan';
  import Brand from '$lib/shell/Brand.svelte';
  import Menu from '$lib/shell/Menu.svelte';
  import Moment from '$lib/shell/Moment.svelte';
  import { crawlPath } from '$lib/shell/routes';
  import { say, sayUndoable } from '$lib/shell/say.svelte';
  import { bytes, duration, moment, number, stateLabel } from '$lib/shell/words';

  let { data, form } = $props();
  // What was typed comes back when it is refused.
  let start = $derived(form?.typed ?? '');
  let sending = $state<'crawl' | 'demo' | null>(null);
  const plan = $derived(planOf(start, data.sites, data.defaults));
  const nameOf = (siteId: number) => {
    const site = data.sites.find(({ id }) => id === siteId);
    return site ? (site.name ?? site.start) : '';
  };

  /** Sends one of the actions of this page. @returns what it gave; null when it failed, which has been said */
  async function act(action: string, fields: Record<string, string | number>): Promise<Record<string, number> | null> {
    const body = new FormData();
    for (const [name, value] of Object.entries(fields)) body.set(name, String(value));
    const response = await fetch(`?/${action}`, { method: 'POST', body }).catch(() => null);
    const result = response && deserialize<Record<string, number>, { problem?: string }>(await response.text());
    if (result?.type === 'success') {
      await invalidateAll();
      return result.data ?? {};
    }
    const problem = result?.type === 'failure' ? result.data?.problem : null;
    say(problem ?? 'That could not be done. Check that Edge Map is still running, and try again.', true);
    return null;
  }
  async function remove(action: 'deleteSite' | 'deleteCrawl', fields: Record<string, number>, text: string) {
    const deleted = await act(action, fields);
    if (!deleted) return;
    sayUndoable(text, data.undoSeconds, () => void act('undo', { site: deleted.site, at: deleted.at }));
  }
  async function rename(event: SubmitEvent, site: number, close: () => void) {
    event.preventDefault();
    const name = String(new FormData(event.currentTarget as HTMLFormElement).get('name') ?? '');
    close();
    if (await act('rename', { site, name }))
      say(name.trim() ? `The site is called “${name.trim()}”.` : 'The site is called by its address.');
  }
  /** Tells which form is under way until its answer is shown. */
  const sends =
    (what: 'crawl' | 'demo'): SubmitFunction =>
    () => {
      sending = what;
      return async ({ update }) => {
        await update({ reset: false });
        sending = null;
      };
    };

  const item = 'block w-full rounded px-2 py-1 text-left hover:bg-base-200';
</script>

<svelte:head><title>Edge Map</title></svelte:head>
<Brand />
<main class="mx-auto max-w-5xl px-6 py-8">
  <form method="post" action="?/crawl" use:enhance={sends('crawl')}>
    <h1 class="font-serif text-2xl"><label for="start">Map a website</label></h1>
    <div class="mt-3 flex gap-2">
      <input
        id="start"
        name="start"
        bind:value={start}
        placeholder="example.org"
        autocomplete="off"
        spellcheck="false"
        class="input input-lg flex-1 font-mono text-base"
        aria-invalid={Boolean(form?.fault)}
        aria-describedby="start-fault start-plan"
      />
      <button class="btn btn-secondary btn-lg" disabled={sending !== null}
        >{sending === 'crawl' ? 'Starting …' : 'Crawl'}</button
      >
      <a href="/settings?start={encodeURIComponent(start)}" class="btn btn-outline btn-lg">Settings …</a>
    </div>
    {#if form?.fault}<p id="start-fault" class="lost mt-1.5" role="alert">{form.fault}</p>{/if}
    <p id="start-plan" class="quiet mt-1.5">
      {plan ??
        'Enter the address of a home page; https:// is added where it is missing. Edge Map follows links from there, obeys robots.txt and slows down when the server asks for it.'}
    </p>
  </form>

  {#if data.sites.length}
    <h2 class="mt-8 mb-2 font-serif text-xl">Your sites</h2>
    <div class="panel">
      <table class="w-full">
        <thead class="heading text-left text-xs">
          <tr class="border-b border-base-300">
            <th class="px-3 py-1.5">Site</th>
            <th class="px-3">Latest crawl</th>
            <th class="px-3 text-right">URLs</th>
            <th class="px-3 text-right" title="Pages that search engines may index">Indexable</th>
            <th class="px-3 text-right">Findings</th>
            <th class="px-3">Since the crawl before</th>
            <th class="px-3"><span class="sr-only">Actions</span></th>
          </tr>
        </thead>
        <tbody>
          {#each data.sites as { id, start, name, newest, before } (id)}
            <tr class="border-b border-base-300/60 last:border-0 hover:bg-base-200/70">
              <td class="max-w-0 w-2/5 px-3 py-1.5" title={start}>
                <a
                  href={newest ? crawlPath(id, newest.id) : `/settings?site=${id}`}
                  class="block truncate text-primary hover:underline {name ? 'font-semibold' : 'font-mono'}"
                  >{name ?? start}</a
                >
                {#if name}<span class="quiet block truncate font-mono text-xs">{start}</span>{/if}
              </td>
              <td class="tabular px-3 whitespace-nowrap">
                {#if newest}<Moment at={newest.at} />
                  <span class={newest.state === 'failed' ? 'lost' : 'quiet'}
                    >{newest.state === 'done' ? '' : stateLabel[newest.state].toLowerCase()}</span
                  >{:else}<span class="quiet">Not crawled yet</span>{/if}
              </td>
              <td class="tabular px-3 text-right">{number(newest?.known)}</td>
              <td class="tabular px-3 text-right">{number(newest?.counts?.indexable)}</td>
              <td class="tabular px-3 text-right">{number(newest?.counts?.findings)}</td>
              <td class="quiet px-3 text-xs">{changesBetween(newest?.counts ?? null, before?.counts ?? null) ?? '—'}</td
              >
              <td class="px-2 text-right">
                <Menu label="More" about="More actions for {name ?? start}">
                  {#snippet children(close)}
                    <form method="post" action="?/again">
                      <input type="hidden" name="site" value={id} />
                      <button class={item}>Crawl again</button>
                    </form>
                    <a class={item} href="/settings?site={id}">Settings</a>
                    <form class="flex gap-1.5 px-2 py-1" onsubmit={(event) => rename(event, id, close)}>
                      <input
                        name="name"
                        value={name ?? ''}
                        maxlength="80"
                        placeholder="Name of the site"
                        aria-label="Name of the site"
                        class="input input-xs w-44"
                      />
                      <button class="btn btn-outline btn-xs">Rename</button>
                    </form>
                    <button
                      type="button"
                      class="{item} lost"
                      onclick={() => {
                        close();
                        void remove(
                          'deleteSite',
                          { site: id },
                          `${name ?? start} is deleted, with all its crawls, settings and saved selections.`,
                        );
                      }}>Delete site and its crawls</button
                    >
                  {/snippet}
                </Menu>
              </td>
            </tr>
          {/each}
        </tbody>
      </table>
    </div>

    {#if data.recent.length}
      <h2 class="mt-8 mb-2 font-serif text-xl">Recent crawls</h2>
      <div class="panel overflow-hidden">
        <table class="w-full">
          <thead class="heading text-left text-xs">
            <tr class="border-b border-base-300">
              <th class="px-3 py-1.5">Started</th>
              <th class="px-3">Site</th>
              <th class="px-3">State</th>
              <th class="px-3 text-right">Fetched</th>
              <th class="px-3 text-right">Took</th>
              <th
                class="px-3 text-right"
                title="Room in the database, roughly; sources that several crawls share are counted with each">Space</th
              >
              <th class="px-3"><span class="sr-only">Actions</span></th>
            </tr>
          </thead>
          <tbody>
            {#each data.recent as { id, siteId, state, at, done, ranMs, space } (id)}
              <tr class="border-b border-base-300/60 last:border-0 hover:bg-base-200/70">
                <td class="tabular px-3 py-1.5 whitespace-nowrap">
                  <a href={crawlPath(siteId, id)} class="text-primary hover:underline"><Moment {at} /></a>
                </td>
                <td class="max-w-0 w-2/5 truncate px-3" title={nameOf(siteId)}>{nameOf(siteId)}</td>
                <td class="px-3 {state === 'failed' ? 'lost' : ''}">{stateLabel[state]}</td>
                <td class="tabular px-3 text-right">{number(done)}</td>
                <td class="tabular px-3 text-right whitespace-nowrap">{ranMs ? duration(ranMs) : '—'}</td>
                <td class="tabular px-3 text-right whitespace-nowrap">{bytes(space)}</td>
                <td class="px-3 text-right">
                  <button
                    type="button"
                    class="quiet hover:text-base-content hover:underline"
                    aria-label="Delete the crawl of {moment(at)} of {nameOf(siteId)}"
                    onclick={() =>
                      remove(
                        'deleteCrawl',
                        { crawl: id },
                        `The crawl of ${moment(at)} is ${state === 'running' ? 'stopped and ' : ''}deleted.`,
                      )}>Delete</button
                  >
                </td>
              </tr>
            {/each}
          </tbody>
        </table>
      </div>
    {/if}
    <p class="quiet mt-2 text-xs">
      The database takes {bytes(data.bytes)} on disk. What you delete can be brought back for {data.undoSeconds} seconds;
      then its space is given back.
    </p>
  {:else}
    <section class="panel mt-8 p-5">
      <h2 class="font-serif text-xl">There are no sites yet</h2>
      <p class="mt-1">
        Enter an address above, or try Edge Map on its demo website: the Larkfield Transit Museum, a made-up site of
        some hundred pages that runs on this computer and has every fault that Edge Map finds.
      </p>
      <form method="post" action="?/demo" class="mt-3 flex items-center gap-3" use:enhance={sends('demo')}>
        <button class="btn btn-primary" disabled={sending !== null}
          >{sending === 'demo' ? 'Starting the demo website …' : 'Crawl the demo website'}</button
        >
        <span class="quiet">takes a few seconds and begins with a tour of two minutes</span>
      </form>
    </section>
  {/if}
  {#if form?.demoFault}<p class="lost mt-2" role="alert">{form.demoFault}</p>{/if}
</main>
