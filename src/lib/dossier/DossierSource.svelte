<!-- The source of a page as it was received, with the line of a link marked. -->
<script lang="ts">
  import { tick } from 'svelte';
  import type { SourceLine, SourceWindow } from '$core/html';
  import { number } from '../shell/words';
  import { texts } from './texts';

  interface Props {
    base: string;
    page: string;
    /** The place that is marked, `line:column`, or a line. */
    at: string;
    /** Where a line is shown. */
    hrefOfLine: (line: number) => string;
  }
  let { base, page, at, hrefOfLine }: Props = $props();

  const SIZE = 120;
  const BEFORE = 12;
  let box: HTMLDivElement | undefined = $state();
  let lines = $state.raw<SourceLine[]>([]);
  let total = $state(0);
  let trouble = $state('');
  const line = $derived(Number(at.split(':')[0]) || 0);
  const of = $derived(`${page} ${at}`);

  type Run = SourceLine['runs'][number];
  /** Runs that follow each other and are marked together. */
  function marksOf(runs: readonly Run[]): { marked: boolean; runs: Run[] }[] {
    const groups: { marked: boolean; runs: Run[] }[] = [];
    for (const run of runs) {
      const last = groups[groups.length - 1];
      if (last?.marked === run.marked) last.runs.push(run);
      else groups.push({ marked: run.marked, runs: [run] });
    }
    return groups;
  }

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
        texts.theSourceCouldNotBeRead;
      return;
    }
    const found = (await response.json()) as SourceWindow;
    trouble = '';
    total = found.total;
    const known = new Map([...lines, ...found.lines].map((one) => [one.number, one]));
    lines = as === 'fresh' ? found.lines : [...known.values()].sort((a, b) => a.number - b.number);
    if (as !== 'fresh') return;
    await tick();
    box?.querySelector('mark, [aria-current]')?.scrollIntoView({ block: 'center' });
  }
</script>

{#snippet runsOf(runs: readonly Run[])}
  {#each runs as { text, part, left }, i (i)}{#if left}<span
        class="fold"
        title={texts.charactersAreLeftOut(number(left))}>⋯</span
      >{:else if part}<span class={part}>{text}</span>{:else}{text}{/if}{/each}
{/snippet}
{#if trouble}
  <p class="quiet" role="alert">{trouble}</p>
{:else if lines.length}
  <p class="mb-1 text-xs" aria-live="polite">
    {#if at.includes(':')}{texts.theLinkIsOnLine} <b>{number(line)}</b>
      {texts.ofLines(number(total))}{:else}{texts.linesAsSent(total)}{/if}
  </p>
  {#if lines[0].number > 1}
    <button
      type="button"
      class="text-xs text-primary hover:underline"
      onclick={() => read(Math.max(1, lines[0].number - SIZE), 'before', Math.min(SIZE, lines[0].number - 1))}
      >{texts.showTheLinesBefore}</button
    >
  {/if}
  <div bind:this={box} class="source font-mono text-xs">
    {#each lines as { number: n, runs } (n)}
      <div class="flex gap-2 {n === line ? 'bg-primary/10' : ''}" aria-current={n === line ? 'true' : undefined}>
        <a
          href={hrefOfLine(n)}
          data-sveltekit-noscroll
          data-sveltekit-replacestate
          class="quiet tabular w-9 shrink-0 text-right select-none hover:text-primary hover:underline"
          aria-label={texts.lineLabel(n)}>{n}</a
        >
        <code class="min-w-0 flex-1 break-all whitespace-pre-wrap"
          >{#each marksOf(runs) as { marked, runs: own }, i (i)}{#if marked}<mark>{@render runsOf(own)}</mark
              >{:else}{@render runsOf(own)}{/if}{/each}</code
        >
      </div>
    {/each}
  </div>
  {#if lines[lines.length - 1].number < total}
    <button
      type="button"
      class="text-xs text-primary hover:underline"
      onclick={() => read(lines[lines.length - 1].number + 1, 'after')}>{texts.showTheLinesAfter}</button
    >
  {/if}
{:else}
  <p class="quiet">{texts.openingTheSource}</p>
{/if}

<style>
  mark {
    background: color-mix(in oklab, var(--color-secondary) 14%, transparent);
    color: inherit;
    outline: 1px solid var(--color-secondary);
    border-radius: 2px;
  }
  .tag {
    color: var(--code-tag);
  }
  .attribute {
    color: var(--code-attribute);
  }
  .value {
    color: var(--code-value);
  }
  .reference {
    color: var(--code-attribute);
  }
  .comment,
  .declaration,
  .raw {
    color: var(--quiet);
  }
  .comment {
    font-style: italic;
  }
  .fold {
    margin: 0 0.2rem;
    padding: 0 0.3rem;
    border-radius: 3px;
    background: var(--color-base-200);
    color: var(--quiet);
  }
</style>
