<!-- Links to one page that seem to lead to the wrong one: kept, reworded, given another target or removed, by key. -->
<script lang="ts">
  import { tick } from 'svelte';
  import { invalidateAll } from '$app/navigation';
  import { editOf } from '$core/draft/edit';
  import type { EditOp } from '$core/draft';
  import { addEdits } from '../draft/draft';
  import type { DraftPlace } from '../draft/draft';
  import { sayUndoable } from '../shell/say.svelte';
  import { send } from '../shell/send';
  import { counted, shortAddress } from '../shell/words';
  import { texts } from './texts';
  import { keyOf } from './shown';
  import type { ShownWording, ShownWordings } from './shown';

  interface Props {
    shown: ShownWordings & { address: string };
    site: { id: number; start: string };
    place: DraftPlace | null;
    hrefOf: (page: string) => string;
    hrefOfLinks: (one: ShownWording) => string;
    onnext: () => void;
  }
  let { shown, site, place, hrefOf, hrefOfLinks, onnext }: Props = $props();
  const UNDO_SECONDS = 8;

  let current = $state(0);
  let words = $state<string | null>(null);
  /** Wordings of which an edit was made here; the crawl goes on having them. */
  let done = $state.raw<string[]>([]);
  let list: HTMLOListElement | undefined = $state();
  const open = $derived(shown.wordings.filter((one) => !done.includes(keyOf(one))));

  $effect(() => {
    void shown.address;
    current = 0;
    words = null;
  });

  async function focus(index: number) {
    current = Math.max(0, Math.min(open.length - 1, index));
    await tick();
    list?.querySelectorAll<HTMLElement>('[data-wording]')[current]?.focus();
  }
  async function edit(one: ShownWording, op: EditOp, value = '') {
    const made = editOf(op, '*', { target: shown.address, anchor: one.anchor, value });
    if (!place || !(await addEdits(place, [made]))) return;
    done = [...done, keyOf(one)];
    await focus(current);
  }
  async function keep(one: ShownWording) {
    const dismissal = { kind: 'wording', what: one.anchor, target: shown.address };
    const switched = (dismissed: boolean) => send(`/sites/${site.id}/dismissals`, 'POST', { ...dismissal, dismissed });
    if (!(await switched(true))) return;
    await invalidateAll();
    sayUndoable(texts.moves.kept, UNDO_SECONDS, () => void switched(false).then(() => invalidateAll()));
    await focus(current);
  }
  async function reword(one: ShownWording) {
    words = one.anchor;
    await tick();
    list?.querySelector('input')?.select();
  }
  async function saveWords(one: ShownWording) {
    const value = (words ?? '').trim();
    words = null;
    if (value && value !== one.anchor) await edit(one, 'reword_link', value);
    else await focus(current);
  }

  function onkeydown(event: KeyboardEvent) {
    const one = open[current];
    if (!one || event.target instanceof HTMLInputElement || event.ctrlKey || event.metaKey || event.altKey) return;
    const act = {
      ArrowDown: () => focus(current + 1),
      ArrowUp: () => focus(current - 1),
      k: () => keep(one),
      w: () => reword(one),
      t: () => one.better && edit(one, 'retarget_link', one.better.address),
      x: () => edit(one, 'remove_link'),
      n: onnext,
    }[event.key];
    if (!act) return;
    event.preventDefault();
    event.stopPropagation();
    void act();
  }
  const percent = (fit: number) => (fit < 0 ? '—' : `${Math.round(100 * fit)} %`);
  const link = 'text-primary hover:underline disabled:opacity-40';
</script>

<section class="panel flex min-h-0 min-w-0 flex-col" aria-label={texts.wordings(open.length)}>
  <header class="flex items-baseline gap-3 border-b border-base-300 px-3 py-2">
    <h2 class="min-w-0 flex-1 truncate text-sm font-semibold">{shown.title || shown.address}</h2>
    <a class="font-mono text-xs hover:underline" href={hrefOf(shown.address)}
      >{shortAddress(shown.address, site.start)}</a
    >
  </header>
  <div class="min-h-0 flex-1 overflow-y-auto">
    {#if open.length === 0}<p class="quiet px-3 py-3">{texts.noMoves}</p>{/if}
    <!-- svelte-ignore a11y_no_noninteractive_element_interactions -->
    <ol bind:this={list} {onkeydown}>
      {#each open as one, i (keyOf(one))}
        <li
          class="border-b border-base-300/70 px-3 py-2 {i === current
            ? 'border-l-3 border-l-primary bg-base-200/60'
            : ''}"
        >
          <div class="flex items-baseline gap-3">
            {#if words !== null && i === current}
              <form
                class="flex flex-1 gap-2"
                onsubmit={(event) => {
                  event.preventDefault();
                  void saveWords(one);
                }}
              >
                <input class="input input-sm flex-1" aria-label={texts.moves.newWords} bind:value={words} />
                <button class="btn btn-primary btn-xs">{texts.moves.save}</button>
                <button type="button" class="btn btn-xs" onclick={() => ((words = null), focus(i))}
                  >{texts.moves.cancel}</button
                >
              </form>
            {:else}
              <button
                type="button"
                class="min-w-0 flex-1 text-left font-serif text-[15px] break-words"
                data-wording
                tabindex={i === current ? 0 : -1}
                aria-current={i === current}
                onfocus={() => (current = i)}
                onclick={() => focus(i)}>{one.anchor || texts.empty}</button
              >
            {/if}
            <span class="tabular quiet text-xs whitespace-nowrap"
              ><a class="underline" href={hrefOfLinks(one)}>{counted(one.occurrences, 'link')}</a> · {texts.columns.fit}
              {percent(one.fit)}</span
            >
          </div>
          <p class="mt-0.5 flex flex-wrap gap-x-3 text-xs">
            <button type="button" class={link} onclick={() => keep(one)}>{texts.moves.keep}</button>
            <button type="button" class={link} disabled={!place} onclick={() => ((current = i), reword(one))}
              >{texts.moves.reword}</button
            >
            {#if one.better}
              {@const to = one.better.address}
              <button
                type="button"
                class={link}
                title={one.better.title ?? ''}
                disabled={!place}
                onclick={() => edit(one, 'retarget_link', to)}
                >{texts.moves.retarget(shortAddress(to, site.start))}</button
              >
            {/if}
            <button type="button" class={link} disabled={!place} onclick={() => edit(one, 'remove_link')}
              >{texts.moves.remove}</button
            >
          </p>
        </li>
      {/each}
    </ol>
  </div>
  <footer class="quiet border-t border-base-300 px-3 py-1 text-xs">{texts.moveKeys}</footer>
</section>
