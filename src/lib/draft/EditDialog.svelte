<!-- Tries a change: what to do, to which page or pages, with what it needs. -->
<script lang="ts">
  import { editOps, opLabels } from '$core/draft/edits';
  import type { Edit, EditOp } from '$core/draft';
  import { placements } from '$core/links/link';
  import { addEdits } from './draft';
  import type { DraftPlace } from './draft';
  import { texts } from './texts';

  let { place }: { place: DraftPlace } = $props();

  let dialog: HTMLDialogElement;
  let op = $state<EditOp>('add_link');
  /** The pages that are edited; one that is typed in where there are none. */
  let picked = $state.raw<string[]>([]);
  let source = $state('');
  let target = $state('');
  let anchor = $state('');
  let placement = $state('');
  let value = $state('');
  let linkedFrom = $state('');
  let answer = $state<'404' | '410' | 'redirect'>('404');
  let correct = $state(true);
  let busy = $state(false);

  /** Opens it for pages, or for links of them. */
  export function open(sources: readonly string[], begun: Partial<Edit> = {}) {
    picked = [...sources];
    ({ op = 'add_link', target = '', anchor = '', placement = '', value = '' } = begun);
    source = sources.length === 1 ? sources[0] : (begun.source ?? '');
    linkedFrom = '';
    dialog.showModal();
  }

  const takesLink = $derived(op === 'add_link' || op === 'remove_link' || op === 'reword_link');
  const takesTarget = $derived(
    takesLink ||
      op === 'redirect' ||
      op === 'canonical' ||
      op === 'move_page' ||
      (op === 'remove_page' && answer === 'redirect'),
  );
  const isMany = $derived(picked.length > 1);

  function editFor(of: string): Edit {
    const own: Edit = {
      op,
      source: of,
      target: takesTarget ? target.trim() : '',
      anchor: '',
      placement: '',
      value: '',
    };
    if (takesLink) Object.assign(own, { anchor: anchor.trim(), placement });
    if (op === 'reword_link' || op === 'add_page' || op === 'robots') own.value = value;
    if (op === 'move_page') own.value = correct ? 'links' : '';
    if (op === 'remove_page') Object.assign(own, { value: answer === 'redirect' ? target.trim() : answer, target: '' });
    return own;
  }
  async function add() {
    busy = true;
    const edits = (isMany ? picked : [source.trim()]).map(editFor);
    if (op === 'add_page' && linkedFrom.trim())
      edits.push({
        op: 'add_link',
        source: linkedFrom.trim(),
        target: source.trim(),
        anchor: value,
        placement: 'main',
        value: '',
      });
    const done = await addEdits(place, edits);
    busy = false;
    if (done) dialog.close();
  }
  const field = 'grid gap-0.5 text-xs';
  const input = 'input input-sm w-full font-mono';
</script>

<dialog
  bind:this={dialog}
  class="panel m-auto w-[34rem] p-0 shadow-xl backdrop:bg-black/30"
  aria-label={texts.dialogTitle}
>
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
      <p class="text-xs">{texts.sources(picked.length)}</p>
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
    {#if takesTarget}
      <label class={field}
        ><span>{op === 'move_page' ? texts.movesTo : texts.target}</span>
        <input
          class={input}
          bind:value={target}
          required={op !== 'canonical'}
          placeholder={op === 'canonical' ? texts.canonicalHint : ''}
        /></label
      >
    {/if}
    {#if takesLink}
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
    {#if op === 'reword_link' || op === 'add_page'}
      <label class={field}
        ><span>{op === 'add_page' ? texts.title : texts.newWords}</span>
        <input class="input input-sm w-full" bind:value required={op === 'reword_link'} /></label
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
</dialog>
