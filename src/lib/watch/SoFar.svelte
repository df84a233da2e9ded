<!-- Says above a screen that its crawl goes on, and shows what is new as soon as it has been analysed. -->
<script lang="ts">
  import { invalidateAll } from '$app/navigation';
  import { clock, number, stateLabel } from '../shell/words';
  import type { WatchState } from './watch';
  import { texts } from './texts';

  interface Props {
    /** Where the crawl is. */
    base: string;
    crawl: { state: WatchState['state']; known: number; done: number };
    /** When what is shown was analysed. */
    at: Date;
  }
  let { base, crawl, at }: Props = $props();
  let heard = $state.raw<WatchState | null>(null);
  const now = $derived(heard ?? crawl);

  $effect(() => {
    const shown = at.getTime();
    const events = new EventSource(`${base}/progress`);
    events.onmessage = ({ data }) => {
      heard = JSON.parse(data) as WatchState;
      const isOver = heard.state === 'done' || heard.state === 'stopped' || heard.state === 'failed';
      const isNewer = heard.analysedAt && new Date(heard.analysedAt).getTime() > shown;
      if (isOver) events.close();
      if (isOver || isNewer) void invalidateAll();
    };
    return () => events.close();
  });
</script>

<div class="flex items-baseline gap-3 border-b border-base-300 bg-base-100 px-4 py-1" role="status">
  <p class="min-w-0 flex-1">
    <strong class="lost">{texts.soFar}</strong>{texts.whatIsShownWasFound(
      clock(at),
      stateLabel[now.state].toLowerCase(),
    )}
    <span class="tabular">{number(now.done)}</span>
    {texts.of} <span class="tabular">{number(now.known)}</span>
    {texts.knownUrlsFetchedPages}
  </p>
  <a href="{base}/watch" class="whitespace-nowrap text-primary hover:underline">{texts.watchTheCrawl}</a>
</div>
