<!-- The largest families of addresses, and how they grow with depth: one that never stops growing may be a trap. -->
<script lang="ts">
  import type { KnownFamily } from '$core/traps';
  import { number, shortAddress } from '../shell/words';
  import { texts } from './texts';
  import Table from '../table/Table.svelte';

  interface Props {
    families: KnownFamily[];
    start: string;
    hrefOf: (address: string) => string;
  }
  let { families, start, hrefOf }: Props = $props();
  const bars = (byDepth: number[]) => {
    const most = Math.max(1, ...byDepth);
    return byDepth.map((pages) => (100 * pages) / most);
  };
</script>

{#if families.length}
  <h3 class="heading mt-3">{texts.largeFamilies}</h3>
  <Table
    columns={[
      { label: texts.addressesLike },
      { label: texts.byDepth },
      { label: texts.known, isNumber: true },
      { label: texts.fetched, isNumber: true },
    ]}
    rows={families}
    key={({ pattern }) => pattern}
  >
    {#snippet row({ pattern, known, fetched, byDepth, example })}
      <td class="max-w-0 w-1/2 truncate py-0.5 font-mono text-[0.8125rem]"
        ><a class="hover:underline" href={hrefOf(example)} data-sveltekit-noscroll title={texts.suchAs(example)}
          >{shortAddress(pattern, start)}</a
        ></td
      >
      <td>
        <span class="flex h-4 w-40 items-end gap-px" title={texts.pagesAtEachDepth(byDepth.join(', '))}>
          {#each bars(byDepth) as height, depth (depth)}
            <span class="block min-w-0 flex-1 bg-primary/60" style:height="{height}%"></span>
          {/each}
        </span>
      </td>
      <td class="tabular text-right">{number(known)}</td>
      <td class="tabular text-right">{number(fetched)}</td>
    {/snippet}
  </Table>
{/if}
