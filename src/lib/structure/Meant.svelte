<!-- The structure that was meant beside the one that was crawled, page by page. -->
<script lang="ts">
  import { invalidateAll } from '$app/navigation';
  import type { MeantState, StructureComparison } from '$core/outline';
  import { say } from '../shell/say.svelte';
  import { send } from '../shell/send';
  import { number, shortAddress } from '../shell/words';
  import OutlineFaults from './OutlineFaults.svelte';
  import { texts } from './texts';

  interface Props {
    meant: {
      text: string;
      faults: { line: number; text: string }[];
      faultCount: number;
      comparison: StructureComparison;
    };
    site: number;
    start: string;
    hrefOf: (address: string) => string;
  }
  let { meant, site, start, hrefOf }: Props = $props();
  let text = $derived(meant.text);
  let isChanging = $state(false);
  let shown = $state<MeantState | 'all' | 'extra'>('all');
  const { pages, counts, extra, extraCount } = $derived(meant.comparison);
  const rows = $derived(pages.filter(({ state }) => shown === 'all' || state === shown));

  async function save() {
    if (!(await send(`/sites/${site}/meant`, 'POST', { text }))) return;
    isChanging = false;
    await invalidateAll();
    say(texts.saved);
  }
  const chip = (on: boolean) =>
    `rounded-full border px-2 leading-5 ${on ? 'border-primary bg-primary text-primary-content' : 'border-base-300'}`;
</script>

{#if pages.length === 0 || isChanging}
  <form
    class="grid gap-1.5 p-2 text-xs"
    onsubmit={(event) => {
      event.preventDefault();
      void save();
    }}
  >
    <label for="meant">{texts.noneMeant}</label>
    <textarea
      id="meant"
      class="textarea h-40 w-full font-mono text-xs"
      bind:value={text}
      placeholder={texts.outlineExample}
      spellcheck="false"></textarea>
    <p class="quiet">{texts.outlineHint}</p>
    <OutlineFaults faults={meant.faults} count={meant.faultCount} pages={pages.length} />
    <div><button class="btn btn-primary btn-xs">{texts.save}</button></div>
  </form>
{:else}
  <div class="p-2 text-xs">
    <div class="flex flex-wrap items-center gap-1.5">
      <b>{texts.summary(counts.as_meant, pages.length)}</b>
      <button type="button" aria-pressed={shown === 'all'} class={chip(shown === 'all')} onclick={() => (shown = 'all')}
        >{texts.all}</button
      >
      {#each Object.entries(counts) as [state, n] (state)}
        {#if n > 0}
          <button
            type="button"
            aria-pressed={shown === state}
            class={chip(shown === state)}
            onclick={() => (shown = state as MeantState)}
            >{texts.states[state as MeantState]} <span class="tabular">{number(n)}</span></button
          >
        {/if}
      {/each}
      <button
        type="button"
        aria-pressed={shown === 'extra'}
        class={chip(shown === 'extra')}
        onclick={() => (shown = 'extra')}>{texts.extra} <span class="tabular">{number(extraCount)}</span></button
      >
      <span class="flex-1"></span>
      <button type="button" class="text-primary hover:underline" onclick={() => (isChanging = true)}
        >{texts.change}</button
      >
    </div>
    <div class="mt-1.5 max-h-56 overflow-y-auto">
      {#if shown === 'extra'}
        <ul class="font-mono">
          {#each extra as address (address)}
            <li class="truncate">
              <a class="hover:underline" href={hrefOf(address)}>{shortAddress(address, start)}</a>
            </li>
          {:else}<li class="quiet font-sans">{texts.noExtra}</li>{/each}
        </ul>
        {#if extraCount > extra.length}<p class="quiet">{texts.moreExtra(extraCount - extra.length)}</p>{/if}
      {:else}
        <table class="w-full">
          <thead class="quiet">
            <tr>
              <th class="text-left font-normal">{texts.page}</th>
              <th class="text-right font-normal whitespace-nowrap">{texts.meantDepth}</th>
              <th class="pl-3 text-right font-normal">{texts.depth}</th>
              <th class="pl-4 text-left font-normal">{texts.state}</th>
            </tr>
          </thead>
          <tbody>
            {#each rows as { address, title, level, state, depth, parent, status } (address)}
              <tr class="border-t border-base-300/60 align-baseline">
                <td class="max-w-0 w-1/2 truncate py-0.5" style:padding-left="{(shown === 'all' ? level : 0) * 0.9}rem">
                  {#if title}<span class="mr-1.5">{title}</span>{/if}
                  {#if state === 'missing'}<span class="quiet font-mono">{shortAddress(address, start)}</span>
                  {:else}<a class="font-mono hover:underline" href={hrefOf(address)}>{shortAddress(address, start)}</a
                    >{/if}
                </td>
                <td class="tabular quiet text-right">{level}</td>
                <td class="tabular pl-3 text-right">{depth ?? '—'}</td>
                <td class="pl-4">
                  <span class={state === 'as_meant' ? 'quiet' : 'lost'}>{texts.states[state]}</span>
                  {#if state === 'elsewhere' && parent}<span class="quiet"
                      >{texts.foundUnder(shortAddress(parent, start))}</span
                    >
                  {:else if state === 'no_page'}<span class="quiet">{texts.answers(status)}</span>{/if}
                </td>
              </tr>
            {/each}
          </tbody>
        </table>
      {/if}
    </div>
  </div>
{/if}
