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
  import { texts } from '$lib/home/texts';

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
    say(problem ?? texts.thatCouldNotBeDoneCheck, true);
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
      say(name.trim() ? texts.theSiteIsCalled(name.trim()) : texts.theSiteIsCalledByItsAddress);
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

<svelte:head><title>{texts.pageTitle}</title></svelte:head>
<Brand />
<main class="mx-auto max-w-5xl px-6 py-8">
  <form method="post" action="?/crawl" use:enhance={sends('crawl')}>
    <h1 class="font-serif text-2xl"><label for="start">{texts.mapAWebsite}</label></h1>
    <div class="mt-3 flex gap-2">
      <input
        id="start"
        name="start"
        bind:value={start}
        placeholder={texts.exampleOrg}
        autocomplete="off"
        spellcheck="false"
        class="input input-lg flex-1 font-mono text-base"
        aria-invalid={Boolean(form?.fault)}
        aria-describedby="start-fault start-plan"
      />
      <button class="btn btn-secondary btn-lg" disabled={sending !== null}
        >{sending === 'crawl' ? texts.starting : texts.crawl}</button
      >
      <a href="/settings?start={encodeURIComponent(start)}" class="btn btn-outline btn-lg">{texts.settingsFirst}</a>
    </div>
    {#if form?.fault}<p id="start-fault" class="lost mt-1.5" role="alert">{form.fault}</p>{/if}
    <p id="start-plan" class="quiet mt-1.5">
      {plan ?? texts.enterTheAddressOfAHome}
      <a class="ml-2 text-primary underline" href="/plan">{texts.planASite}</a>
    </p>
  </form>

  {#if data.sites.length}
    <h2 class="mt-8 mb-2 font-serif text-xl">{texts.yourSites}</h2>
    <div class="panel">
      <table class="w-full">
        <thead class="heading text-left text-xs">
          <tr class="border-b border-base-300">
            <th class="px-3 py-1.5">{texts.site}</th>
            <th class="px-3">{texts.latestCrawl}</th>
            <th class="px-3 text-right">{texts.urls}</th>
            <th class="px-3 text-right" title={texts.pagesThatSearchEnginesMayIndex}>{texts.indexable}</th>
            <th class="px-3 text-right">{texts.findings}</th>
            <th class="px-3">{texts.sinceTheCrawlBefore}</th>
            <th class="px-3"><span class="sr-only">{texts.actions}</span></th>
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
                  >{:else}<span class="quiet">{texts.notCrawledYet}</span>{/if}
              </td>
              <td class="tabular px-3 text-right">{number(newest?.known)}</td>
              <td class="tabular px-3 text-right">{number(newest?.counts?.indexable)}</td>
              <td class="tabular px-3 text-right">{number(newest?.counts?.findings)}</td>
              <td class="quiet px-3 text-xs">{changesBetween(newest?.counts ?? null, before?.counts ?? null) ?? '—'}</td
              >
              <td class="px-2 text-right">
                <Menu label={texts.more} about={texts.moreActionsFor(name ?? start)}>
                  {#snippet children(close)}
                    <form method="post" action="/sites/{id}?/again">
                      <button class={item}>{texts.crawlAgain}</button>
                    </form>
                    <a class={item} href="/settings?site={id}">{texts.settings}</a>
                    <form class="flex gap-1.5 px-2 py-1" onsubmit={(event) => rename(event, id, close)}>
                      <input
                        name="name"
                        value={name ?? ''}
                        maxlength="80"
                        placeholder={texts.nameOfTheSite}
                        aria-label={texts.nameOfTheSite}
                        class="input input-xs w-44"
                      />
                      <button class="btn btn-outline btn-xs">{texts.rename}</button>
                    </form>
                    <button
                      type="button"
                      class="{item} lost"
                      onclick={() => {
                        close();
                        void remove('deleteSite', { site: id }, texts.siteIsDeleted(name ?? start));
                      }}>{texts.deleteSiteAndItsCrawls}</button
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
      <h2 class="mt-8 mb-2 font-serif text-xl">{texts.recentCrawls}</h2>
      <div class="panel overflow-hidden">
        <table class="w-full">
          <thead class="heading text-left text-xs">
            <tr class="border-b border-base-300">
              <th class="px-3 py-1.5">{texts.started}</th>
              <th class="px-3">{texts.site}</th>
              <th class="px-3">{texts.state}</th>
              <th class="px-3 text-right">{texts.fetched}</th>
              <th class="px-3 text-right">{texts.took}</th>
              <th class="px-3 text-right" title={texts.roomInTheDatabaseRoughlySources}>{texts.space}</th>
              <th class="px-3"><span class="sr-only">{texts.actions}</span></th>
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
                    aria-label={texts.deleteCrawlOf(moment(at), nameOf(siteId))}
                    onclick={() =>
                      remove(
                        'deleteCrawl',
                        { crawl: id },
                        texts.crawlIsDeleted(moment(at), state === 'running' ? texts.stoppedAnd : ''),
                      )}>{texts.delete}</button
                  >
                </td>
              </tr>
            {/each}
          </tbody>
        </table>
      </div>
    {/if}
    <p class="quiet mt-2 text-xs">
      {texts.theDatabaseTakesOnDisk(bytes(data.bytes), data.undoSeconds)}
    </p>
  {:else}
    <section class="panel mt-8 p-5">
      <h2 class="font-serif text-xl">{texts.thereAreNoSitesYet}</h2>
      <p class="mt-1">
        {texts.enterAnAddressAboveOrTry}
      </p>
      <form method="post" action="?/demo" class="mt-3 flex items-center gap-3" use:enhance={sends('demo')}>
        <button class="btn btn-primary" disabled={sending !== null}
          >{sending === 'demo' ? texts.startingTheDemoWebsite : texts.crawlTheDemoWebsite}</button
        >
        <span class="quiet">{texts.takesAFewSecondsAndBegins}</span>
      </form>
    </section>
  {/if}
  {#if form?.demoFault}<p class="lost mt-2" role="alert">{form.demoFault}</p>{/if}
</main>
