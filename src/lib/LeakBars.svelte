<!-- Where share ends that can help no page: by cause. A bar selects the links that leak there. -->
<script lang="ts">
  import type { Leak } from '$core/share';
  import type { Verdict } from '$core/verdict';
  import { number, verdictLabel } from './words';

  interface Props {
    leaks: Leak[];
    select: string;
    onpick: (select: string) => void;
  }
  let { leaks, select, onpick }: Props = $props();

  const ROW = 24;
  const LABEL = 190;
  const VALUE = 210;
  let width = $state(800);
  const most = $derived(Math.max(...leaks.map(({ part }) => part)));
  const label = (cause: string) =>
    cause === 'nofollow' ? 'Links that are not followed' : verdictLabel[cause as Verdict];
  const selectionOf = (cause: string) => (cause === 'nofollow' ? 'kind = click and not followed and not external and not self' : `kind = click and followed and to (verdict = ${cause})`); // prettier-ignore
</script>

{#if leaks.length === 0}
  <p class="quiet p-4">No share leaks: every link that is followed leads to what may be indexed.</p>
{:else}
  <div bind:clientWidth={width} class="px-2">
    <svg {width} height={leaks.length * ROW + 6} class="max-w-full" role="group" aria-label="Leaks by cause">
      {#each leaks as { cause, part, pages }, i (cause)}
        {@const here = select === selectionOf(cause)}
        <g
          role="button"
          tabindex="0"
          aria-pressed={here}
          class="cursor-pointer"
          transform="translate(0 {i * ROW + 3})"
          onclick={() => onpick(selectionOf(cause))}
          onkeydown={({ key }) => (key === 'Enter' || key === ' ') && onpick(selectionOf(cause))}
        >
          <rect {width} height={ROW - 2} fill="transparent" />
          <text x={LABEL - 10} y="16" text-anchor="end" font-size="13" fill="var(--color-base-content)"
            >{label(cause)}</text
          >
          <rect
            x={LABEL}
            y="4"
            height="14"
            rx="2"
            width={Math.max(2, ((width - LABEL - VALUE) * part) / most)}
            fill={here ? 'var(--color-secondary)' : 'var(--color-primary)'}
          />
          <text
            x={LABEL + Math.max(2, ((width - LABEL - VALUE) * part) / most) + 8}
            y="16"
            font-size="13"
            fill="var(--color-base-content)"
            >{(100 * part).toLocaleString('en', { maximumSignificantDigits: 2 })}% of all share, {number(pages)}
            {cause === 'nofollow' ? 'pages withhold it' : 'pages'}</text
          >
        </g>
      {/each}
    </svg>
  </div>
{/if}
