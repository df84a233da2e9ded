<!-- A button that opens a small panel; Escape or a click elsewhere closes it. -->
<script lang="ts">
  import type { Snippet } from 'svelte';

  interface Props {
    label: string;
    /** What it is for, where the label alone does not say. */
    about?: string;
    /** The side of the button on which the panel is aligned. */
    align?: 'left' | 'right';
    children: Snippet<[close: () => void]>;
  }
  let { label, about, align = 'right', children }: Props = $props();
  let open = $state(false);
  let box: HTMLDivElement;
  /** Fixed, so that no panel around it cuts it, and as high as there is room below. */
  let place = $state('');
  const close = () => (open = false);
  function toggle() {
    const { left, right, bottom } = box.getBoundingClientRect();
    const side = align === 'right' ? `right: ${innerWidth - right}px` : `left: ${left}px`;
    place = `top: ${bottom + 4}px; ${side}; max-height: ${Math.max(120, innerHeight - bottom - 16)}px`;
    open = !open;
  }
</script>

<svelte:window
  onresize={close}
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
    aria-label={about}
    onclick={toggle}>{label} <span aria-hidden="true">▾</span></button
  >
  {#if open}
    <div class="panel fixed z-30 min-w-48 overflow-y-auto p-1.5 text-left shadow-lg" style={place}>
      {@render children(close)}
    </div>
  {/if}
</div>
