<!-- Tries a change: what to do, to which page or pages, with what it needs. -->
<script lang="ts">
  import { tick } from 'svelte';
  import { editOf, editOps, opLabels } from '$core/draft/edits';
  import type { Edit, EditOp } from '$core/draft';
  import { placements } from '$core/links/link';
  import { addEdits } from './draft';
  import type { DraftPlace } from './draft';
  import { texts } from './texts';

  let { place }: { place: DraftPlace } = $props();

  let dialog: HTMLDialogElement;
  let op = $state<EditOp>('add_link');
  /** What each edit has of its own; several are made alike. */
  let begun = $state.raw<readonly Partial<Edit>[]>([]);
  let source = $state('');
  let target = $state('');
  let anchor = $state('');
  let placement = $state('');
  let value = $state('');
  let linkedFrom = $state('');
  let answer = $state<'404' | '410' | 'redirect'>('404');
  let correct = $state(true);
  let busy = $state(false);
  let isOpen = $state(false);

  export async function open(edits: readonly Partial<Edit>[]) {
    begun = edits;
    ({ op = 'add_link', source = '', target = '', anchor = '', placement = '', value = '' } = edits[0] ?? {});
    linkedFrom = '';
    isOpen = true;
    // What is in it must be there, so that its first field gets the focus.
    await tick();
    dialog.showModal();
  }

  const takesLink = $derived(['add_link', 'remove_link', 'reword_link', 'retarget_link'].includes(op));
  const takesTarget = $derived(
    takesLink ||
      op === 'redirect' ||
      op === 'canonical' ||
      op === 'move_page' ||
      (op === 'remove_page' && answer === 'redirect'),
  );
  const isMany = $derived(begun.length > 1);
  /** Links that are picked name their targets themselves. */
  const hasTargets = $derived(isMany && takesLink && begun.every((one) => one.target));

  function editFor(own: Partial<Edit>): Edit {
    const made = editOf(op, isMany ? (own.source ?? '') : source.trim());
    if (takesTarget) made.target = target.trim();
    if (takesLink) Object.assign(made, { anchor: anchor.trim(), placement });
    if (hasTargets) Object.assign(made, { target: own.target, anchor: own.anchor, placement: own.placement });
    if (['reword_link', 'retarget_link', 'add_page', 'robots'].includes(op)) made.value = value;
    if (op === 'move_page' && correct) made.value = 'links';
    if (op === 'remove_page') Object.assign(made, { value: answer === 'redirect' ? made.target : answer, target: '' });
    return made;
  }
  async function add() {
    busy = true;
    const edits = (isMany ? begun : [{}]).map(editFor);
    if (op === 'add_page' && linkedFrom.trim())
      edits.push(editOf('add_link', linkedFrom.trim(), { target: source.trim(), anchor: value, placement: 'main' }));
    const done = await addEdits(place, edits);
    busy = false;
    if (done) dialog.close();
  }
  const field = 'grid gap-0.5 text-xs';
  const input = 'input input-sm w-full font-mono';
</script>

<dialog
  bind:this={dialog}
  onclose={() => (isOpen = false)}
  class="panel m-auto w-[34rem] p-0 shadow-xl backdrop:bg-black/30"
  aria-label={texts.dialogTitle}
>
  {#if isOpen}
    <form
      class="grid gap-3 p-4"
      onsubmit={(event) => {
        event.preventDefault();
        void add();
      }}
    >
      <h2 class="font-serif text-lg">{texts.dialogTitle}</h2>
      <label class={field}
        ><span>{texts.what}</span>
        <select class="select select-sm w-full" bind:value={op}>
          {#each editOps as one (one)}<option value={one}>{opLabels[one]}</option>{/each}
        </select></label
      >
      {#if isMany}
        <p class="text-xs">{takesLink && hasTargets ? texts.links(begun.length) : texts.sources(begun.length)}</p>
      {:else}
        <label class={field}
          ><span>{op === 'add_page' ? texts.newPage : texts.source}</span>
          <input class={input} bind:value={source} required title={texts.sourceHint} /></label
        >
      {/if}
      {#if op === 'remove_page'}
        <label class={field}
          ><span>{texts.answer}</span>
          <select class="select select-sm w-full" bind:value={answer}>
            {#each Object.entries(texts.answers) as [key, label] (key)}<option value={key}>{label}</option>{/each}
          </select></label
        >
      {/if}
      {#if takesTarget && !hasTargets}
        <label class={field}
          ><span>{op === 'move_page' ? texts.movesTo : texts.target}</span>
          <input
            class={input}
            bind:value={target}
            required={op !== 'canonical'}
            placeholder={op === 'canonical' ? texts.canonicalHint : op === 'move_page' ? texts.movesToHint : ''}
          /></label
        >
      {/if}
      {#if takesLink && !hasTargets}
        <div class="grid grid-cols-[1fr_10rem] gap-3">
          <label class={field}
            ><span>{texts.words}</span>
            <input
              class="input input-sm w-full"
              bind:value={anchor}
              placeholder={op === 'add_link' ? '' : texts.anyWords}
            /></label
          >
          <label class={field}
            ><span>{texts.placement}</span>
            <select class="select select-sm w-full" bind:value={placement}>
              <option value="">{op === 'add_link' ? 'main' : texts.anyPlacement}</option>
              {#each placements as one (one)}{#if op !== 'add_link' || one !== 'main'}<option value={one}>{one}</option
                  >{/if}{/each}
            </select></label
          >
        </div>
      {/if}
      {#if op === 'reword_link' || op === 'retarget_link' || op === 'add_page'}
        <label class={field}
          ><span>{op === 'add_page' ? texts.title : op === 'reword_link' ? texts.newWords : texts.newTarget}</span>
          <input class="input input-sm w-full" bind:value required={op !== 'add_page'} /></label
        >
      {/if}
      {#if op === 'add_page'}
        <label class={field}
          ><span>{texts.linkedFrom}</span>
          <input class={input} bind:value={linkedFrom} placeholder={texts.linkedFromHint} /></label
        >
      {/if}
      {#if op === 'move_page'}
        <label class="flex items-center gap-2 text-xs"
          ><input type="checkbox" class="checkbox checkbox-xs" bind:checked={correct} />{texts.correctLinks}</label
        >
      {/if}
      {#if op === 'robots'}
        <label class={field}
          ><span>{texts.text}</span>
          <textarea class="textarea textarea-sm w-full font-mono" rows="6" bind:value></textarea></label
        >
      {/if}
      <div class="flex justify-end gap-2">
        <button type="button" class="btn btn-ghost btn-sm" onclick={() => dialog.close()}>{texts.cancel}</button>
        <button class="btn btn-primary btn-sm" disabled={busy}>{texts.add}</button>
      </div>
    </form>
  {/if}
</dialog>
