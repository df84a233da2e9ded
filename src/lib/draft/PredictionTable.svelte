<!-- What a draft predicted of the crawl that came after its edits were made. -->
<script lang="ts">
  import type { Prediction } from '$core/answers';
  import { pageFacts } from '$core/facts';
  import Table from '../table/Table.svelte';
  import { number } from '../shell/words';
  import { texts } from './texts';

  let { prediction, base }: { prediction: Prediction; base: string } = $props();
  const shown = (value: number | null) => (value === null ? '—' : number(value));
  const label = (fact: string) => (fact in pageFacts ? pageFacts[fact as keyof typeof pageFacts].label : fact);
  const link = 'text-primary hover:underline';
</script>

<Table
  columns={[
    { label: '' },
    { label: texts.crawlBefore, isNumber: true },
    { label: texts.predictedColumn, isNumber: true },
    { label: texts.cameColumn, isNumber: true },
  ]}
  rows={prediction.figures}
  key={({ figure }) => figure}
>
  {#snippet row({ figure, before, predicted, came })}
    <td class="py-0.5">{texts.figures[figure]}</td>
    <td class="tabular quiet text-right">{shown(before)}</td>
    <td class="tabular text-right">{shown(predicted)}</td>
    <td class="tabular text-right {came === predicted ? '' : 'lost'}">{shown(came)}</td>
  {/snippet}
</Table>
<p class="mt-2 flex flex-wrap gap-x-3 text-xs">
  {#if prediction.otherwise.length === 0}<span class="quiet">{texts.asPredicted}</span>
  {:else}
    <span class="quiet">{texts.otherwiseThan}</span>
    {#each prediction.otherwise as { fact, pages } (fact)}
      <a class={link} href="{base}/change?select={encodeURIComponent(`changed(${fact})`)}"
        >{texts.otherwiseCame(pages, label(fact))}</a
      >
    {/each}
  {/if}
  <a class={link} href="{base}/change">{texts.allOtherwise}</a>
</p>
