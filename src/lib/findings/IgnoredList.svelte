<!-- The findings that a site ignores, with the reason of each, and a way back. -->
<script lang="ts">
  import Moment from '../shell/Moment.svelte';
  import { reportAgain } from './ignore';
  import { texts } from './texts';

  interface Props {
    site: number;
    ignored: readonly {
      id: number;
      name: string;
      within: string;
      reason: string;
      createdAt: Date;
      fault: string | null;
    }[];
  }
  let { site, ignored }: Props = $props();
</script>

{#if ignored.length}
  <details class="mt-1">
    <summary class="quiet cursor-pointer hover:text-base-content">{texts.ignoredInThisSite(ignored.length)}</summary>
    <ul>
      {#each ignored as { id, name, within, reason, createdAt, fault } (id)}
        <li class="flex items-baseline gap-3 border-t border-base-300/60 py-1">
          <span class="min-w-0 flex-1"
            >{name}{#if within}<span class="quiet ml-2 font-mono text-xs">{texts.within(within)}</span>{/if}
            <span class="quiet block text-xs">{reason} (<Moment at={createdAt} />)</span>
            {#if fault}<span class="lost block text-xs" role="alert">{texts.notIgnoredHere(fault)}</span>{/if}</span
          >
          <button
            type="button"
            class="text-xs whitespace-nowrap text-primary hover:underline"
            onclick={() => reportAgain(site, id, name)}>{texts.reportAgain}</button
          >
        </li>
      {/each}
    </ul>
  </details>
{/if}
