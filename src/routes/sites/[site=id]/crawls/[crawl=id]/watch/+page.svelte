<!-- A crawl while it runs, or the reason why it did not. -->
<script lang="ts">
  import { enhance } from '$app/forms';
  import { goto, invalidate } from '$app/navigation';
  import { crawlPath } from '$lib/routes';
  import { bytes, number, stateLabel } from '$lib/words';

  let { data } = $props();
  const base = $derived(crawlPath(data.site.id, data.crawl.id));
  type Told = Pick<typeof data.crawl, 'state' | 'reason' | 'known' | 'done' | 'unanswered' | 'bytes' | 'current'>;
  let heard = $state.raw<Told | null>(null);
  const now: Told = $derived(heard ?? data.crawl);
  const live = $derived(now.state === 'waiting' || now.state === 'running');
  let trail = $state.raw<{ at: number; done: number }[]>([]);
  let recent = $state.raw<string[]>([]);
  let stopping = $state(false);
  let silent = $state(false);

  /** Pages a second over the last seconds that were watched. */
  const rate = $derived.by(() => {
    const [first, last] = [trail[0], trail[trail.length - 1]];
    return first && last && last.at > first.at ? (1000 * (last.done - first.done)) / (last.at - first.at) : null;
  });
  const part = $derived(now.known ? now.done / now.known : 0);

  $effect(() => {
    const path = base;
    const events = new EventSource(`${path}/progress`);
    events.onmessage = ({ data: text }) => {
      heard = JSON.parse(text) as Told;
      silent = false;
      trail = [...trail.slice(-20), { at: Date.now(), done: heard.done }];
      if (heard.current && heard.current !== recent[0]) recent = [heard.current, ...recent].slice(0, 8);
      if (heard.state === 'waiting' || heard.state === 'running') return;
      events.close();
      void invalidate('crawl:state').then(() => {
        if (heard?.state === 'done' || heard?.state === 'stopped')
          void goto(`${path}/overview`, { replaceState: true });
      });
    };
    events.onerror = () => (silent = true);
    return () => {
      events.close();
      heard = null;
      trail = [];
      recent = [];
      stopping = false;
    };
  });
</script>

<svelte:head><title>{stateLabel[now.state]} · {new URL(data.site.start).host} · Edge Map</title></svelte:head>
<main class="mx-auto w-full max-w-4xl overflow-y-auto px-6 py-10">
  {#if now.state === 'failed'}
    <p class="heading">This crawl could not be made</p>
    <h1 class="font-serif text-2xl" role="alert">{now.reason}</h1>
    <div class="mt-6 flex gap-2">
      <a href="/?like={data.site.id}" class="btn btn-primary btn-sm">Change the address or settings</a>
      <form method="post" action="?/continue"><button class="btn btn-outline btn-sm">Try again</button></form>
    </div>
  {:else}
    <h1 class="font-serif text-2xl">
      {#if now.state === 'waiting'}Waiting for a worker{:else if live}Crawling <span class="text-primary"
          >{data.crawl.settings.start}</span
        >{:else}{stateLabel[now.state]}. Opening the result …{/if}
    </h1>
    {#if now.state === 'waiting'}
      <p class="quiet mt-1">
        Another crawl may be running; this one begins after it. If nothing moves, start a worker: ./edgemap worker
      </p>
    {/if}
    <div
      class="mt-5"
      role="progressbar"
      aria-label="Done of known"
      aria-valuenow={now.done}
      aria-valuemin={0}
      aria-valuemax={now.known}
    >
      <div class="h-2.5 overflow-hidden rounded-full bg-base-300">
        <div class="h-full bg-primary" style:width="{100 * part}%"></div>
      </div>
    </div>
    <dl class="tabular mt-4 grid grid-cols-5 gap-4">
      {#each [['Done', number(now.done)], ['Known', number(now.known)], ['A second', rate === null ? '—' : number(Math.round(rate))], ['Unanswered', number(now.unanswered)], ['Received', bytes(now.bytes)]] as [label, value] (label)}
        <div>
          <dt class="quiet text-xs">{label}</dt>
          <dd class="text-2xl font-semibold">{value}</dd>
        </div>
      {/each}
    </dl>
    <h2 class="heading mt-6">Being fetched</h2>
    <ol class="panel mt-1 min-h-48 px-3 py-2 font-mono text-xs leading-6">
      {#each recent as address, i (address)}
        <li class="truncate {i ? 'quiet' : ''}">{address}</li>
      {:else}
        <li class="quiet">Nothing yet.</li>
      {/each}
    </ol>
    <p class="mt-2 min-h-5" role="status">
      {#if silent}<span class="lost"
          >Edge Map does not answer; it is asked again. The crawl goes on without this page.</span
        >
      {:else if stopping}Stopping: what is under way is given up, what was fetched is kept.{/if}
    </p>
    {#if live}
      <form
        method="post"
        action="?/stop"
        use:enhance={() => {
          stopping = true;
          return async () => {};
        }}
      >
        <button class="btn btn-outline btn-sm" disabled={stopping}>Stop</button>
        <span class="quiet ml-2">The result so far is shown, and the crawl can be continued.</span>
      </form>
    {/if}
  {/if}
</main>
