<!-- The distribution of a column in its head: each bar narrows the selection to its rows. -->
<script lang="ts">
  import type { Bin } from '$core/lists';
  import { number } from '../shell/words';
  import { texts } from './texts';

  interface Props {
    bins: Bin[];
    label: string;
    /** At the right end, as numbers are. */
    atEnd?: boolean;
    onpick: (select: string) => void;
  }
  let { bins, label, atEnd = false, onpick }: Props = $props();
  const most = $derived(Math.max(1, ...bins.map(({ rows }) => rows)));
</script>

<div class="flex h-4 items-end gap-px {atEnd ? 'justify-end' : ''}" role="group" aria-label={texts.distribution(label)}>
  {#each bins as { label: of, rows, select }, i (i)}
    <button
      type="button"
      tabindex="-1"
      class="group flex h-full max-w-4 min-w-0 flex-1 items-end"
      title="{of}: {number(rows)}{select ? '' : texts.noTestHoldsThem}"
      aria-label="{label} {of}: {number(rows)}"
      disabled={!select}
      onclick={() => select && onpick(select)}
    >
      <span
        class="block w-full rounded-t-[1px] {select ? 'bg-primary/45 group-hover:bg-primary' : 'bg-base-300'}"
        style:height="{rows ? Math.max(8, (100 * rows) / most) : 0}%"
      ></span>
    </button>
  {/each}
</div>
