<!-- Leads through the screens of a crawl, a step at a time; whoever has seen enough leaves at any moment. -->
<script lang="ts">
  import { onMount } from 'svelte';
  import { goto } from '$app/navigation';
  import { page } from '$app/state';
  import { tourSteps } from './steps';
  import { showStep, tourStep } from './tour.svelte';
  import { texts } from './texts';

  /** Where the crawl is, and its start page. */
  let { base, start }: { base: string; start: string } = $props();
  const at = $derived(tourStep());
  const step = $derived(at === null ? undefined : tourSteps.at(at));
  const isLast = $derived(at !== null && at + 1 >= tourSteps.length);
  let ring = $state<{ left: number; top: number; width: number; height: number } | null>(null);
  let card: HTMLElement | undefined = $state();
  const WIDTH = 352;

  onMount(() => {
    // What is shown may move while it is loaded, and when the window changes.
    const timer = setInterval(measure, 200);
    return () => clearInterval(timer);
  });
  $effect(() => {
    if (!step) return;
    const query = step.query?.replace('START', encodeURIComponent(start)) ?? '';
    const path = `${base}/${step.path}`;
    // A step is shown once; what a person then does on its screen stays.
    void goto(query ? `${path}?${query}` : path, { keepFocus: true }).then(() => {
      document.querySelector(step.about)?.scrollIntoView({ block: 'nearest' });
      card?.focus();
    });
  });
  function measure() {
    const target = step && page.url.pathname === `${base}/${step.path}` && document.querySelector(step.about);
    const box = target ? target.getBoundingClientRect() : null;
    ring = box && box.width ? { left: box.left, top: box.top, width: box.width, height: box.height } : null;
  }
  /** Beside what it is about: below it where there is room, else above its lower edge. */
  const place = $derived.by(() => {
    if (!ring || typeof innerHeight === 'undefined') return 'left: 50%; bottom: 4rem; transform: translateX(-50%)';
    const left = Math.max(12, Math.min(ring.left + ring.width / 2 - WIDTH / 2, innerWidth - WIDTH - 12));
    // A tall part is best explained beside it.
    if (ring.height > innerHeight / 2 && ring.left > WIDTH + 24) return `left: ${ring.left - WIDTH - 16}px; top: 120px`;
    const below = ring.top + ring.height + 12;
    if (below + 200 < innerHeight) return `left: ${left}px; top: ${below}px`;
    if (ring.top > 230) return `left: ${left}px; bottom: ${innerHeight - ring.top + 12}px`;
    return `left: ${left}px; bottom: 16px`;
  });
</script>

<svelte:window
  onkeydown={(event) => {
    if (step && event.key === 'Escape') showStep(null);
  }}
/>
{#if step && at !== null}
  {#if ring}
    <div
      class="pointer-events-none fixed z-40 rounded-md ring-3 ring-secondary"
      style="left: {ring.left - 4}px; top: {ring.top - 4}px; width: {ring.width + 8}px; height: {ring.height + 8}px"
    ></div>
  {/if}
  <div
    bind:this={card}
    role="dialog"
    aria-label={texts.tour}
    tabindex="-1"
    class="panel fixed z-50 p-4 shadow-xl outline-none"
    style="width: {WIDTH}px; {place}"
  >
    <p class="quiet text-xs">{texts.tourOf(at + 1, tourSteps.length)}</p>
    <h2 class="font-serif text-lg leading-snug">{step.title}</h2>
    <p class="mt-1">{step.text}</p>
    <div class="mt-3 flex items-center gap-2">
      <button type="button" class="btn btn-secondary btn-sm" onclick={() => showStep(isLast ? null : at + 1)}
        >{isLast ? texts.endTour : texts.next}</button
      >
      {#if at > 0}<button type="button" class="btn btn-outline btn-sm" onclick={() => showStep(at - 1)}
          >{texts.back}</button
        >{/if}
      <span class="flex-1"></span>
      {#if !isLast}
        <button type="button" class="text-primary hover:underline" onclick={() => showStep(null)}
          >{texts.leaveTour}</button
        >
      {/if}
    </div>
  </div>
{/if}
