<!-- Plans the fewest new links that bring pages near enough to the start, as proposals to take. -->
<script lang="ts">
  import type { Edit } from '$core/draft';
  import { shortAddress } from '../shell/words';
  import { answerOf } from '../shell/send';
  import { addEdits } from './draft';
  import type { DraftPlace } from './draft';
  import { texts } from './texts';

  let { base, place, start }: { base: string; place: DraftPlace; start: string } = $props();
  let within = $state<number | null>(3);
  let links = $state<number | null>(5);
  let budget = $state<number | null>(null);
  let sections = $state(false);
  let busy = $state(false);

  interface Found {
    tooDeep: number;
    missed: number;
    fewest: number;
    proposals: { edit: Edit; text: string; gain: number }[];
  }
  let found = $state.raw<Found | null>(null);

  async function find() {
    busy = true;
    const query = new URLSearchParams({ sections: String(sections) });
    if (within) query.set('within', String(within));
    if (links) query.set('links', String(links));
    if (budget) query.set('budget', String(budget));
    found = await answerOf<Found>(fetch(`${base}/plan?${query}`), texts.planFailed);
    busy = false;
  }
  async function take(taken: Found['proposals']) {
    if (
      !found ||
      !(await addEdits(
        place,
        taken.map(({ edit }) => edit),
      ))
    )
      return;
    found = { ...found, proposals: found.proposals.filter((one) => !taken.includes(one)) };
  }
  const short = (address: string) => shortAddress(address, start);
  const numberInput = 'input input-xs w-14 text-right tabular';
</script>

<h2 class="mt-3 border-t border-base-300 pt-3 font-semibold">{texts.planHeading}</h2>
<form
  class="mt-1.5 flex flex-wrap items-center gap-1.5 text-xs"
  onsubmit={(event) => {
    event.preventDefault();
    void find();
  }}
>
  {texts.planEvery}
  <input
    class={numberInput}
    type="number"
    min="1"
    max="99"
    placeholder={texts.any}
    bind:value={within}
    aria-label={texts.planEvery}
  />
  {texts.planClicks}
  <input
    class={numberInput}
    type="number"
    min="1"
    placeholder={texts.any}
    bind:value={links}
    aria-label={texts.planLinks}
  />
  {texts.planLinks}
  {texts.planBudget}
  <input
    class={numberInput}
    type="number"
    min="1"
    placeholder={texts.any}
    bind:value={budget}
    aria-label={texts.planBudget}
  />
  <label class="flex items-center gap-1"
    ><input type="checkbox" class="checkbox checkbox-xs" bind:checked={sections} />{texts.planSections}</label
  >
  <button class="btn btn-primary btn-xs" disabled={busy}>{busy ? texts.finding : texts.find}</button>
</form>
{#if found}
  {#if found.tooDeep === 0}
    <p class="quiet mt-2 text-xs">{texts.planNothing}</p>
  {:else}
    <p class="mt-2 flex items-baseline gap-2 text-xs">
      <span class="quiet"
        >{texts.planFound(found.proposals.length, found.tooDeep)}{found.fewest
          ? texts.planFewest(found.fewest)
          : ''}.{found.missed ? texts.planMissed(found.missed) : ''}</span
      >
      {#if found.proposals.length > 1}
        <button type="button" class="text-primary hover:underline" onclick={() => take(found!.proposals)}
          >{texts.takeAll(found.proposals.length)}</button
        >
      {/if}
    </p>
    <ul class="mt-1 text-xs">
      {#each found.proposals as one (`${one.edit.source} ${one.edit.target}`)}
        <li class="flex items-baseline gap-3 border-t border-base-300/60 py-1">
          <span class="min-w-0 flex-1">
            <span class="block truncate font-mono" title="{one.edit.source} → {one.edit.target}"
              >{short(one.edit.source)} → {short(one.edit.target)}</span
            >
            <span class="quiet block truncate">“{one.edit.anchor}”</span>
          </span>
          <span class="tabular whitespace-nowrap">{texts.gain(one.gain)}</span>
          <button type="button" class="text-primary hover:underline" onclick={() => take([one])}>{texts.take}</button>
        </li>
      {/each}
    </ul>
  {/if}
{/if}
