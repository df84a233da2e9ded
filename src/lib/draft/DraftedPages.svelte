<!-- Pages that a draft changes, with what each number was before. -->
<script lang="ts">
  import type { DraftedPage } from '$core/answers';
  import VerdictMark from '../list/VerdictMark.svelte';
  import { number, shortAddress, verdictLabel } from '../shell/words';
  import { texts } from './texts';

  interface Props {
    heading: string;
    pages: DraftedPage[];
    start: string;
    hrefOf: (address: string) => string;
  }
  let { heading, pages, start, hrefOf }: Props = $props();
  const share = (value: number | null) => (value === null ? '—' : `${value.toFixed(1)}×`);
</script>

{#snippet pair(before: number | null, after: number | null, text: (value: number | null) => string, isNew: boolean)}
  <td class="tabular py-1 pl-3 text-right whitespace-nowrap"
    >{#if text(before) === text(after)}<span class="quiet">{text(after)}</span>{:else}<span class="quiet"
        >{isNew ? '' : `${text(before)} → `}</span
      ><b>{text(after)}</b>{/if}</td
  >
{/snippet}
<section>
  <h3 class="font-semibold">{heading}</h3>
  {#if pages.length === 0}
    <p class="quiet py-1 text-xs">{texts.noPages}</p>
  {:else}
    <table class="mt-1 w-full text-xs">
      <thead class="quiet">
        <tr>
          <th class="text-left font-normal">{texts.address}</th>
          <th class="pl-3 text-right font-normal">{texts.depth}</th>
          <th class="pl-3 text-right font-normal">{texts.share}</th>
          <th class="pl-3 text-right font-normal whitespace-nowrap">{texts.linking}</th>
          <th class="pl-4 text-left font-normal">{texts.verdict}</th>
        </tr>
      </thead>
      <tbody>
        {#each pages as one (one.address)}
          {@const verdict = one.verdict[1]}
          <tr class="border-t border-base-300/60">
            <td class="max-w-0 truncate py-1 font-mono" style="width: 50%"
              ><a class="hover:underline" href={hrefOf(one.address)} title={one.address}
                >{shortAddress(one.address, start)}</a
              >{#if one.isNew}<span class="quiet"> {texts.isNew}</span>{/if}</td
            >
            {@render pair(one.depth[0], one.depth[1], number, one.isNew)}
            {@render pair(one.share[0], one.share[1], share, one.isNew)}
            {@render pair(one.pages_linking[0], one.pages_linking[1], number, one.isNew)}
            <td class="py-1 pl-4 whitespace-nowrap"
              >{#if verdict}<span class="flex items-center gap-1.5"
                  ><VerdictMark {verdict} lost={one.reach[1] !== 'reached'} />{verdictLabel[verdict]}</span
                >{/if}</td
            >
          </tr>
        {/each}
      </tbody>
    </table>
  {/if}
</section>
