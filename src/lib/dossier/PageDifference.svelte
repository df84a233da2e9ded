<!-- The text or the source of a page then and now, line by line: side by side where there is room. -->
<script lang="ts">
  import { page as screen } from '$app/state';
  import type { ComparedLine, Fold } from '$core/compare';
  import { screenState } from '../shell/address';
  import { number } from '../shell/words';
  import { texts } from './texts';

  interface Props {
    base: string;
    page: string;
    /** Its address then; '' for the same. */
    was: string;
    since: number;
    wide: boolean;
  }
  let { base, page, was, since, wide }: Props = $props();
  interface Answer {
    then: boolean;
    now: boolean;
    lines: (ComparedLine | Fold)[];
    all: number;
  }
  let of = $state<'text' | 'source'>('text');
  let answer = $state.raw<Answer | null>(null);
  let trouble = $state('');
  const map = $derived(screenState(screen.url).map);
  const asked = $derived(`${base}/difference?${new URLSearchParams({ page, was, since: String(since), map, of })}`);
  $effect(() => void read(asked));
  async function read(from: string) {
    answer = null;
    trouble = '';
    const response = await fetch(from).catch(() => null);
    const found = (await response?.json().catch(() => null)) as (Answer & { message?: string }) | null;
    if (from !== asked) return;
    if (response?.ok && found) answer = found;
    else trouble = found?.message ?? texts.theDifferenceCouldNotBeRead;
  }
  const isFold = (line: ComparedLine | Fold): line is Fold => 'left' in line;
  const isSame = ({ then, now }: ComparedLine) => then !== null && now !== null && then.text === now.text;
  const differs = $derived(answer?.lines.some((line) => !isFold(line) && !isSame(line)) ?? false);
</script>

{#snippet side(line: ComparedLine['then'], kind: 'then' | 'now', same: boolean)}
  <td class="quiet tabular w-9 pr-1 text-right align-top select-none">{line?.number ?? ''}</td>
  <td class="pr-2 align-top break-words whitespace-pre-wrap {same || !line ? '' : kind}"
    >{#if line && !same}<span class="sr-only">{kind === 'then' ? texts.wasThere : texts.isThere}</span
      >{/if}{line?.text ?? ''}</td
  >
{/snippet}

<section aria-busy={answer === null && !trouble}>
  <div class="mb-1 flex items-center gap-2 text-xs">
    <h3 class="heading flex-1">{texts.thenAndNow(since)}</h3>
    <div class="flex overflow-hidden rounded border border-base-300" role="group" aria-label={texts.compareBy}>
      {#each ['text', 'source'] as const as one (one)}
        <button
          type="button"
          aria-pressed={of === one}
          class="px-2 leading-6 {of === one ? 'bg-primary text-primary-content' : 'hover:bg-base-200'}"
          onclick={() => (of = one)}>{one === 'text' ? texts.text : texts.source}</button
        >
      {/each}
    </div>
  </div>
  {#if trouble}
    <p class="quiet" role="alert">{trouble}</p>
  {:else if !answer}
    <p class="quiet">{texts.opening}</p>
  {:else}
    {#if !answer.then}<p class="quiet">{texts.noSourceThen}</p>{/if}
    {#if !answer.now}<p class="quiet">{texts.noSourceNow}</p>{/if}
    {#if !differs}
      <p class="quiet">{texts.nothingDiffers}</p>
    {:else}
      <table class="difference w-full text-xs {of === 'source' ? 'font-mono' : ''}">
        <colgroup>
          <col class="w-9" /><col />
          {#if wide}<col class="w-9" /><col />{/if}
        </colgroup>
        {#if wide}
          <thead class="quiet"
            ><tr
              ><th colspan="2" class="text-left font-normal">{texts.then}</th><th
                colspan="2"
                class="text-left font-normal">{texts.now}</th
              ></tr
            ></thead
          >
        {/if}
        <tbody>
          {#each answer.lines as line, i (i)}
            {#if isFold(line)}
              <tr><td colspan={wide ? 4 : 2} class="quiet bg-base-200 px-2">{texts.equalLines(line.left)}</td></tr>
            {:else if wide}
              {@const same = isSame(line)}
              <tr>{@render side(line.then, 'then', same)}{@render side(line.now, 'now', same)}</tr>
            {:else if isSame(line)}
              <tr>{@render side(line.now, 'now', true)}</tr>
            {:else}
              {#if line.then}<tr>{@render side(line.then, 'then', false)}</tr>{/if}
              {#if line.now}<tr>{@render side(line.now, 'now', false)}</tr>{/if}
            {/if}
          {/each}
        </tbody>
      </table>
      {#if answer.all > answer.lines.length}
        <p class="quiet">{texts.moreLines(number(answer.all - answer.lines.length))}</p>
      {/if}
    {/if}
  {/if}
</section>

<style>
  .difference {
    table-layout: fixed;
  }
  .then {
    background: color-mix(in oklab, var(--lost) 12%, transparent);
    text-decoration: line-through;
    text-decoration-color: color-mix(in oklab, var(--lost) 55%, transparent);
  }
  .now {
    background: color-mix(in oklab, var(--color-primary) 16%, transparent);
  }
</style>
