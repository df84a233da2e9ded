<!-- What became of each finding: new, solved, still there, or gone with its page. -->
<script lang="ts">
  import type { FindingChange } from '$core/findings';
  import { number } from '../shell/words';
  import { texts } from './texts';

  interface Row extends FindingChange {
    name: string;
    /** Selections of pages, for a finding over pages. */
    selects: { new: string; solved: string; remaining: string; gone: string } | null;
  }
  interface Props {
    rows: Row[];
    select: string;
    onpick: (select: string) => void;
  }
  let { rows, select, onpick }: Props = $props();
  const counts = ['new', 'solved', 'remaining', 'gone'] as const;
</script>

{#if rows.length === 0}
  <p class="quiet px-2 py-4">{texts.noFindingChanges}</p>
{:else}
  <table class="w-full">
    <thead class="quiet sticky top-0 bg-base-100 text-xs">
      <tr>
        <th class="text-left font-normal">{texts.finding}</th>
        {#each counts as count (count)}
          <th class="w-28 text-right font-normal" title={count === 'gone' ? texts.goneMeans : undefined}
            >{texts[count]}</th
          >
        {/each}
      </tr>
    </thead>
    <tbody>
      {#each rows as { finding, name, selects, ...row } (finding)}
        <tr class="border-t border-base-300/60">
          <td class="py-0.5">{name}</td>
          {#each counts as count (count)}
            <td class="tabular text-right {count === 'new' && row.new > 0 ? 'lost' : row[count] ? '' : 'quiet'}">
              {#if selects && row[count] > 0}
                <button
                  type="button"
                  class="rounded px-1 hover:underline {select === selects[count] ? 'bg-primary/15' : ''}"
                  title={texts.showPages}
                  aria-pressed={select === selects[count]}
                  onclick={() => onpick(selects[count])}>{number(row[count])}</button
                >
              {:else}<span class="px-1">{number(row[count])}</span>{/if}
            </td>
          {/each}
        </tr>
      {/each}
    </tbody>
  </table>
{/if}
