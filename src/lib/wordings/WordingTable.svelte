<!-- Wordings of the links to one page, of one page's links, or of the same words for several pages. -->
<script lang="ts">
  import { number, shortAddress } from '../shell/words';
  import { keyOf } from './shown';
  import type { ShownWording, ShownWordings } from './shown';
  import { texts } from './texts';
  import WordingStrips from './WordingStrips.svelte';

  interface Props {
    shown: ShownWordings;
    /** What they are of: then that has no column. */
    by: 'target' | 'words' | 'page';
    start: string;
    /** The list of links with these words, folded into edits. */
    hrefOfLinks: (one: ShownWording) => string;
    hrefOf: (page: string) => string;
  }
  let { shown, by, start, hrefOfLinks, hrefOf }: Props = $props();
  const counts = $derived(
    by === 'page'
      ? (['occurrences', 'mainContent', 'followed'] as const)
      : (['occurrences', 'pages', 'mainContent', 'followed'] as const),
  );
  const percent = (fit: number) => (fit < 0 ? '—' : `${Math.round(100 * fit)} %`);
  const day = (seconds: number) => new Date(1000 * seconds).toLocaleDateString('en', { dateStyle: 'medium' });
  const head = 'py-1.5 font-medium';
</script>

<section class="panel flex min-h-0 min-w-0 flex-col">
  <header class="flex items-baseline gap-3 border-b border-base-300 px-3 py-2">
    <h2 class="min-w-0 flex-1 truncate text-sm font-semibold">
      {by === 'words' ? `“${shown.title || texts.empty}”` : shown.title || shown.address}
    </h2>
    {#if shown.address}
      <span class="quiet min-w-0 truncate font-mono text-xs" title={shown.address}
        >{shortAddress(shown.address, start)}</span
      >
      <a class="text-xs whitespace-nowrap text-primary hover:underline" href={hrefOf(shown.address)}>{texts.dossier}</a>
    {/if}
  </header>
  {#if by === 'target' && shown.wordings.length}<WordingStrips wordings={shown.wordings} {hrefOfLinks} />{/if}
  <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
  <div class="min-h-0 flex-1 overflow-auto" tabindex="0" role="region" aria-label={texts.wordings(shown.total)}>
    <table class="w-full text-xs">
      <thead class="sticky top-0 bg-base-100 text-left">
        <tr class="border-b border-base-300">
          {#if by !== 'words'}<th class="px-3 {head}">{texts.columns.words}</th>{/if}
          {#if by !== 'target'}<th class="px-3 {head}">{texts.columns.target}</th>{/if}
          {#each counts as name (name)}
            <th class="px-2 text-right {head}" title={texts.about[name]}>{texts.columns[name]}</th>
          {/each}
          <th class="px-2 text-right {head}" title={texts.about.share}>{texts.columns.share}</th>
          <th class="px-2 text-right {head}" title={texts.about.fit}>{texts.columns.fit}</th>
          <th class="px-3 {head}">{texts.columns.faults}</th>
          {#if by === 'target'}<th class="px-3 {head}" title={texts.about.since}>{texts.columns.since}</th>{/if}
        </tr>
      </thead>
      <tbody>
        {#each shown.wordings as one (keyOf(one))}
          <tr class="border-b border-base-300/60 align-top hover:bg-base-200/60">
            {#if by !== 'words'}
              <td class="max-w-96 px-3 py-1.5">
                <a class="block hover:underline" href={hrefOfLinks(one)} title={texts.showLinks}>
                  {#if one.anchor}<span class="font-serif text-[14px] break-words" dir="auto">{one.anchor}</span
                    >{:else}<span class="quiet italic">{texts.empty}</span>{/if}{#if one.fragment}<span
                      class="quiet font-mono"
                    >
                      #{one.fragment}</span
                    >{/if}
                </a>
              </td>
            {/if}
            {#if by !== 'target'}
              <td class="max-w-72 truncate px-3 py-1.5">
                <a
                  class="font-mono hover:underline"
                  href={by === 'words' ? hrefOfLinks(one) : hrefOf(one.target.address)}
                  title={one.target.title ?? ''}>{shortAddress(one.target.address, start)}</a
                >
              </td>
            {/if}
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
            {#if by === 'target'}
              <td class="quiet px-3 py-1.5 whitespace-nowrap">{one.since === null ? '—' : day(one.since)}</td>
            {/if}
          </tr>
        {/each}
      </tbody>
    </table>
  </div>
  <p class="quiet border-t border-base-300 px-3 py-1 text-xs">{texts.fitMeans}</p>
</section>
