<!-- A button that opens a small panel; Escape or a click elsewhere closes it. -->
<script lang="ts">
  import type { Snippet } from 'svelte';

  interface Props {
    label: string;
    /** The side of the button on which the panel is aligned. */
    align?: 'left' | 'right';
    children: Snippet<[close: () => void]>;
  }
  let { label, align = 'right', children }: Props = $props();
  let open = $state(false);
  let box: HTMLDivElement;
  const close = () => (open = false);
</script>

<svelte:window
  onpointerdown={(event) => {
    if (open && !box.contains(event.target as Node)) close();
  }}
/>
<div
  bind:this={box}
  class="relative"
  role="presentation"
  onkeydown={(event) => {
    if (event.key !== 'Escape' || !open) return;
    event.stopPropagation();
    close();
    box.querySelector('button')?.focus();
  }}
>
  <button
    type="button"
    class="rounded px-1.5 leading-6 whitespace-nowrap text-primary hover:bg-base-200"
    aria-expanded={open}
    onclick={() => (open = !open)}>{label} <span aria-hidden="true">▾</span></button
  >
  {#if open}
    <div
      class="panel absolute top-full z-30 mt-1 max-h-96 min-w-48 overflow-y-auto p-1.5 text-left shadow-lg {align ===
      'right'
        ? 'right-0'
        : 'left-0'}"
    >
      {@render children(close)}
    </div>
  {/if}
</div>
