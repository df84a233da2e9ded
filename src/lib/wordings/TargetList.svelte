<!-- Pages that are linked to, by the share that arrives under faulty words. -->
<script lang="ts">
  import { shortAddress } from '../shell/words';
  import { texts } from './texts';

  interface Props {
    targets: {
      total: number;
      pages: { address: string; title: string | null; wordings: number; faulty: number; lost: number }[];
    };
    start: string;
    shown: string;
    href: (address: string) => string;
    order: string;
    none: string;
  }
  let { targets, start, shown, href, order, none }: Props = $props();
  let contains = $state('');
  const found = $derived(
    targets.pages.filter(({ address, title }) =>
      `${address} ${title ?? ''}`.toLowerCase().includes(contains.toLowerCase()),
    ),
  );
</script>

<section class="panel flex min-h-0 flex-col" aria-label={texts.targets(targets.total)}>
  <header class="border-b border-base-300 px-3 py-2 text-xs">
    <div class="flex items-center gap-3">
      <h2 class="flex-1 text-sm font-semibold">{texts.targets(targets.total)}</h2>
      <input
        class="input input-xs w-28"
        type="search"
        placeholder={texts.contains}
        aria-label={texts.contains}
        bind:value={contains}
      />
    </div>
    <p class="quiet mt-1">{order}</p>
  </header>
  {#if targets.total === 0}
    <p class="quiet px-3 py-3">{none}</p>
  {/if}
  <ul class="min-h-0 flex-1 overflow-y-auto">
    {#each found as page (page.address)}
      <li>
        <a
          class="block border-b border-base-300/70 px-3 py-1.5 {page.address === shown
            ? 'border-l-3 border-l-primary bg-base-200/60'
            : 'hover:bg-base-200/60'}"
          href={href(page.address)}
          aria-current={page.address === shown}
        >
          <span class="flex justify-between gap-3">
            <span class="min-w-0 truncate font-mono text-xs" title={page.address}
              >{shortAddress(page.address, start)}</span
            >
            <span class="tabular text-xs whitespace-nowrap">{page.lost ? `${page.lost.toFixed(2)}×` : ''}</span>
          </span>
          <span class="quiet flex justify-between gap-3 text-xs">
            <span class="min-w-0 truncate">{page.title ?? ''}</span>
            <span class="whitespace-nowrap"
              >{texts.wordings(page.wordings)}{page.faulty ? ` · ${texts.faulty(page.faulty)}` : ''}</span
            >
          </span>
        </a>
      </li>
    {/each}
  </ul>
  {#if targets.total > targets.pages.length}
    <p class="quiet border-t border-base-300 px-3 py-1 text-xs">{texts.more(targets.total - targets.pages.length)}</p>
  {/if}
</section>
