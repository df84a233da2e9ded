<!-- The bar at the head of every screen, with what the screen adds to it. -->
<script lang="ts">
  import type { Snippet } from 'svelte';

  import { switchTheme } from './theme';
  import { texts } from './texts';

  let { children }: { children?: Snippet } = $props();
</script>

<header class="flex h-12 shrink-0 items-center gap-4 bg-neutral px-4 text-neutral-content">
  <a href="/" class="flex items-center gap-2.5 font-semibold whitespace-nowrap" aria-label={texts.edgeMapYourSites}>
    <img src="/mark.svg" alt="" width="28" height="28" />
    {texts.edgeMap}
  </a>
  <div class="flex min-w-0 flex-1 items-center gap-4">{@render children?.()}</div>
  <button
    type="button"
    class="rounded px-2 py-1 text-xs opacity-80 hover:opacity-100"
    data-key="t"
    onclick={switchTheme}>{texts.lightDark}</button
  >
</header>
