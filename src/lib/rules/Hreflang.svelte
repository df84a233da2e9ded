<!-- Sets of editions as a grid: a row a page, a column a language. -->
<script lang="ts">
  import type { HreflangFault } from '$core/rules';
  import { number, shortAddress } from '../shell/words';
  import { texts } from './texts';

  interface Cell {
    target: string;
    faults: HreflangFault[];
    source: 'tag' | 'header' | 'sitemap';
  }
  interface Props {
    hreflang: {
      total: number;
      faulty: number;
      sets: { first: string; size: number; isFaulty: boolean }[];
      shown: {
        languages: string[];
        size: number;
        rows: { address: string; faults: HreflangFault[]; cells: Cell[][] }[];
      } | null;
    };
    item: string;
    start: string;
    itemHref: (item: string) => string;
    pageHref: (address: string) => string;
  }
  let { hreflang, item, start, itemHref, pageHref }: Props = $props();
  const said = (faults: readonly HreflangFault[]) => faults.map((fault) => texts.hreflangFaults[fault]).join(', ');
</script>

{#if hreflang.total === 0}
  <p class="quiet py-2">{texts.noSets}</p>
{:else}
  <div class="flex gap-4">
    <div class="max-h-66 w-64 shrink-0 overflow-y-auto">
      <h3 class="heading">{texts.sets(hreflang.total, hreflang.faulty)}</h3>
      <ul class="text-xs">
        {#each hreflang.sets as { first, size, isFaulty }, i (first)}
          {@const isHere = String(i) === (item || '0')}
          <li class="border-t border-base-300/60">
            <a
              class="flex justify-between gap-2 py-0.5 hover:underline {isHere ? 'font-semibold' : ''}"
              aria-current={isHere}
              href={itemHref(String(i))}
              ><span class="min-w-0 truncate font-mono" title={first}>{shortAddress(first, start)}</span><span
                class="tabular {isFaulty ? 'lost' : ''}">{number(size)}</span
              ></a
            >
          </li>
        {/each}
      </ul>
    </div>
    {#if hreflang.shown}
      <div class="max-h-66 min-w-0 flex-1 overflow-auto">
        <table class="w-full text-xs">
          <thead class="quiet">
            <tr>
              <th class="text-left font-normal">{texts.edition}</th>
              {#each hreflang.shown.languages as language (language)}
                <th class="pl-2 text-left font-mono font-normal">{language}</th>
              {/each}
            </tr>
          </thead>
          <tbody>
            {#each hreflang.shown.rows as { address, faults, cells } (address)}
              <tr class="border-t border-base-300/60 align-top">
                <td class="max-w-52 py-0.5">
                  <a class="block truncate font-mono hover:underline" title={address} href={pageHref(address)}
                    >{shortAddress(address, start)}</a
                  >
                  {#if faults.length}<span class="lost">{said(faults)}</span>{/if}
                </td>
                {#each cells as cell, c (hreflang.shown.languages[c])}
                  <td class="max-w-44 py-0.5 pl-2">
                    {#each cell as { target, faults: own, source } (`${target} ${source}`)}
                      <span class="block truncate font-mono" title={target}>{shortAddress(target, start)}</span>
                      {#if source !== 'tag'}<span class="quiet"
                          >{source === 'header' ? texts.inHeader : texts.inSitemap}</span
                        >{/if}
                      {#if own.length}<span class="lost block">{said(own)}</span>{/if}
                    {:else}<span class="quiet">—</span>{/each}
                  </td>
                {/each}
              </tr>
            {/each}
          </tbody>
        </table>
      </div>
    {/if}
  </div>
{/if}
