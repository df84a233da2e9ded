<!-- The findings that a site ignores, with the reason of each, and a way back. -->
<script lang="ts">
  import Moment from '../shell/Moment.svelte';
  import { number } from '../shell/words';
  import { reportAgain } from './ignore';

  interface Props {
    site: number;
    ignored: readonly { id: number; name: string; within: string; reason: string; createdAt: Date }[];
  }
  let { site, ignored }: Props = $props();
</script>

{#if ignored.length}
  <details class="mt-1">
    <summary class="quiet cursor-pointer hover:text-base-content"
      >{number(ignored.length)} {ignored.length === 1 ? 'finding is' : 'findings are'} ignored in this site</summary
    >
    <ul>
      {#each ignored as { id, name, within, reason, createdAt } (id)}
        <li class="flex items-baseline gap-3 border-t border-base-300/60 py-1">
          <span class="min-w-0 flex-1"
            >{name}{#if within}<span class="quiet font-mono text-xs"> within {within}</span>{/if}
            <span class="quiet block text-xs">{reason} (<Moment at={createdAt} />)</span></span
          >
          <button
            type="button"
            class="text-xs whitespace-nowrap text-primary hover:underline"
            onclick={() => reportAgain(site, id, name)}>Report again</button
          >
        </li>
      {/each}
    </ul>
  </details>
{/if}
