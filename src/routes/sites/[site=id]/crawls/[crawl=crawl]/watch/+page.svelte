<!-- A crawl while it runs, or the reason why it did not. -->
<script lang="ts">
  import { enhance } from '$app/forms';
  import { goto, invalidate } from '$app/navigation';
  import { page } from '$app/state';
  import type { SubmitFunction } from '@sveltejs/kit';
  import { errorText, sentence } from '$core/messages';
  import type { FetchError } from '$core/facts';
  import { showStep } from '$lib/tour/tour.svelte';
  import type { WatchState } from '$lib/watch/watch';
  import { crawlPath } from '$lib/shell/routes';
  import { bytes, clock, duration, number, shortAddress, stateLabel } from '$lib/shell/words';
  import { texts } from '$lib/watch/texts';

  let { data } = $props();
  /** Whoever tries the demo website is shown around when its crawl has ended. */
  const wantsTour = page.url.searchParams.has('tour');
  const base = $derived(crawlPath(data.site.id, data.crawl.id, data.crawl.version));
  let heard = $state.raw<WatchState | null>(null);
  const now: WatchState = $derived(heard ?? data.crawl);
  const live = $derived(now.state === 'waiting' || now.state === 'running');
  /** How far an analysis is: of this crawl, or of one that an earlier version of Edge Map has analysed. */
  const analysis = $derived(now.watched?.analysis ?? null);
  const trouble = $derived(now.watched?.trouble ?? null);
  const ended = $derived(now.state === 'done' || now.state === 'stopped');
  let trail = $state.raw<{ at: number; done: number }[]>([]);
  let asked = $state<'stop' | 'pause' | null>(null);
  let unheard = $state(false);
  let silent = $state(false);

  /** Pages a second over the last seconds that were watched. */
  const rate = $derived.by(() => {
    const [first, last] = [trail[0], trail[trail.length - 1]];
    if (!live) return null;
    return first && last && last.at > first.at ? (1000 * (last.done - first.done)) / (last.at - first.at) : null;
  });
  const part = $derived(
    analysis ? (analysis.steps ? analysis.stepsDone / analysis.steps : 0) : now.known ? now.done / now.known : 0,
  );
  const most = $derived(Math.max(1, ...(now.watched?.waiting ?? []).map(({ n }) => n)));

  $effect(() => {
    const path = base;
    const events = new EventSource(`${path}/progress`);
    events.onmessage = ({ data: text }) => {
      heard = { ...heard, ...(JSON.parse(text) as WatchState) };
      silent = false;
      if (heard.state === 'paused') asked = null;
      trail = [...trail.slice(-20), { at: Date.now(), done: heard.done }];
      if (heard.state === 'waiting' || heard.state === 'running' || heard.state === 'paused') return;
      if (heard.watched?.analysis) return;
      events.close();
      void invalidate('crawl:state').then(() => {
        if (heard?.state === 'done' || heard?.state === 'stopped')
          void goto(data.crawl.planned ? path : `${path}/overview`, { replaceState: true }).then(
            () => wantsTour && showStep(0),
          );
      });
    };
    events.onerror = () => (silent = true);
    return () => {
      events.close();
      heard = null;
      trail = [];
      asked = null;
    };
  });
  const ask: (what: 'stop' | 'pause') => SubmitFunction = (what) => () => {
    asked = what;
    unheard = false;
    return async ({ result }) => {
      if (result.type === 'success') return;
      asked = null;
      unheard = true;
    };
  };
  const outcome = ({
    status,
    error,
    blocked,
  }: {
    status: number | null;
    error: FetchError | null;
    blocked: boolean;
  }) => (error ? errorText(error) : blocked && status === null ? 'closed' : String(status ?? '—'));
</script>

