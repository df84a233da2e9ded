<!-- Every verdict that occurs, with what decides it. -->
<script lang="ts">
  import type { VerdictEvidence } from '$core/answers';
  import VerdictMark from '../list/VerdictMark.svelte';
  import Table from '../table/Table.svelte';
  import { number, verdictLabel } from '../shell/words';
  import { texts } from './texts';

  let { rows, href }: { rows: VerdictEvidence[]; href: (select: string) => string } = $props();
  const most = $derived(Math.max(1, ...rows.map(({ pages }) => pages)));
</script>

<Table
  columns={[
    { label: texts.verdict },
    { label: texts.pages, isNumber: true },
    { label: texts.pages, isHidden: true },
    { label: texts.evidence },
  ]}
  {rows}
  key={({ verdict }) => verdict}
  rowClass="align-top"
>
  {#snippet row({ verdict, pages, evidence, more })}
    <td class="py-1 whitespace-nowrap">
      <a class="flex items-center gap-1.5 hover:underline" href={href(`verdict = ${verdict}`)}
        ><VerdictMark {verdict} size={12} />{verdictLabel[verdict]}</a
      >
    </td>
    <td class="tabular py-1 text-right">{number(pages)}</td>
    <td class="w-28 px-3 py-2"
      ><div
        class="h-2.5 rounded-sm"
        style:width="{(100 * pages) / most}%"
        style:background="var(--v-{verdict})"
      ></div></td
    >
    <td class="py-1 text-xs">
      {#each evidence as { text, line, pages: own, select } (select)}
        <a class="mr-3 inline-block hover:underline" href={href(select)}
          ><span class={line ? 'font-mono' : ''}>{texts.evidenceOf(verdict, text)}</span>{#if line}<span
              class="quiet ml-1">{texts.atLine(line)}</span
            >{/if}
          <span class="tabular text-primary">{number(own)}</span></a
        >
      {/each}
      {#if more}<span class="quiet">{texts.moreKinds(more)}</span>{/if}
    </td>
  {/snippet}
</Table>
