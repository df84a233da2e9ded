<!-- The wordings of the links to one page, the most frequent first. -->
<script lang="ts">
  import type { ShownWordings } from './shown';
  import { number, shortAddress } from '../shell/words';
  import { texts } from './texts';

  interface Props {
    shown: ShownWordings;
    start: string;
    /** The list of links with these words. */
    hrefOfLinks: (anchor: string) => string;
    hrefOf: (page: string) => string;
  }
  let { shown, start, hrefOfLinks, hrefOf }: Props = $props();
  const counts = ['occurrences', 'pages', 'mainContent', 'followed'] as const;
  const most = $derived(Math.max(1, ...shown.wordings.map(({ occurrences }) => occurrences)));
  const percent = (fit: number) => (fit < 0 ? '—' : `${Math.round(100 * fit)} %`);
</script>

<section class="panel flex min-h-0 min-w-0 flex-col">
  <header class="flex items-baseline gap-3 border-b border-base-300 px-3 py-2">
    <h2 class="min-w-0 flex-1 truncate text-sm font-semibold">{shown.title || shown.address}</h2>
    <span class="quiet min-w-0 truncate font-mono text-xs" title={shown.address}
      >{shortAddress(shown.address, start)}</span
    >
    <a class="text-xs whitespace-nowrap text-primary hover:underline" href={hrefOf(shown.address)}>{texts.dossier}</a>
  </header>
  <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
  <div class="min-h-0 flex-1 overflow-auto" tabindex="0" role="region" aria-label={texts.wordings(shown.total)}>
    <table class="w-full text-xs">
      <thead class="sticky top-0 bg-base-100 text-left">
        <tr class="border-b border-base-300">
          <th class="px-3 py-1.5 font-medium">{texts.columns.words}</th>
          {#each counts as name (name)}
            <th class="px-2 py-1.5 text-right font-medium" title={texts.about[name]}>{texts.columns[name]}</th>
          {/each}
          <th class="px-2 py-1.5 text-right font-medium" title={texts.about.share}>{texts.columns.share}</th>
          <th class="px-2 py-1.5 text-right font-medium" title={texts.about.fit}>{texts.columns.fit}</th>
          <th class="px-3 py-1.5 font-medium">{texts.columns.faults}</th>
        </tr>
      </thead>
      <tbody>
        {#each shown.wordings as one (`${one.anchor} ${one.fragment}`)}
          <tr class="border-b border-base-300/60 align-top hover:bg-base-200/60">
            <td class="max-w-96 px-3 py-1.5">
              <a class="block hover:underline" href={hrefOfLinks(one.anchor)} title={texts.showLinks}>
                {#if one.anchor}<span class="font-serif text-[14px] break-words">{one.anchor}</span>{:else}<span
                    class="quiet italic">{texts.empty}</span
                  >{/if}{#if one.fragment}<span class="quiet font-mono"> #{one.fragment}</span>{/if}
              </a>
              <span class="mt-0.5 flex h-1 w-full max-w-48 bg-base-200" aria-hidden="true">
                <span class="bg-primary" style:width="{(100 * one.mainContent) / most}%"></span>
                <span class="bg-primary/40" style:width="{(100 * (one.occurrences - one.mainContent)) / most}%"></span>
              </span>
            </td>
            {#each counts as name (name)}<td class="tabular px-2 py-1.5 text-right">{number(one[name])}</td>{/each}
            <td class="tabular px-2 py-1.5 text-right">{one.share.toFixed(2)}×</td>
            <td class="tabular px-2 py-1.5 text-right">{percent(one.fit)}</td>
            <td class="px-3 py-1.5">
              {one.faults.map((fault) => texts.faults[fault]).join(', ')}
              {#if one.better}
                <span class="quiet block"
                  >{texts.better}<a class="underline" href={hrefOf(one.better.address)} title={one.better.title ?? ''}
                    >{shortAddress(one.better.address, start)}</a
                  ></span
                >
              {/if}
            </td>
          </tr>
        {/each}
      </tbody>
    </table>
  </div>
</section>
