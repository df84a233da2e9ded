<!-- Plans the fewest edits that bring pages to a goal, as proposals to take. -->
<script lang="ts">
  import type { Edit } from '$core/draft';
  import { shortAddress } from '../shell/words';
  import { answerOf } from '../shell/send';
  import { addEdits } from './draft';
  import type { DraftPlace } from './draft';
  import { planTexts as texts } from './planTexts';

  let { base, place, start }: { base: string; place: DraftPlace; start: string } = $props();
  type Goal = keyof typeof texts.goals;
  const goals = Object.keys(texts.goals) as Goal[];
  let goal = $state<Goal>('within');
  let amounts = $state<Record<Goal, number | null>>({ within: 3, text: 3, share: 1, links: 120 });
  let select = $state<string>(texts.goals.within.select);
  let without = $state('');
  let links = $state<number | null>(5);
  let budget = $state<number | null>(null);
  let sections = $state(false);
  let alike = $state(false);
  let sentences = $state(false);
  let busy = $state(false);

  /** The first are the ones that bring most; as they are taken, others come. */
  const MOST_SHOWN = 100;

  interface Found {
    short: number;
    missed: number;
    fewest: number;
    proposals: { edit: Edit; text: string; gain: string }[];
  }
  let found = $state.raw<Found | null>(null);

  async function find() {
    busy = true;
    const given = { amount: amounts[goal], links, budget, without: without.trim() };
    const query = new URLSearchParams({
      goal,
      select,
      sections: String(sections),
      alike: String(alike),
      sentences: String(sentences),
    });
    for (const [name, value] of Object.entries(given)) if (value) query.set(name, String(value));
    found = await answerOf<Found>(fetch(`${base}/plan?${query}`), texts.failed);
    busy = false;
  }
  async function take(taken: Found['proposals']) {
    const edits = taken.map(({ edit }) => edit);
    if (!found || !(await addEdits(place, edits))) return;
    found = { ...found, proposals: found.proposals.filter((one) => !taken.includes(one)) };
  }
  const choose = (chosen: Goal) => {
    goal = chosen;
    select = texts.goals[chosen].select;
    found = null;
  };
  const short = (address: string) => (address === '*' ? texts.everyPage : shortAddress(address, start));
  const small = 'input input-xs w-14 text-right tabular';
</script>

<h2 class="mt-3 border-t border-base-300 pt-3 font-semibold">{texts.heading}</h2>
<form
  class="mt-1.5 grid gap-1.5 text-xs"
  onsubmit={(event) => {
    event.preventDefault();
    void find();
  }}
>
  <div class="flex flex-wrap items-center gap-1.5">
    <select
      class="rounded border border-base-300 bg-base-100 px-1 leading-6"
      aria-label={texts.goal}
      value={goal}
      onchange={({ currentTarget: { value } }) => choose(value as Goal)}
    >
      {#each goals as one (one)}<option value={one}>{texts.goals[one].label}</option>{/each}
    </select>
    <input
      class={small}
      type="number"
      min={goal === 'share' ? '0.1' : '1'}
      step={goal === 'share' ? '0.1' : '1'}
      placeholder={goal === 'within' ? texts.any : ''}
      required={goal !== 'within'}
      bind:value={amounts[goal]}
      aria-label={texts.goals[goal].label}
    />
    {texts.goals[goal].unit}
  </div>
  <label class="flex items-center gap-1.5"
    ><span class="w-24 shrink-0">{texts.pages}</span>
    <input class="input flex-1 font-mono input-xs" bind:value={select} /></label
  >
  <label class="flex items-center gap-1.5"
    ><span class="w-24 shrink-0">{texts.without}</span>
    <input class="input flex-1 font-mono input-xs" bind:value={without} placeholder={texts.withoutExample} /></label
  >
  <div class="flex flex-wrap items-center gap-x-3 gap-y-1.5">
    {#if goal !== 'links'}
      <label class="flex items-center gap-1.5"
        >{texts.links} <input class={small} type="number" min="1" placeholder={texts.any} bind:value={links} /></label
      >
    {/if}
    <label class="flex items-center gap-1.5"
      >{texts.budget} <input class={small} type="number" min="1" placeholder={texts.any} bind:value={budget} /></label
    >
    {#if goal !== 'links'}
      <label class="flex items-center gap-1"
        ><input type="checkbox" class="checkbox checkbox-xs" bind:checked={sections} />{texts.sections}</label
      >
      <label class="flex items-center gap-1" title={texts.alikeMeans}
        ><input type="checkbox" class="checkbox checkbox-xs" bind:checked={alike} />{texts.alike}</label
      >
      <label class="flex items-center gap-1" title={texts.sentencesMeans}
        ><input type="checkbox" class="checkbox checkbox-xs" bind:checked={sentences} />{texts.sentences}</label
      >
    {/if}
  </div>
  <div><button class="btn btn-primary btn-xs" disabled={busy}>{busy ? texts.finding : texts.find}</button></div>
</form>
{#if found}
  {#if found.short === 0}
    <p class="quiet mt-2 text-xs">{texts.nothing}</p>
  {:else}
    <p class="mt-2 flex items-baseline gap-2 text-xs">
      <span class="quiet"
        >{texts.found(found.proposals.length, found.short)}{found.fewest
          ? texts.fewest(found.fewest)
          : ''}.{found.missed ? texts.missed(found.missed) : ''}</span
      >
      {#if found.proposals.length > 1}
        <button type="button" class="text-primary hover:underline" onclick={() => take(found!.proposals)}
          >{texts.takeAll(found.proposals.length)}</button
        >
      {/if}
    </p>
    <ul class="mt-1 text-xs">
      {#each found.proposals.slice(0, MOST_SHOWN) as one (`${one.edit.source} ${one.edit.target} ${one.edit.placement}`)}
        <li class="flex items-baseline gap-3 border-t border-base-300/60 py-1">
          <span class="min-w-0 flex-1">
            <span class="block truncate font-mono" title="{one.edit.source} → {one.edit.target}"
              >{short(one.edit.source)} → {short(one.edit.target)}</span
            >
            {#if one.edit.op !== 'add_link'}<span class="block">{one.text.replaceAll(one.edit.target, short)}</span>
            {:else if one.edit.value}<span class="block font-serif text-[13px]" dir="auto">{one.edit.value}</span>
              <span class="block truncate">“{one.edit.anchor}”</span>
            {:else}<span class="block truncate">“{one.edit.anchor}”</span>{/if}
            <span class="quiet block">{one.gain}</span>
          </span>
          <button type="button" class="text-primary hover:underline" onclick={() => take([one])}>{texts.take}</button>
        </li>
      {/each}
    </ul>
    {#if found.proposals.length > MOST_SHOWN}
      <p class="quiet mt-1 text-xs">{texts.more(found.proposals.length - MOST_SHOWN)}</p>
    {/if}
  {/if}
{/if}
