<!-- Numbers from each of some things (row) to each of others (column), the darker the more. -->
<script lang="ts">
  import { texts } from './texts';

  interface Props {
    label: string;
    rows: string[];
    columns: string[];
    value: (row: number, column: number) => number;
    /** A number as it is written. */
    shown: (value: number) => string;
    /** What a cell says in full. */
    title: (row: number, column: number) => string;
    canPick?: (row: number, column: number) => boolean;
    onpick: (row: number, column: number) => void;
    /** Whether a cell is left pale, however large it is. */
    isPale?: (row: number, column: number) => boolean;
  }
  let {
    label,
    rows,
    columns,
    value,
    shown,
    title,
    canPick = () => true,
    onpick,
    isPale = () => false,
  }: Props = $props();

  const ROW = 19;
  const LABEL = 130;
  const HEAD = 22;
  let width = $state(800);
  const most = $derived(
    Math.max(1e-9, ...rows.flatMap((_, i) => columns.map((_, j) => (isPale(i, j) ? 0 : value(i, j))))),
  );
  const wide = $derived(Math.min(96, (width - LABEL - 8) / columns.length));
  const cut = (text: string, pixels: number) =>
    text.length * 6.4 > pixels ? `${text.slice(0, Math.max(2, Math.floor(pixels / 6.4) - 1))}…` : text;
  /** Darker by order of magnitude: a few large cells would leave the others white. */
  const strength = (n: number) => (n <= 0 ? 0 : Math.max(0.06, Math.log1p((n / most) * 50) / Math.log1p(50)));
</script>

<div bind:clientWidth={width} class="px-2 pb-1">
  <svg {width} height={HEAD + rows.length * ROW + 2} class="max-w-full" role="group" aria-label={label}>
    {#each columns as to, j (to)}
      <text
        x={LABEL + (j + 0.5) * wide}
        y="15"
        text-anchor="middle"
        font-size="11"
        font-family="Source Code Pro Variable, monospace"
        fill="var(--quiet)">{cut(to, wide)}<title>{to}</title></text
      >
    {/each}
    {#each rows as from, i (from)}
      <text
        x={LABEL - 6}
        y={HEAD + i * ROW + 14}
        text-anchor="end"
        font-size="12"
        font-family="Source Code Pro Variable, monospace"
        fill="var(--color-base-content)">{cut(from, LABEL - 10)}<title>{from}</title></text
      >
      {#each columns as to, j (to)}
        {@const n = value(i, j)}
        {@const strong = isPale(i, j) ? 0.06 : strength(n)}
        {@const can = n > 0 && canPick(i, j)}
        <g
          role="button"
          tabindex={n > 0 ? 0 : -1}
          aria-label={texts.cell(from, to, shown(n))}
          class={can ? 'cursor-pointer' : ''}
          onclick={() => can && onpick(i, j)}
          onkeydown={({ key }) => (key === 'Enter' || key === ' ') && can && onpick(i, j)}
        >
          <rect
            x={LABEL + j * wide}
            y={HEAD + i * ROW}
            width={wide - 1}
            height={ROW - 1}
            rx="1"
            fill={n > 0 ? 'var(--color-primary)' : 'var(--color-base-200)'}
            opacity={n > 0 ? strong : 1}
          />
          {#if n > 0 && wide > 34}
            <text
              x={LABEL + (j + 0.5) * wide}
              y={HEAD + i * ROW + 13}
              text-anchor="middle"
              font-size="11"
              fill={strong > 0.55 ? 'var(--color-primary-content)' : 'var(--color-base-content)'}>{shown(n)}</text
            >
          {/if}
          <title>{title(i, j)}</title>
        </g>
      {/each}
    {/each}
  </svg>
</div>
