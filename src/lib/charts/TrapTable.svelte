<!-- Families of addresses that grew without end and were cut. -->
<script lang="ts">
  import { sentence } from '$core/messages';
  import type { Message } from '$core/messages';
  import { number, shortAddress } from '../shell/words';
  import { texts } from './texts';
  import Table from '../table/Table.svelte';

  interface Props {
    traps: { pattern: string; reason: Message; fetched: number; cut: number; examples: string[] }[];
    start: string;
    hrefOf: (address: string) => string;
  }
  let { traps, start, hrefOf }: Props = $props();
</script>

{#if traps.length === 0}
  <p class="quiet p-4">{texts.noCrawlerTrapWasFound}</p>
{:else}
  <Table
    columns={[
      { label: texts.family },
      { label: texts.fetched, isNumber: true },
      { label: texts.cutOff, isNumber: true },
    ]}
    rows={traps}
    key={({ pattern }) => pattern}
  >
    {#snippet row({ pattern, reason, fetched, cut, examples })}
      <td class="max-w-0 w-3/4 py-1">
        <span class="block truncate font-mono text-[0.8125rem]" title={pattern}>{shortAddress(pattern, start)}</span>
        <span class="quiet block"
          >{texts.trapReason(sentence(reason))}
          <a
            class="font-mono text-xs break-all text-primary hover:underline"
            href={hrefOf(examples[0])}
            data-sveltekit-noscroll>{shortAddress(examples[0], start)}</a
          ></span
        >
      </td>
      <td class="tabular text-right align-top">{number(fetched)}</td>
      <td class="tabular text-right align-top">{number(cut)}</td>
    {/snippet}
  </Table>
{/if}