<svelte:head><title>{texts.pageTitle(stateLabel[now.state], new URL(data.site.start).host)}</title></svelte:head>
<main class="mx-auto w-full max-w-6xl overflow-y-auto px-6 py-6">
  {#if now.state === 'failed'}
    <p class="heading">{now.reason?.code === 'workers_died' ? texts.theCrawlWasSetAside : texts.theCrawlDidNotStart}</p>
    <h1 class="font-serif text-2xl" role="alert">{now.reason ? sentence(now.reason) : ''}</h1>
    <div class="mt-6 flex gap-2">
      <a href="/settings?site={data.site.id}" class="btn btn-primary btn-sm">{texts.changeTheSettings}</a>
      <a href="/" class="btn btn-outline btn-sm">{texts.giveAnotherAddress}</a>
      <form method="post" action="?/resume">
        <button class="btn btn-outline btn-sm"
          >{now.reason?.code === 'workers_died' ? texts.continueTheCrawl : texts.tryAgain}</button
        >
      </form>
    </div>
  {:else}
    <div class="flex items-start gap-4">
      <h1 class="min-w-0 flex-1 font-serif text-2xl">
        {#if ended && analysis}{texts.updatingThisCrawlToTheCurrent}{:else if now.state === 'waiting'}{texts.waitingForAWorker}{:else if analysis}{texts.analysing}{:else if now.state === 'paused'}{texts.paused}{:else if live}{texts.crawling}
          <span class="break-all text-primary">{data.site.start}</span>{:else}{texts.openingTheResult(
            stateLabel[now.state],
          )}{/if}
      </h1>
      {#if live}
        <form method="post" action="?/pause" use:enhance={ask('pause')}>
          <button class="btn btn-outline btn-sm" disabled={asked !== null} title={texts.keepsEverythingAndWaitsForYou}
            >{texts.pause}</button
          >
        </form>
        <form method="post" action="?/stop" use:enhance={ask('stop')}>
          <button class="btn btn-outline btn-sm" disabled={asked !== null} title={texts.showsTheResultSoFar}
            >{texts.stop}</button
          >
        </form>
      {:else if now.state === 'paused'}
        <form method="post" action="?/resume">
          <button class="btn btn-secondary btn-sm">{texts.resumeCrawl}</button>
        </form>
        <form method="post" action="?/stop" use:enhance={ask('stop')}>
          <button class="btn btn-outline btn-sm" disabled={asked !== null}>{texts.stopHere}</button>
        </form>
      {/if}
    </div>
    <p class="min-h-5" role="status">
      {#if silent}<span class="lost">{texts.edgeMapDoesNotAnswer}</span>
      {:else if unheard}<span class="lost">{texts.theRequestDidNotReach}</span>
      {:else if trouble}<span class="lost">{sentence(trouble)}</span>
      {:else if analysis}<span class="quiet"
          >{analysis.steps && analysis.step !== null
            ? texts.stepOf(analysis.stepsDone + 1, analysis.steps, analysis.step)
            : texts.waitingForAWorkerToTake}</span
        >
      {:else if asked === 'stop'}{texts.stoppingWhatIsUnderWay}
      {:else if asked === 'pause'}{texts.pausingWhatIsUnderWay}
      {:else if now.state === 'waiting'}<span class="quiet">{texts.anotherCrawlIsRunningThisOne}</span>
      {:else if now.state === 'paused'}<span class="quiet">{texts.nothingIsFetchedUntilYouResume}</span>
      {:else if now.current}<span class="quiet flex gap-2"
          >{texts.fetching}
          <span class="min-w-0 truncate font-mono text-xs leading-5" title={now.current}
            >{shortAddress(now.current, data.site.start)}</span
          ></span
        >{/if}
    </p>
    {#if !ended && now.analysedAt}
      <p class="mt-1">
        {texts.whatWasFoundByCan(clock(new Date(now.analysedAt)))}
        <a class="text-primary underline" href="{base}/overview">{texts.overview}</a>,
        <a class="text-primary underline" href="{base}/reach">{texts.reach}</a>,
        <a class="text-primary underline" href="{base}/flow">{texts.flow}</a>
      </p>
    {/if}
    {#if now.watched?.warning}
      <div class="mt-2 border-l-4 border-secondary bg-base-100 px-4 py-2.5" role="alert">
        <p class="lost font-semibold">{texts.theSiteIsClosed}</p>
        <p class="break-words">{sentence(now.watched.warning)}</p>
      </div>
    {/if}
    <div
      class="mt-3"
      role="progressbar"
      aria-label={analysis ? texts.stepsDone : texts.doneOfKnown}
      aria-valuenow={now.done}
      aria-valuemin={0}
      aria-valuemax={now.known}
    >
      <div class="h-2 overflow-hidden rounded-full bg-base-300">
        <div class="h-full bg-primary" style:width="{100 * part}%"></div>
      </div>
    </div>
    <dl class="tabular mt-3 grid grid-cols-6 gap-4">
      {#each [[texts.done, number(now.done)], [texts.known, number(now.known)], [texts.pagesPerSecond, rate === null ? '—' : number(Math.round(rate))], [texts.unanswered, number(now.unanswered)], [texts.received, bytes(now.bytes)], [texts.runningFor, duration(now.ranMs)]] as [label, value] (label)}
        <div>
          <dt class="quiet text-xs">{label}</dt>
          <dd class="text-xl font-semibold">{value}</dd>
        </div>
      {/each}
    </dl>
    <div class="mt-4 grid grid-cols-3 gap-4">
      <section class="panel p-3">
        <h2 class="heading">{texts.waitingToBeFetched}</h2>
        <ul class="mt-1">
          {#each now.watched?.waiting ?? [] as { what, n } (sentence(what))}
            <li class="relative flex justify-between px-1.5 py-0.5">
              <span class="absolute inset-y-0.5 left-0 rounded bg-primary/15" style:width="{(100 * n) / most}%"></span>
              <span class="relative">{sentence(what)}</span><span class="tabular relative">{number(n)}</span>
            </li>
          {:else}<li class="quiet">{texts.nothingIsWaiting}</li>{/each}
        </ul>
        {#if now.watched?.traps}
          <p class="mt-2">
            {texts.familiesCut(now.watched.traps)}
          </p>
        {/if}
      </section>
      <section class="panel p-3">
        <h2 class="heading">{texts.responses}</h2>
        <ul class="mt-1">
          {#each now.watched?.outcomes ?? [] as { what, n, bad } (sentence(what))}
            <li class="flex justify-between py-0.5">
              <span class={bad ? 'lost' : ''}>{sentence(what)}</span><span class="tabular">{number(n)}</span>
            </li>
          {:else}<li class="quiet">{texts.nothingYet}</li>{/each}
        </ul>
      </section>
      <section class="panel p-3">
        <h2 class="heading">{texts.hosts}</h2>
        <ul class="mt-1">
          {#each now.watched?.held ?? [] as { host, wait, reason } (host)}
            <li class="py-0.5">
              <span class="block truncate font-mono text-xs" title={host}>{host}</span>
              <span class="lost">{texts.askedAgainIn(sentence(reason), duration(wait))}</span>
            </li>
          {:else}<li class="quiet">{texts.noHostHasAsked}</li>{/each}
        </ul>
        <p class="quiet mt-2">
          {texts.workersAndConnections(now.watched?.workers ?? 0, data.crawl.settings.connections)}{data.crawl.settings
            .rate
            ? texts.atMostRequestsASecond(data.crawl.settings.rate)
            : ''}
        </p>
      </section>
    </div>
    <section class="panel mt-4 p-3">
      <h2 class="heading">{texts.latestPages}</h2>
      <ol class="mt-1 min-h-40 font-mono text-xs leading-6">
        {#each now.watched?.newest ?? [] as page (page.address)}
          <li class="flex gap-3" title={page.address}>
            <span class="w-20 shrink-0 {page.error || page.blocked || (page.status ?? 0) >= 400 ? 'lost' : 'quiet'}"
              >{outcome(page)}</span
            ><span class="min-w-0 truncate">{shortAddress(page.address, data.site.start)}</span>
          </li>
        {:else}
          <li class="quiet">{texts.nothingYet}</li>
        {/each}
      </ol>
    </section>
  {/if}
</main>
