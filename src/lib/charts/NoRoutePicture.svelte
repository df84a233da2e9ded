<!-- What has no route: how each page is known, and the islands. -->
<script lang="ts">
  import type { NoRoute } from '$core/answers';
  import Explained from '../shell/Explained.svelte';
  import { number, shortAddress } from '../shell/words';
  import { texts } from './texts';

  let { noRoute, start, href }: { noRoute: NoRoute; start: string; href: (select: string) => string } = $props();
</script>

{#if noRoute.orphans + noRoute.islandPages === 0}
  <p class="quiet p-4">
    {texts.everyKnownPageCanBeReached}
  </p>
{:else}
  <div class="grid grid-cols-2 gap-6 px-2 py-2">
    <div>
      <h3 class="heading">{texts.whereWeKnowThemFrom}</h3>
      <table class="mt-1 w-full">
        <thead class="quiet text-xs">
          <tr
            ><th class="text-left font-normal">{texts.source}</th><th class="text-right font-normal">{texts.orphans}</th
            ><th class="text-right font-normal">{texts.inIslands}</th><th class="text-right font-normal"
              >{texts.indexable}</th
            ></tr
          >
        </thead>
        <tbody>
          {#each noRoute.bySource as { source, orphans, islandPages, indexable } (source)}
            <tr class="border-t border-base-300/60">
              <td class="py-0.5"
                ><a class="hover:underline" href={href(`not reached and seen in ${source}`)}>{source}</a></td
              >
              <td class="tabular text-right"
                ><a class="lost hover:underline" href={href(`orphan and seen in ${source}`)}>{number(orphans)}</a></td
              >
              <td class="tabular text-right"
                ><a class="hover:underline" href={href(`reach = island and seen in ${source}`)}>{number(islandPages)}</a
                ></td
              >
              <td class="tabular text-right">{number(indexable)}</td>
            </tr>
          {/each}
          <tr class="border-t border-base-300 font-semibold">
            <td class="py-0.5">{texts.allTogether}</td>
            <td class="tabular text-right"
              ><a class="lost hover:underline" href={href('orphan')}>{number(noRoute.orphans)}</a></td
            >
            <td class="tabular text-right"
              ><a class="hover:underline" href={href('reach = island')}>{number(noRoute.islandPages)}</a></td
            >
            <td></td>
          </tr>
        </tbody>
      </table>
    </div>
    <div class="min-w-0">
      <h3 class="heading"><Explained text={texts.islands} /></h3>
      <div class="mt-1 max-h-32 overflow-y-auto">
        <table class="w-full">
          <tbody>
            {#each noRoute.islands as { number: island, pages, indexable, example, seenIn } (island)}
              <tr class="border-t border-base-300/60 first:border-0">
                <td class="quiet py-0.5 pr-2 whitespace-nowrap">{texts.islandNumber(island)}</td>
                <td class="tabular pr-2 text-right whitespace-nowrap"
                  ><a class="lost hover:underline" href={href(`reach = island and island = ${island}`)}
                    >{texts.pages(pages)}</a
                  ></td
                >
                <td class="max-w-0 w-full truncate font-mono text-xs" title={example}>{shortAddress(example, start)}</td
                >
                <td class="quiet pl-2 text-xs whitespace-nowrap" title={texts.indexablePages(number(indexable))}
                  >{seenIn.join(', ')}</td
                >
              </tr>
            {:else}
              <tr><td class="quiet">{texts.noPageWithoutARoute}</td></tr>
            {/each}
          </tbody>
        </table>
        {#if noRoute.moreIslands}<p class="quiet">{texts.andSmallerOnes(noRoute.moreIslands)}</p>{/if}
      </div>
    </div>
  </div>
{/if}
