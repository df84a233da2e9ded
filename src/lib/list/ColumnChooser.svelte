<!-- Which columns a list shows, in which order, and which of them stay in sight. -->
<script lang="ts">
  import { columnOf } from '$core/lists/columns';
  import type { ListName } from '$core/lists/columns';
  import { moved, otherColumns, shownColumns, toggled } from './columns';
  import type { ShownColumn } from './columns';
  import { texts } from './texts';

  interface Props {
    list: ListName;
    columns: ShownColumn[];
    /** Names of the columns that imports of the crawl give. */
    imported: readonly string[];
    onchange: (columns: ShownColumn[]) => void;
  }
  let { list, columns, imported, onchange }: Props = $props();
  const pin = (name: string) =>
    onchange(columns.map((column) => (column.name === name ? { ...column, pinned: !column.pinned } : column)));
</script>

<div class="w-72">
  <p class="heading px-1.5 pb-1">{texts.shown}</p>
  <ul>
    {#each columns as { name, pinned } (name)}
      {@const label = columnOf(list, name)!.label}
      <li class="flex items-center gap-1 rounded px-1.5 hover:bg-base-200">
        <label class="flex flex-1 items-center gap-2 py-0.5">
          <input
            type="checkbox"
            class="checkbox checkbox-xs"
            checked
            disabled={columns.length === 1}
            onchange={() => onchange(toggled(list, columns, name))}
          />{label}
        </label>
        <button
          type="button"
          class="px-1"
          aria-label={texts.moveToTheLeft(label)}
          onclick={() => onchange(moved(columns, name, -1))}>↑</button
        >
        <button
          type="button"
          class="px-1"
          aria-label={texts.moveToTheRight(label)}
          onclick={() => onchange(moved(columns, name, 1))}>↓</button
        >
        <button
          type="button"
          class="rounded px-1 text-xs {pinned ? 'bg-primary text-primary-content' : 'quiet'}"
          aria-pressed={pinned}
          aria-label={texts.keepInSight(label)}
          onclick={() => pin(name)}>{texts.pin}</button
        >
      </li>
    {/each}
  </ul>
  <p class="heading px-1.5 pt-2 pb-1">{texts.others}</p>
  <ul>
    {#each otherColumns(list, columns, imported) as { name, label } (name)}
      <li class="rounded px-1.5 hover:bg-base-200">
        <label class="flex items-center gap-2 py-0.5">
          <input
            type="checkbox"
            class="checkbox checkbox-xs"
            onchange={() => onchange(toggled(list, columns, name))}
          />{label}
        </label>
      </li>
    {/each}
  </ul>
  <button
    type="button"
    class="mt-1 px-1.5 text-primary hover:underline"
    onclick={() => onchange(shownColumns(list, ''))}>{texts.resetColumns}</button
  >
</div>
