<!-- A word of ours with its meaning, shown on hover and focus. -->
<script lang="ts">
  import type { Snippet } from 'svelte';
  import { terms } from './terms';
  import type { TermName } from './terms';
  import { texts } from './texts';

  /** The word as it stands there; without it, as it is called. */
  let { of, children }: { of: TermName; children?: Snippet } = $props();
  const term = $derived(terms[of]);
  const id = $props.id();
  const WIDTH = 288;
  let place = $state<string | null>(null);
  let box: HTMLSpanElement;

  /** Fixed, so that no panel around it cuts it; above the word where there is no room below. */
  function show() {
    const { left, top, bottom } = box.getBoundingClientRect();
    const side = Math.max(8, Math.min(left, innerWidth - WIDTH - 8));
    place = `left: ${side}px; ${bottom + 160 < innerHeight ? `top: ${bottom}px` : `bottom: ${innerHeight - top}px`}`;
  }
  const hide = () => (place = null);
</script>

<span bind:this={box} class="relative" role="presentation" onmouseenter={show} onmouseleave={hide}>
  <button
    type="button"
    class="cursor-help border-b border-dotted border-current"
    aria-describedby={place === null ? undefined : id}
    onfocus={show}
    onblur={hide}
    onkeydown={({ key }) => key === 'Escape' && hide()}
    >{#if children}{@render children()}{:else}{term.word}{/if}</button
  >{#if place !== null}<span
      {id}
      role="tooltip"
      class="panel fixed z-40 block p-2.5 text-left text-xs font-normal whitespace-normal text-base-content shadow-lg"
      style="width: {WIDTH}px; {place}"
      >{term.text} <a class="whitespace-nowrap text-primary underline" href="/words#{of}">{texts.allWords}</a></span
    >{/if}</span
>
