<!-- Has the pages of all edits looked at now, and says how many edits are live. -->
<script lang="ts">
  import { invalidateAll } from '$app/navigation';
  import type { LiveCheck } from '$core/liveChecks';
  import { sentence } from '$core/messages';
  import { checkLive } from '../liveChecks/liveCheck';
  import Moment from '../shell/Moment.svelte';
  import type { DraftPlace } from './draft';
  import { texts } from './texts';

  let { check, place, start }: { check: LiveCheck<'edits'> | null; place: DraftPlace; start: string } = $props();
  let busy = $state(false);
  let asking = new AbortController();
  $effect(() => () => asking.abort());

  async function ask() {
    asking = new AbortController();
    busy = true;
    await checkLive(place.site.id, 'edits', start, asking.signal, { crawl: place.crawl.id });
    await invalidateAll();
    busy = false;
  }
  const outcomes = $derived(Object.values(check?.result?.outcomes ?? {}));
  const live = $derived(outcomes.filter(({ state }) => state === 'live').length);
</script>

<div class="mt-1.5 flex items-baseline gap-2 text-xs">
  <button type="button" class="btn btn-outline btn-xs" title={texts.checkNowTitle} disabled={busy} onclick={ask}
    >{busy ? texts.checking : texts.checkNow}</button
  >
  {#if check?.result && !busy}
    <span class="quiet"
      >{texts.checked(live, outcomes.length, check.result.pages)}{#if check.endedAt}, <Moment
          at={new Date(check.endedAt)}
        />{/if}</span
    >
  {:else if check?.fault && !busy}<span class="lost">{sentence(check.fault)}</span>{/if}
</div>
