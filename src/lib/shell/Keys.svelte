<!-- The keys that work everywhere, and the sheet that lists them. -->
<script lang="ts">
  import { texts } from './texts';
  let { onwalk }: { onwalk: (step: number) => void } = $props();
  let sheet: HTMLDialogElement;
  export const open = () => sheet.showModal();

  const keys = [
    ['/', texts.findAPageAFinding],
    ['s', texts.writeASelection],
    ['l', texts.goToTheList],
    ['↑ ↓', texts.moveInTheListPageUp],
    ['← →', texts.showACutCell],
    ['Enter', texts.openTheDossierOfThePage],
    ['x', texts.pickTheRowShiftWithArrows],
    [texts.ctrlC, texts.copyTheRowsThatArePicked],
    ['p n', texts.thePageBeforeOrAfter],
    ['r', texts.readAsTheOtherReader],
    ['e', texts.tryAnEdit],
    ['k', texts.markTheOpenPage],
    ['d', texts.switchVersion],
    ['u', texts.undoInDraft],
    [texts.esc, texts.pickNothingThenCloseTheDossier],
    [texts.ctrlClick, texts.addABarOfTheChart],
    ['[ ]', texts.walkThroughTheQuestions],
    ['t', texts.lightOrDark],
    ['?', texts.thisSheet],
  ];

  function onkeydown(event: KeyboardEvent) {
    const typing =
      event.target instanceof Element &&
      event.target.closest('input, textarea, select, dialog, [contenteditable=true]');
    if (typing || event.ctrlKey || event.metaKey || event.altKey) return;
    if (event.key === '?') sheet.showModal();
    else if (event.key === '[') onwalk(-1);
    else if (event.key === ']') onwalk(1);
    else {
      const target = document.querySelector<HTMLElement>(`[data-key="${CSS.escape(event.key)}"]`);
      if (!target) return;
      if (target instanceof HTMLInputElement) target.select();
      else if (target.tabIndex >= 0 && target.getAttribute('role') === 'grid') target.focus();
      else target.click();
    }
    event.preventDefault();
  }
</script>

<svelte:window {onkeydown} />
<dialog
  bind:this={sheet}
  class="panel m-auto w-110 p-5 text-base-content backdrop:bg-black/40"
  aria-labelledby="keys-title"
>
  <h2 id="keys-title" class="font-serif text-lg">{texts.keys}</h2>
  <dl class="mt-2 grid grid-cols-[5rem_1fr] gap-y-1">
    {#each keys as [key, words] (key)}
      <dt class="font-mono">{key}</dt>
      <dd>{words}</dd>
    {/each}
  </dl>
  <form method="dialog" class="mt-4 text-right"><button class="btn btn-outline btn-sm">{texts.close}</button></form>
</dialog>
