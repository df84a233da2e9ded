<!-- Bars one below the other, each with its name and number; a bar can be picked. -->
<script lang="ts">
  interface Bar {
    key: string;
    label: string;
    /** What is written behind the bar. */
    said: string;
    value: number;
    /** Whether it is what is selected. */
    here: boolean;
    mono?: boolean;
  }
  interface Props {
    bars: Bar[];
    label: string;
    /** Pixels for the names and for what is written behind the longest bar. */
    names: number;
    behind: number;
    onpick: (key: string) => void;
  }
  let { bars, label, names, behind, onpick }: Props = $props();

  const ROW = 24;
  /** Pixels that a character takes. */
  const CHAR = { sans: 6.7, mono: 7.9 };
  let width = $state(800);
  const most = $derived(Math.max(1e-9, ...bars.map(({ value }) => value)));
  const long = (value: number) => Math.max(2, (Math.max(0, width - names - behind) * value) / most);
  /** Addresses differ at their end: the beginning gives way. */
  const cut = (text: string, mono = false) => {
    const room = Math.floor((names - 14) / (mono ? CHAR.mono : CHAR.sans));
    return text.length > room ? `…${text.slice(1 - room)}` : text;
  };
</script>

<div bind:clientWidth={width} class="px-2">
  <svg {width} height={bars.length * ROW + 6} class="max-w-full" role="group" aria-label={label}>
    {#each bars as { key, label: name, said, value, here, mono }, i (key)}
      <g
        role="button"
        tabindex="0"
        aria-pressed={here}
        class="bar cursor-pointer"
        transform="translate(0 {i * ROW + 3})"
        onclick={() => onpick(key)}
        onkeydown={(event) => {
          if (event.key !== 'Enter' && event.key !== ' ') return;
          event.preventDefault();
          onpick(key);
        }}
      >
        <rect {width} height={ROW - 2} rx="3" fill="transparent" />
        <text
          x={names - 10}
          y="16"
          text-anchor="end"
          font-size="13"
          font-family={mono ? 'Source Code Pro Variable, monospace' : undefined}
          fill="var(--color-base-content)">{cut(name, mono)}<title>{name}</title></text
        >
        <rect
          x={names}
          y="5"
          height="13"
          rx="2"
          width={long(value)}
          fill={here ? 'var(--color-secondary)' : 'var(--color-primary)'}
        />
        <text x={names + long(value) + 8} y="16" font-size="13" fill="var(--color-base-content)">{said}</text>
      </g>
    {/each}
  </svg>
</div>

<style>
  .bar:hover > rect:first-child {
    fill: var(--color-base-200);
  }
</style>
