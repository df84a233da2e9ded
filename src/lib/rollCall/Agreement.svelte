<!-- Every combination of sources that occurs: marks for those that know it, and its addresses by verdict. -->
<script lang="ts">
  import type { AgreementRow } from '$core/agreement';
  import { number, verdictLabel } from '../shell/words';
  import { combinationTest } from './sources';
  import { texts } from './texts';

  interface Props {
    /** The sources that are included, in their order, with how many addresses each knows. */
    sources: { name: string; at: number; urls: number }[];
    rows: AgreementRow[];
    /** Names of all sources. */
    names: readonly string[];
    select: string;
    onpick: (select: string) => void;
  }
  let { sources, rows, names, select, onpick }: Props = $props();

  const ROW = 26;
  const HITS = 70;
  /** For the number behind the longest bar. */
  const COUNT = 70;
  /** For what stands behind the number. */
  const REMARK = 380;
  const HEAD = 40;
  let box = $state(760);
  // A bar to scroll by may stand at the right.
  const width = $derived(box - 24);
  /** Pixels for the marks of a source, as far as there is room beside the bars. */
  const mark = $derived(Math.max(34, Math.min(78, (width * 0.5) / sources.length)));
  const left = $derived(sources.length * mark + 12);
  const most = $derived(Math.max(1, ...rows.map(({ urls }) => urls)));
  /** Pixels behind the marks; beside a wide dossier there is room for the bars only. */
  const room = $derived(width - left);
  const hasHits = $derived(room > 260);
  const long = (urls: number) => (Math.max(24, room - (hasHits ? HITS : 0) - COUNT) * urls) / most;
  const testOf = (row: AgreementRow) =>
    combinationTest(
      sources.map(({ name }) => name),
      row.sources.map((at) => names[at]),
    );
  const cut = (text: string) => {
    const most = Math.floor(mark / 7);
    return text.length > most ? `${text.slice(0, most - 1)}…` : text;
  };
  /** A bar in parts: a length for each verdict, and one for what the crawl does not know. */
  function parts({ byVerdict, unknown }: AgreementRow) {
    let from = left;
    return [...byVerdict, ...(unknown ? [{ verdict: null, urls: unknown }] : [])].map(({ verdict, urls }) => {
      const part = { verdict, urls, from, width: Math.max(1.5, long(urls)) };
      from += part.width;
      return part;
    });
  }
  function said({ sources: knowing, urls }: AgreementRow) {
    return texts.combination(
      urls,
      sources.map(({ name, at }) => {
        const isIn = knowing.includes(at);
        const colon = name.indexOf(':');
        if (colon < 0) return (isIn ? texts.knowIn : texts.knowNot)[name];
        return (isIn ? texts.inImport : texts.notInImport)(name.slice(0, colon), name.slice(colon + 1));
      }),
    );
  }
</script>

<div bind:clientWidth={box} class="px-2">
  <svg {width} height={HEAD + rows.length * ROW + 4} class="max-w-full" role="group" aria-label={texts.picture}>
    {#each sources as { name, urls }, i (name)}
      <text x={(i + 0.5) * mark} y="14" text-anchor="middle" font-size="12" fill="var(--color-base-content)"
        >{cut(texts.sourceLabel(name))}<title>{name}</title></text
      >
      <text x={(i + 0.5) * mark} y="29" text-anchor="middle" font-size="11" fill="var(--quiet)">{number(urls)}</text>
    {/each}
    <text x={left} y="29" font-size="11" fill="var(--quiet)">{texts.addressesByVerdict}</text>
    {#if hasHits}<text x={width - 4} y="29" text-anchor="end" font-size="11" fill="var(--quiet)">{texts.hits}</text
      >{/if}
    {#each rows as row, i (row.sources.join())}
      {@const test = testOf(row)}
      {@const bar = parts(row)}
      <g
        role="button"
        tabindex="0"
        aria-label={said(row)}
        aria-pressed={select === test}
        class="combination cursor-pointer"
        transform="translate(0 {HEAD + i * ROW})"
        onclick={() => onpick(test)}
        onkeydown={(event) => {
          if (event.key !== 'Enter' && event.key !== ' ') return;
          event.preventDefault();
          onpick(test);
        }}
      >
        <title>{said(row)}</title>
        <rect {width} height={ROW - 2} rx="3" class={select === test ? 'here' : 'row'} />
        {#each sources as { at }, s (at)}
          {@const middle = (s + 0.5) * mark}
          {#if row.sources.includes(at)}
            <rect x={middle - 7} y={ROW / 2 - 8} width="14" height="14" rx="3" fill="var(--color-primary)" />
          {:else}
            <rect x={middle - 4} y={ROW / 2 - 2} width="8" height="2" fill="var(--color-base-300)" />
          {/if}
        {/each}
        {#each bar as { verdict, urls, from, width: wide } (verdict)}
          <rect
            x={from}
            y={ROW / 2 - 8}
            width={wide}
            height="14"
            fill={verdict ? `var(--v-${verdict})` : 'transparent'}
            stroke={verdict ? 'none' : 'var(--lost)'}
            stroke-dasharray="3 2"
            ><title>{verdict ? `${verdictLabel[verdict]}: ${number(urls)}` : texts.notInCrawl(urls)}</title></rect
          >
        {/each}
        <text
          x={bar[bar.length - 1].from + bar[bar.length - 1].width + 7}
          y={ROW / 2 + 4}
          font-size="13"
          fill="var(--color-base-content)"
          >{number(row.urls)}{#if row.unknown && row.unknown < row.urls && room > REMARK}<tspan
              fill="var(--quiet)"
              font-size="11"
              dx="8">{texts.notInCrawl(row.unknown)}</tspan
            >{/if}</text
        >
        {#if hasHits}<text
            x={width - 4}
            y={ROW / 2 + 4}
            text-anchor="end"
            font-size="13"
            fill="var(--color-base-content)">{row.hits ? number(row.hits) : '—'}</text
          >{/if}
      </g>
    {/each}
  </svg>
</div>

<style>
  .row {
    fill: transparent;
  }
  .combination:hover .row {
    fill: var(--color-base-200);
  }
  .here {
    fill: color-mix(in oklab, var(--color-primary) 14%, var(--color-base-100));
  }
</style>
