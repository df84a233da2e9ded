<!-- What a site wants to hold after every crawl: each bound with what this crawl and the one before tell of it. -->
<script lang="ts">
  import { invalidateAll } from '$app/navigation';
  import type { Bound, CheckedBound } from '$core/watchList';
  import { say } from '../shell/say.svelte';
  import { send } from '../shell/send';
  import { number } from '../shell/words';
  import { keyBounds, texts } from './texts';
  import Table from '../table/Table.svelte';

  interface Props {
    site: { id: number; saved: { name: string; over: 'pages' | 'links'; text: string }[] };
    bounds: CheckedBound[];
    findings: { id: string; name: string }[];
    hrefOf: (bound: CheckedBound) => string;
  }
  let { site, bounds, findings, hrefOf }: Props = $props();
  const OWN = 'own';
  let what = $state(OWN);
  let name = $state('');
  let select = $state('');
  let isAtMost = $state(true);
  let most = $state(0);

  /** What is chosen, as a bound has it. */
  function chosen(): Pick<Bound, 'name' | 'over' | 'text'> {
    const [kind, id] = [what.slice(0, what.indexOf(':')), what.slice(what.indexOf(':') + 1)];
    const saved = kind === 'saved' ? site.saved.find((one) => one.name === id) : undefined;
    if (saved) return { name: name || saved.name, over: saved.over, text: saved.text };
    const ofKeys = kind === 'key' ? keyBounds.find(({ text }) => text === id) : undefined;
    if (ofKeys) return { name: name || ofKeys.name, over: 'pages', text: ofKeys.text };
    if (kind === 'finding')
      return { name: name || (findings.find((one) => one.id === id)?.name ?? id), over: 'finding', text: id };
    return { name: name || select, over: 'pages', text: select };
  }
  async function add() {
    const bound = { ...chosen(), atMost: isAtMost ? most : null };
    if (!(await send(`/sites/${site.id}/watch-list`, 'POST', bound))) return;
    name = select = '';
    await invalidateAll();
    say(texts.added(bound.name));
  }
  async function remove({ id, name: gone }: CheckedBound) {
    if (!(await send(`/sites/${site.id}/watch-list`, 'DELETE', { id }))) return;
    await invalidateAll();
    say(texts.removed(gone));
  }
</script>

{#if bounds.length}
  <Table
    columns={[
      { label: texts.name },
      { label: texts.before, isNumber: true },
      { label: texts.now, isNumber: true },
      { label: texts.bound, isApart: true },
      { label: '' },
    ]}
    rows={bounds}
    key={(bound) => bound.id}
    rowClass="align-baseline"
  >
    {#snippet row(bound)}
      <td class="max-w-0 w-1/2 truncate py-1"
        ><a href={hrefOf(bound)} class="hover:underline" title={bound.text}>{bound.name}</a></td
      >
      <td class="tabular quiet text-right">{number(bound.before)}</td>
      <td class="tabular text-right {bound.isBroken ? 'lost font-semibold' : ''}">{number(bound.count)}</td>
      <td class="pl-4"
        >{bound.atMost === null ? texts.noRise : texts.atMost(bound.atMost)}:
        {#if bound.fault}<span class="quiet">{texts.notAnswered(bound.fault)}</span>
        {:else if bound.isBroken}<span class="lost">{texts.broken}</span>
        {:else}<span class="quiet" title={bound.atMost === null && bound.before === null ? texts.firstCrawl : undefined}
            >{texts.holds}</span
          >{/if}</td
      >
      <td class="text-right"
        ><button type="button" class="text-xs text-primary hover:underline" onclick={() => remove(bound)}
          >{texts.remove}</button
        ></td
      >
    {/snippet}
  </Table>
{:else}
  <p class="quiet mt-1">{texts.empty}</p>
{/if}
<details class="mt-2 text-xs">
  <summary class="cursor-pointer text-primary hover:underline">{texts.add}</summary>
  <form
    class="mt-1 flex flex-wrap items-center gap-1.5"
    onsubmit={(event) => {
      event.preventDefault();
      void add();
    }}
  >
    <select class="select select-xs w-52" aria-label={texts.what} bind:value={what}>
      <option value={OWN}>{texts.ownSelection}</option>
      {#if site.saved.length}
        <optgroup label={texts.ofSaved}>
          {#each site.saved as one (one.name)}
            <option value="saved:{one.name}">{one.over === 'links' ? texts.links(one.name) : one.name}</option>
          {/each}
        </optgroup>
      {/if}
      <optgroup label={texts.ofKeyPages}>
        {#each keyBounds as one (one.text)}<option value="key:{one.text}">{one.name}</option>{/each}
      </optgroup>
      <optgroup label={texts.ofFindings}>
        {#each findings as { id, name: finding } (id)}<option value="finding:{id}">{finding}</option>{/each}
      </optgroup>
    </select>
    {#if what === OWN}
      <input
        class="input input-xs w-56 font-mono"
        required
        aria-label={texts.selection}
        placeholder={texts.selectionExample}
        bind:value={select}
      />
    {/if}
    <input
      class="input input-xs w-44"
      maxlength="120"
      aria-label={texts.nameOf}
      placeholder={texts.nameExample}
      bind:value={name}
    />
    <select
      class="select select-xs w-32"
      aria-label={texts.boundOf}
      value={isAtMost ? 'most' : 'rise'}
      onchange={({ currentTarget: { value } }) => (isAtMost = value === 'most')}
    >
      <option value="most">{texts.boundIsAtMost}</option>
      <option value="rise">{texts.noRise}</option>
    </select>
    {#if isAtMost}
      <input
        type="number"
        min="0"
        class="input input-xs tabular w-20"
        aria-label={texts.most}
        required
        bind:value={most}
      />
    {/if}
    <button class="btn btn-secondary btn-xs">{texts.addNow}</button>
  </form>
</details>
