<!-- Plain questions about the site, each with its number, an example and its list. -->
<script lang="ts">
  import type { SheetAnswer, SheetRow } from '$core/rules';
  import { shortAddress } from '../shell/words';
  import { texts } from './texts';
  import Table from '../table/Table.svelte';

  interface Props {
    rows: SheetRow[];
    base: string;
    start: string;
    href: (select: string) => string;
    pageHref: (address: string) => string;
  }
  let { rows, base, start, href, pageHref }: Props = $props();
  const tone: Record<SheetAnswer, string> = { yes: 'text-primary', no: 'lost', partly: 'lost', unknown: 'quiet' };
</script>

<p class="py-1 text-xs print:hidden">
  <a class="text-primary hover:underline" href="{base}/answers?format=md" download>{texts.saveMarkdown}</a>
  · <a class="text-primary hover:underline" href="{base}/answers?format=csv" download>{texts.saveCsv}</a>
  · <button type="button" class="text-primary hover:underline" onclick={() => window.print()}>{texts.print}</button>
</p>
<Table
  columns={[
    { label: texts.question },
    { label: texts.answer },
    { label: texts.against, isApart: true },
    { label: texts.example, isApart: true },
    { label: '' },
  ]}
  {rows}
  key={({ id }) => id}
  isPrinted
>
  {#snippet row({ question, answer, count, of, unit, example, select })}
    <td class="py-1">{question}</td>
    <td class="py-1 font-semibold whitespace-nowrap {tone[answer]}">{texts.answers[answer]}</td>
    <td class="py-1 pl-4 text-xs">{texts.ofUnit(count, of, unit)}</td>
    <td class="max-w-60 truncate py-1 pl-4 font-mono text-xs"
      >{#if example}<a class="hover:underline" title={example} href={pageHref(example)}
          >{shortAddress(example, start)}</a
        >{/if}</td
    >
    <td class="py-1 pl-4 text-xs whitespace-nowrap"
      >{#if select}<a class="text-primary hover:underline" href={href(select)}>{texts.showList}</a>{/if}</td
    >
  {/snippet}
</Table>
