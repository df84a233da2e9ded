<!-- What became of pages, and which of their facts differ: each bar selects what it counts. -->
<script lang="ts">
  import type { ChangeCounts } from '$core/answers';
  import { pageClasses } from '$core/facts';
  import BarRows from '../charts/BarRows.svelte';
  import { number } from '../shell/words';
  import { texts } from './texts';

  interface Props {
    counts: ChangeCounts;
    select: string;
    onpick: (select: string) => void;
  }
  let { counts, select, onpick }: Props = $props();
  const classBars = $derived(
    pageClasses
      .filter((change) => change !== 'same' && counts.classes[change] > 0)
      .map((change) => ({
        key: `change = ${change}`,
        label: texts.className(change),
        said: number(counts.classes[change]),
        value: counts.classes[change],
        here: select === `change = ${change}`,
      })),
  );
  const factBars = $derived(
    counts.facts
      .map(({ fact, pages }) => ({
        key: `changed(${fact})`,
        label: texts.factName(fact),
        said: number(pages),
        value: pages,
        here: select === `changed(${fact})`,
      }))
      .sort((a, b) => b.value - a.value),
  );
</script>

<div class="grid grid-cols-2 gap-6">
  <div>
    <h3 class="heading px-2">{texts.whatBecame}</h3>
    <BarRows bars={classBars} label={texts.whatBecame} names={130} behind={60} {onpick} />
  </div>
  <div>
    <h3 class="heading px-2">{texts.whatDiffers}</h3>
    {#if factBars.length}
      <BarRows bars={factBars} label={texts.whatDiffers} names={130} behind={60} {onpick} />
    {:else}<p class="quiet px-2">{texts.nothingDiffers}</p>{/if}
  </div>
</div>
