<!-- A table to be read: its head from a description of its columns, the cells of each row from a snippet. -->
<script lang="ts" generics="Row">
  import type { Snippet } from 'svelte';
  import type { TableColumn } from './table';

  interface Props {
    columns: readonly TableColumn[];
    rows: readonly Row[];
    key: (row: Row, place: number) => string | number;
    row: Snippet<[Row]>;
    rowClass?: string;
    /** Whether it is part of what is printed. */
    isPrinted?: boolean;
  }
  let { columns, rows, key, row, rowClass = '', isPrinted = false }: Props = $props();
</script>

<table class="w-full" data-print={isPrinted ? '' : undefined}>
  <thead class="quiet text-xs">
    <tr>
      {#each columns as { label, isNumber, isApart, isHidden, means }, i (i)}
        <th class="font-normal {isNumber ? 'text-right' : 'text-left'} {isApart ? 'pl-4' : ''}" title={means}>
          {#if typeof label !== 'string'}{@render label()}{:else}<span class={isHidden ? 'sr-only' : ''}>{label}</span
            >{/if}
        </th>
      {/each}
    </tr>
  </thead>
  <tbody>
    {#each rows as one, place (key(one, place))}
      <tr class="border-t border-base-300/60 {rowClass}">{@render row(one)}</tr>
    {/each}
  </tbody>
</table>
