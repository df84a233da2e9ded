<!-- What a sitemap is now, by every rule of the protocol. -->
<script lang="ts">
  import { invalidateAll } from '$app/navigation';
  import type { LiveCheck } from '$core/liveChecks';
  import { sentence } from '$core/messages';
  import { checkLive } from '../liveChecks/liveCheck';
  import Moment from '../shell/Moment.svelte';
  import { texts } from './texts';

  interface Props {
    site: number;
    address: string;
    check: LiveCheck<'sitemap'> | null;
  }
  let { site, address, check }: Props = $props();
  let isAsked = $state(false);
  const leaving = new AbortController();
  $effect(() => () => leaving.abort());

  /** What came is no sitemap at all: then its lines tell nothing. */
  const whole = $derived(check?.result?.faults.find(({ id }) => id === 'unreachable'));
  const isUnderWay = $derived(isAsked || check?.state === 'waiting' || check?.state === 'running');

  async function checkAgain() {
    isAsked = true;
    await checkLive(site, 'sitemap', address, leaving.signal);
    await invalidateAll();
    isAsked = false;
  }
</script>

<button
  type="button"
  class="text-primary text-xs hover:underline"
  title={texts.checkAgainMeans}
  disabled={isUnderWay}
  onclick={checkAgain}>{isUnderWay ? texts.checking : check ? texts.checkAgain : texts.checkNow}</button
>
{#if check?.endedAt && !isUnderWay}
  <span class="text-xs">
    <Moment at={new Date(check.endedAt)} />:
    {#if check.fault}<span class="lost">{sentence(check.fault)}</span>
    {:else if whole}<span class="lost">{sentence(whole.message)}</span>
    {:else if check.result}
      {#if check.result.faultCount === 0}{texts.noFaults(check.result.entries)}
      {:else}<span class="lost">{texts.faultsNow(check.result.faultCount, check.result.entries)}</span>{/if}
    {/if}
  </span>
  {#if check.result?.faultCount && !whole}
    <ul class="mt-0.5 max-h-28 overflow-y-auto text-xs">
      {#each check.result.faults as { line, message }, i (i)}
        <li><span class="quiet">{texts.lineHead(line)}</span> {sentence(message)}</li>
      {/each}
      {#if check.result.faultCount > check.result.faults.length}
        <li class="quiet">{texts.andMore(check.result.faultCount - check.result.faults.length)}</li>
      {/if}
    </ul>
  {/if}
{/if}
