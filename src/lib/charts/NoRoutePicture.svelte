<!-- What has no route: how each page is known, and the islands. -->
<script lang="ts">
  import type { NoRoute } from '$core/answers';
  import Term from '../shell/Term.svelte';
  import { number, shortAddress } from '../shell/words';

  let { noRoute, start, href }: { noRoute: NoRoute; start: string; href: (select: string) => string } = $props();
</script>

{#if noRoute.orphans + noRoute.islandPages === 0}
  <p class="quiet p-4">
    Every known page can be reached by links from the start page. Add sitemaps or lists of addresses in the settings to
    find pages that no link leads to.
  </p>
{:else}
  <div class="grid grid-cols-2 gap-6 px-2 py-2">
    <div>
      <h3 class="heading">Where we know them from</h3>
      <table class="mt-1 w-full">
        <thead class="quiet text-xs">
          <tr
            ><th class="text-left font-normal">Source</th><th class="text-right font-normal">Orphans</th><th
              class="text-right font-normal">In islands</th
            ><th class="text-right font-normal">Indexable</th></tr
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
            <td class="py-0.5">all together</td>
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
      <h3 class="heading"><Term of="island">Islands</Term></h3>
      <div class="mt-1 max-h-32 overflow-y-auto">
        <table class="w-full">
          <tbody>
            {#each noRoute.islands as { number: island, pages, indexable, example, seenIn } (island)}
              <tr class="border-t border-base-300/60 first:border-0">
                <td class="quiet py-0.5 pr-2 whitespace-nowrap">No. {island}</td>
                <td class="tabular pr-2 text-right whitespace-nowrap"
                  ><a class="lost hover:underline" href={href(`reach = island and island = ${island}`)}
                    >{number(pages)} {pages === 1 ? 'page' : 'pages'}</a
                  ></td
                >
                <td class="max-w-0 w-full truncate font-mono text-xs" title={example}>{shortAddress(example, start)}</td
                >
                <td class="quiet pl-2 text-xs whitespace-nowrap" title="{number(indexable)} indexable"
                  >{seenIn.join(', ')}</td
                >
              </tr>
            {:else}
              <tr><td class="quiet">No page without a route is linked to from another page.</td></tr>
            {/each}
          </tbody>
        </table>
        {#if noRoute.moreIslands}<p class="quiet">and {number(noRoute.moreIslands)} smaller ones</p>{/if}
      </div>
    </div>
  </div>
{/if}
