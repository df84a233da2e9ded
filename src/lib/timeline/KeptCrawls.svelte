<!-- How many old crawls are kept, and which of them whatever happens. -->
<script lang="ts">
  import { untrack } from 'svelte';
  import { invalidateAll } from '$app/navigation';
  import { moment } from '../shell/words';
  import { say } from '../shell/say.svelte';
  import { send } from '../shell/send';
  import type { TimelineCrawl } from './series';
  import { texts } from './texts';

  interface Props {
    site: number;
    keep: number | null;
    crawls: TimelineCrawl[];
  }
  let { site, keep, crawls }: Props = $props();
  let typed = $state(untrack(() => (keep === null ? '' : String(keep))));

  async function save() {
    const wanted = typed === '' ? null : Number(typed);
    const beyond = wanted === null ? 0 : Math.max(0, crawls.filter(({ pinned }) => !pinned).length - wanted);
    if (beyond > 0 && !confirm(texts.keepAsk(beyond))) return;
    const done = await send<{ deleted: number[] }>(`/sites/${site}/kept`, 'PUT', { keep: wanted });
    if (!done) return;
    await invalidateAll();
    say(texts.keepSaved(done.deleted.length));
  }
  async function pin(crawl: number, pinned: boolean) {
    if (await send(`/sites/${site}/kept`, 'POST', { crawl, pinned })) await invalidateAll();
  }
</script>

<form
  class="flex items-center gap-1 text-xs"
  onsubmit={(event) => {
    event.preventDefault();
    void save();
  }}
>
  <label class="flex items-center gap-1"
    >{texts.keep}
    <input
      type="number"
      min="1"
      max="10000"
      placeholder={texts.keepAll}
      class="input input-xs tabular w-18"
      bind:value={() => typed, (value) => (typed = String(value ?? ''))}
    /></label
  >
  <button class="btn btn-secondary btn-xs">{texts.saveKeep}</button>
</form>
<p class="quiet text-xs">{texts.keepHint}</p>
<ul class="text-xs">
  {#each crawls.toReversed() as { id, at, counts, pinned } (id)}
    <li class="border-t border-base-300/60 py-0.5">
      <label class="flex items-center gap-2"
        ><input
          type="checkbox"
          class="checkbox checkbox-xs"
          aria-label={texts.pinOf(id)}
          checked={pinned}
          onchange={({ currentTarget: { checked } }) => pin(id, checked)}
        /><span class="min-w-0 flex-1 truncate">{texts.crawlRow(id, moment(at), counts?.known)}</span><span
          class="quiet">{pinned ? texts.pinned : texts.pin}</span
        ></label
      >
    </li>
  {/each}
</ul>
