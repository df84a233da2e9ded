<!-- The keys that work everywhere, and the sheet that lists them. -->
<script lang="ts">
  let { onwalk }: { onwalk: (step: number) => void } = $props();
  let sheet: HTMLDialogElement;
  export const open = () => sheet.showModal();

  const keys = [
    ['/', 'find a page, a finding, a screen or an action; Ctrl K too'],
    ['s', 'write a selection'],
    ['l', 'go to the list'],
    ['↑ ↓', 'move in the list; Page Up, Page Down, Home and End too'],
    ['← →', 'show a cut cell of the row whole'],
    ['Enter', 'open the dossier of the page, the line of the link, or a group'],
    ['x', 'pick the row; Shift with arrows or clicks picks more, Ctrl A all'],
    ['Ctrl C', 'copy the rows that are picked, for a spreadsheet'],
    ['p n', 'the page before or after it, in its dossier'],
    ['r', 'read as the other reader'],
    ['Esc', 'pick nothing, then close the dossier'],
    ['Ctrl-click', 'add a bar of the chart to the selection, or take it out'],
    ['[ ]', 'walk through the questions'],
    ['t', 'light or dark'],
    ['?', 'this sheet'],
  ];

  function onkeydown(event: KeyboardEvent) {
    const typing = event.target instanceof Element && event.target.closest('input, textarea, select, dialog');
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
  <h2 id="keys-title" class="font-serif text-lg">Keys</h2>
  <dl class="mt-2 grid grid-cols-[5rem_1fr] gap-y-1">
    {#each keys as [key, words] (key)}
      <dt class="font-mono">{key}</dt>
      <dd>{words}</dd>
    {/each}
  </dl>
  <form method="dialog" class="mt-4 text-right"><button class="btn btn-outline btn-sm">Close</button></form>
</dialog>
