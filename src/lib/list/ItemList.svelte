<!-- Things of which one is looked at more closely beside the list: pages, or words. -->
<script lang="ts">
  import type { Snippet } from 'svelte';
  import { texts } from './texts';
  import type { Item } from './items';

  interface Props {
    title: string;
    /** In which order they come, or what they are. */
    about?: string;
    items: readonly Item[];
    /** How many there are in all. */
    total: number;
    none: string;
    shown: string;
    /** What is looked for among all of them. */
    find: string;
    onfind: (find: string) => void;
    href: (item: string) => string;
    children?: Snippet;
  }
  let { title, about = '', items, total, none, shown, find, onfind, href, children }: Props = $props();
</script>

<section class="panel flex min-h-0 flex-col" aria-label={title}>
  <header class="border-b border-base-300 px-3 py-2 text-xs">
    <div class="flex items-center gap-3">
      <h2 class="flex-1 text-sm font-semibold">{title}</h2>
      <input
        class="input input-xs w-28"
        type="search"
        placeholder={texts.find}
        aria-label={texts.find}
        value={find}
        onchange={({ currentTarget }) => onfind(currentTarget.value)}
      />
    </div>
    {#if about || children}
      <div class="mt-1 flex flex-wrap items-center justify-between gap-x-3 gap-y-1">
        {#if about}<p class="quiet">{about}</p>{/if}
        {@render children?.()}
      </div>
    {/if}
  </header>
  {#if items.length === 0}
    <p class="quiet px-3 py-3">{find ? texts.noneFound(find) : none}</p>
  {/if}
  <ul class="min-h-0 flex-1 overflow-y-auto">
    {#each items as { item, label, more, figure, note, isDone } (item)}
      <li>
        <a
          class="block border-b border-base-300/70 px-3 py-1.5 {item === shown
            ? 'border-l-3 border-l-primary bg-base-200/60'
            : 'hover:bg-base-200/60'} {isDone ? 'quiet' : ''}"
          href={href(item)}
          aria-current={item === shown}
          data-sveltekit-keepfocus
        >
          <span class="flex justify-between gap-3">
            <span class="min-w-0 truncate text-xs {more === null ? 'font-serif text-[14px]' : 'font-mono'}" title={item}
              >{label}</span
            >
            <span class="tabular text-xs whitespace-nowrap">{figure}</span>
          </span>
          <span class="quiet flex justify-between gap-3 text-xs">
            <span class="min-w-0 truncate">{more ?? ''}</span>
            <span class="whitespace-nowrap">{isDone ? '✓ ' : ''}{note}</span>
          </span>
        </a>
      </li>
    {/each}
  </ul>
  {#if total > items.length}
    <p class="quiet border-t border-base-300 px-3 py-1 text-xs">{texts.notShown(total - items.length)}</p>
  {/if}
</section>
