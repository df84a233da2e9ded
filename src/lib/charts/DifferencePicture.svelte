<!-- What a visitor reaches and a search crawler does not. -->
<script lang="ts">
  import type { ReaderDifference } from '$core/answers';
  import { quote } from '$core/selection/language';
  import { number } from '../shell/words';
  import { texts } from './texts';

  let { difference, href }: { difference: ReaderDifference; href: (select: string) => string } = $props();
  const causes = {
    nofollow: texts.nofollowOnTheLink,
    robots: texts.robotsTxtWhichClosesThePage,
    both: texts.nofollowOnSomeWaysAndRobots,
  };
</script>

{#if difference.pages === 0 && difference.deeper === 0}
  <p class="quiet p-4">{texts.bothReadersReachTheSamePages}</p>
{:else}
  <div class="grid grid-cols-2 gap-6 px-2 py-2">
    <div>
      <h3 class="heading">{texts.whatStopsASearchCrawler}</h3>
      <table class="mt-1 w-full">
        <tbody>
          {#each difference.byCause as { cause, pages, indexable } (cause)}
            <tr class="border-t border-base-300/60 first:border-0">
              <td class="py-1">{causes[cause]}</td>
              <td class="tabular text-right whitespace-nowrap"
                ><a class="lost hover:underline" href={href(`held_back = ${cause}`)}>{texts.pages(pages)}</a></td
              >
              <td class="quiet tabular pl-4 text-right whitespace-nowrap">{texts.indexablePages(number(indexable))}</td>
            </tr>
          {/each}
          {#if difference.deeper}
            <tr class="border-t border-base-300/60">
              <td class="py-1">{texts.moreClicksThanForAVisitor}</td>
              <td class="tabular text-right">{texts.pages(difference.deeper)}</td>
              <td></td>
            </tr>
          {/if}
        </tbody>
      </table>
    </div>
    <div>
      <h3 class="heading">{texts.bySection}</h3>
      <ul class="mt-1 columns-2 gap-6">
        {#each difference.bySection as { section, pages } (section)}
          <li class="flex justify-between gap-2">
            <a
              class="truncate font-mono text-[0.8125rem] hover:underline"
              href={href(`reached and crawler_depth is unknown and section = ${quote(section)}`)}>/{section}</a
            >
            <span class="tabular">{number(pages)}</span>
          </li>
        {/each}
      </ul>
    </div>
  </div>
{/if}
