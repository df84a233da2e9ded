<!-- Pages that need links from running text, with how many good places there are for each. -->
<script lang="ts">
  import { shortAddress } from '../shell/words';
  import { texts } from './texts';

  interface Props {
    need: {
      total: number;
      pages: {
        address: string;
        title: string | null;
        linking: number | null;
        depth: number | null;
        good: number | null;
      }[];
    };
    wanted: number;
    start: string;
    shown: string;
    href: (address: string) => string;
    onwanted: (wanted: number) => void;
  }
  let { need, wanted, start, shown, href, onwanted }: Props = $props();
</script>

<section class="panel flex min-h-0 flex-col" aria-label={texts.need(need.total)}>
  <header class="flex items-center gap-3 border-b border-base-300 px-3 py-2 text-xs">
    <h2 class="flex-1 text-sm font-semibold">{texts.need(need.total)}</h2>
    <label class="flex items-center gap-1.5"
      >{texts.wanted}
      <input
        class="input input-xs tabular w-12 text-right"
        type="number"
        min="1"
        max="50"
        value={wanted}
        onchange={({ currentTarget }) => onwanted(currentTarget.valueAsNumber || 1)}
      /></label
    >
  </header>
  {#if need.pages.length === 0}
    <p class="quiet px-3 py-3">{texts.nobody}</p>
  {:else}
    <ul class="min-h-0 flex-1 overflow-y-auto">
      {#each need.pages as page (page.address)}
        <li>
          <a
            class="block border-b border-base-300/70 px-3 py-1.5 {page.address === shown
              ? 'border-l-3 border-l-primary bg-base-200/60'
              : 'hover:bg-base-200/60'}"
            href={href(page.address)}
            aria-current={page.address === shown}
            data-sveltekit-keepfocus
          >
            <span class="block truncate font-mono text-xs" title={page.address}
              >{shortAddress(page.address, start)}</span
            >
            <span class="quiet flex justify-between gap-3 text-xs">
              <span class="min-w-0 truncate">{page.title ?? ''}</span>
              <span class="whitespace-nowrap"
                >{page.depth === null ? texts.noRoute : texts.depth(page.depth)} · {page.good === null
                  ? texts.linking(page.linking ?? 0)
                  : texts.good(page.good)}</span
              >
            </span>
          </a>
        </li>
      {/each}
    </ul>
  {/if}
</section>
