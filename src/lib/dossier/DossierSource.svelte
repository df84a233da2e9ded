<!-- The source of a page as it was received, with the line of a link marked. -->
<script lang="ts">
  import { tick } from 'svelte';
  import type { SourceLine, SourceWindow } from '$core/html';
  import { number } from '../shell/words';

  let { base, page, at }: { base: string; page: string; at: string } = $props();

  const SIZE = 120;
  const BEFORE = 12;
  let box: HTMLDivElement | undefined = $state();
  let lines = $state.raw<SourceLine[]>([]);
  let total = $state(0);
  let trouble = $state('');
  const line = $derived(Number(at.split(':')[0]) || 0);
  const of = $derived(`${page} ${at}`);

  $effect(() => {
    void of;
    lines = [];
    void read(Math.max(1, line - BEFORE), 'fresh');
  });
  async function read(from: number, as: 'fresh' | 'before' | 'after', size = SIZE) {
    const asked = of;
    const query = new URLSearchParams({ page, marks: at, from: String(from), size: String(size) });
    const response = await fetch(`${base}/source?${query}`).catch(() => null);
    if (asked !== of) return;
    if (!response?.ok) {
      trouble =
        ((await response?.json().catch(() => null)) as { message?: string } | null)?.message ??
        'The source could not be read. Is Edge Map still running?';
      return;
    }
    const found = (await response.json()) as SourceWindow;
    trouble = '';
    total = found.total;
    const known = new Map([...lines, ...found.lines].map((one) => [one.number, one]));
    lines = as === 'fresh' ? found.lines : [...known.values()].sort((a, b) => a.number - b.number);
    if (as !== 'fresh') return;
    await tick();
    box?.querySelector('mark')?.scrollIntoView({ block: 'center' });
  }
</script>

{#if trouble}
  <p class="quiet" role="alert">{trouble}</p>
{:else if lines.length}
  {#if line}<p class="mb-1 text-xs" aria-live="polite">
      The link is on line <b>{number(line)}</b> of {number(total)}.
    </p>{/if}
  {#if lines[0].number > 1}
    <button
      type="button"
      class="text-xs text-primary hover:underline"
      onclick={() => read(Math.max(1, lines[0].number - SIZE), 'before', Math.min(SIZE, lines[0].number - 1))}
      >Show the lines before</button
    >
  {/if}
  <div bind:this={box} class="source font-mono text-xs">
    {#each lines as { number: n, runs } (n)}
      <div class="flex gap-2 {n === line ? 'bg-primary/10' : ''}">
        <span class="quiet tabular w-9 shrink-0 text-right select-none">{n}</span>
        <code class="min-w-0 flex-1 break-all whitespace-pre-wrap"
          >{#each runs as { text, marked, left }, i (i)}{#if left}<span
                class="fold"
                title="{number(left)} characters are left out">⋯</span
              >{:else if marked}<mark>{text}</mark>{:else}{text}{/if}{/each}</code
        >
      </div>
    {/each}
  </div>
  {#if lines[lines.length - 1].number < total}
    <button
      type="button"
      class="text-xs text-primary hover:underline"
      onclick={() => read(lines[lines.length - 1].number + 1, 'after')}>Show the lines after</button
    >
  {/if}
{:else}
  <p class="quiet">Opening the source …</p>
{/if}

<style>
  mark {
    background: color-mix(in oklab, var(--color-secondary) 24%, transparent);
    color: inherit;
    outline: 1px solid var(--color-secondary);
    border-radius: 2px;
  }
  .fold {
    margin: 0 0.2rem;
    padding: 0 0.3rem;
    border-radius: 3px;
    background: var(--color-base-200);
    color: var(--quiet);
  }
</style>
