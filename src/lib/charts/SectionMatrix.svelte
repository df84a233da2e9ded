<!-- Links, or the share they carry, from section (row) to section (column). -->
<script lang="ts">
  import type { SectionFlow } from '$core/share';
  import { number } from '../shell/words';
  import { texts } from './texts';

  interface Props {
    flow: SectionFlow;
    of: 'links' | 'share';
    onpick: (from: string, to: string) => void;
  }
  let { flow, of, onpick }: Props = $props();

  const MOST = 12;
  const ROW = 19;
  const LABEL = 130;
  const HEAD = 22;
  let width = $state(800);
  const shown = $derived(Math.min(MOST, flow.sections.length));
  const cells = $derived(of === 'links' ? flow.links : flow.carried);
  const most = $derived(Math.max(1e-9, ...cells.slice(0, shown).flatMap((row) => row.slice(0, shown))));
  const column = $derived(Math.min(96, (width - LABEL - 8) / shown));
  const name = (section: string) => (section === '' ? '/' : section === '…' ? texts.allOthers : `/${section}`);
  const cut = (text: string, pixels: number) =>
    text.length * 6.4 > pixels ? `${text.slice(0, Math.max(2, Math.floor(pixels / 6.4) - 1))}…` : text;
  const shownValue = (value: number) =>
    of === 'links'
      ? value >= 10_000
        ? `${Math.round(value / 1000)}k`
        : number(value)
      : value >= 10
        ? number(Math.round(value))
        : value.toFixed(1);
  /** Darker by order of magnitude: a few large cells would leave the others white. */
  const strength = (value: number) =>
    value <= 0 ? 0 : Math.max(0.06, Math.log1p((value / most) * 50) / Math.log1p(50));
</script>

<div bind:clientWidth={width} class="px-2 pb-1">
  <svg
    {width}
    height={HEAD + shown * ROW + 2}
    class="max-w-full"
    role="group"
    aria-label={texts.fromSectionToSection(of === 'links' ? texts.links : texts.share)}
  >
    {#each flow.sections.slice(0, shown) as to, j (to)}
      <text
        x={LABEL + (j + 0.5) * column}
        y="15"
        text-anchor="middle"
        font-size="11"
        font-family="Source Code Pro Variable, monospace"
        fill="var(--quiet)">{cut(name(to), column)}<title>{name(to)}</title></text
      >
    {/each}
    {#each flow.sections.slice(0, shown) as from, i (from)}
      <text
        x={LABEL - 6}
        y={HEAD + i * ROW + 14}
        text-anchor="end"
        font-size="12"
        font-family="Source Code Pro Variable, monospace"
        fill="var(--color-base-content)">{cut(name(from), LABEL - 10)}<title>{name(from)}</title></text
      >
      {#each flow.sections.slice(0, shown) as to, j (to)}
        {@const value = cells[i][j]}
        {@const strong = strength(value)}
        <g
          role="button"
          tabindex={value > 0 ? 0 : -1}
          aria-label={texts.cell(name(from), name(to), shownValue(value))}
          class={value > 0 && from !== '…' && to !== '…' ? 'cursor-pointer' : ''}
          onclick={() => value > 0 && onpick(from, to)}
          onkeydown={({ key }) => (key === 'Enter' || key === ' ') && value > 0 && onpick(from, to)}
        >
          <rect
            x={LABEL + j * column}
            y={HEAD + i * ROW}
            width={column - 1}
            height={ROW - 1}
            rx="1"
            fill={value > 0 ? 'var(--color-primary)' : 'var(--color-base-200)'}
            opacity={value > 0 ? strong : 1}
          />
          {#if value > 0 && column > 34}
            <text
              x={LABEL + (j + 0.5) * column}
              y={HEAD + i * ROW + 13}
              text-anchor="middle"
              font-size="11"
              fill={strong > 0.55 ? 'var(--color-primary-content)' : 'var(--color-base-content)'}
              >{shownValue(value)}</text
            >
          {/if}
          <title
            >{texts.cellInFull(name(from), name(to), number(flow.links[i][j]), flow.carried[i][j].toFixed(2))}</title
          >
        </g>
      {/each}
    {/each}
  </svg>
  {#if flow.sections.length > shown}<p class="quiet text-xs">
      {texts.moreSections(flow.sections.length - shown)}
    </p>{/if}
</div>
