<!-- One cell of a list, by what its column holds. -->
<script lang="ts">
  import type { Reach, Verdict } from '$core/facts';
  import type { CellValue } from '$core/lists';
  import type { ListColumn } from '$core/lists/columns';
  import { isMessage, sentence } from '$core/messages';
  import { shareText } from '../dossier/dossierFacts';
  import VerdictMark from './VerdictMark.svelte';
  import { differenceText, number, reachLabel, shortAddress, verdictLabel } from '../shell/words';
  import { texts } from './texts';

  interface Props {
    column: ListColumn;
    value: CellValue;
    /** The whole row, for what a cell tells beside its own value. */
    cells: Record<string, CellValue>;
    start: string;
    /** Pixels that the column has. */
    width: number;
    /** What it was, where a draft changes it. */
    was?: CellValue;
  }
  let { column, value, cells, start, width, was }: Props = $props();

  /** Where an address must be cut, its folders give way first: the last part tells pages apart. */
  function parts(address: string): [string, string] {
    const short = shortAddress(address, start);
    const cut = short.slice(0, -1).lastIndexOf('/') + 1;
    return [short.slice(0, cut), short.slice(cut)];
  }
  const spaced = (text: string) => text.replaceAll('_', ' ');
  /** As many of several words as surely fit, with room for how many more there are. */
  function fitting(words: readonly string[]): number {
    let room = width - 40;
    return words.findIndex((word) => (room -= word.length * 6.3 + 15) < 0);
  }
  const lost = $derived(column.name === 'verdict' && cells.reach !== undefined && cells.reach !== 'reached');
</script>

{#snippet shown(value: CellValue)}
  {#if value === null || value === undefined}
    <span class="quiet">{column.as === 'address' || column.as === 'verdict' ? '' : '—'}</span>
  {:else if column.as === 'address'}
    {@const [folder, last] = parts(String(value))}
    <span class="flex font-mono text-[0.8125rem]"
      >{#if folder}<span class="quiet truncate {folder.length > 1 ? 'min-w-4' : ''}">{folder}</span>{/if}<span
        class="max-w-[85%] shrink-0 truncate">{last}</span
      ></span
    >
    {#if column.name === 'url' && cells.title}<span class="quiet block truncate text-xs">{cells.title}</span>{/if}
  {:else if column.as === 'verdict'}
    <span class="flex items-center gap-1.5">
      <VerdictMark verdict={value as Verdict} />
      <span class="truncate">{verdictLabel[value as Verdict]}</span>
      {#if lost}
        <VerdictMark verdict={value as Verdict} {lost} />
        <span class="lost truncate">{reachLabel[cells.reach as Reach]}</span>
      {/if}
    </span>
  {:else if isMessage(value)}
    <span class="block truncate" title={sentence(value)}>{sentence(value)}</span>
  {:else if column.as === 'code'}
    <span class="block truncate font-mono text-xs">{value}</span>
  {:else if Array.isArray(value)}
    {@const many = fitting(value)}
    <span class="flex gap-1">
      {#each many < 0 ? value : value.slice(0, Math.max(1, many)) as one (one)}
        <span class="truncate rounded border border-base-300 px-1 text-xs leading-4.5">{spaced(one)}</span>
      {/each}
      {#if many >= 0 && value.length > Math.max(1, many)}
        <span class="quiet text-xs leading-5">+{value.length - Math.max(1, many)}</span>
      {/if}
    </span>
  {:else if column.as === 'difference'}
    {differenceText(Number(value), column.unit === '×')}
  {:else if column.unit === '×'}
    {shareText(value)}
  {:else if typeof value === 'number'}
    {column.unit === undefined && !column.asked ? value : number(value)}
  {:else if typeof value === 'boolean'}
    {value ? 'yes' : 'no'}
  {:else if value === ''}
    <span class="quiet">{column.name === 'anchor' ? texts.noWords : column.name === 'value' ? '/' : ''}</span>
  {:else}
    <span class="block truncate">{column.type === 'choice' ? spaced(String(value)) : value}</span>
  {/if}
{/snippet}
{#if was !== undefined}
  <span class="block leading-4 font-semibold">{@render shown(value)}</span>
  <span
    class="quiet flex gap-1 text-xs leading-4 {typeof value === 'number' || typeof was === 'number'
      ? 'justify-end'
      : ''}">{texts.was}&nbsp;{@render shown(was)}</span
  >
{:else}
  {@render shown(value)}
{/if}
