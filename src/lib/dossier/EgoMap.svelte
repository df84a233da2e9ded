<!-- The pages around one page: what brings it share at the left, what it gives share to at the right. -->
<script lang="ts">
  import type { Dossier, SharePart } from '$core/answers';
  import type { ScreenState } from '../shell/address';
  import { fitted } from '../shell/textWidth';
  import { number } from '../shell/words';
  import { texts } from './texts';

  interface Props {
    share: Dossier['share'];
    short: (address: string) => string;
    hrefOf: (changes: Partial<ScreenState>) => string;
  }
  let { share, short, hrefOf }: Props = $props();

  const MOST = 5;
  const ROW = 20;
  const WIDTH = 300;
  const SIDE = 118;
  const MIDDLE = WIDTH / 2;
  const sides = $derived([
    { parts: share.from.slice(0, MOST), all: share.fromPages, isLeft: true },
    { parts: share.to.slice(0, MOST), all: share.toPages, isLeft: false },
  ]);
  const rows = $derived(Math.max(1, ...sides.map(({ parts, all }) => parts.length + Number(all > parts.length))));
  const most = $derived(Math.max(1e-9, ...sides.flatMap(({ parts }) => parts.map((part) => part.share))));
  const middle = $derived((rows * ROW) / 2);
  const end = (address: string) => short(address).replace(/\/$/, '').split('/').pop() || '/';
  const rowOf = (count: number, i: number) => middle + (i - (count - 1) / 2) * ROW;
  const thickness = ({ share }: SharePart) => 0.8 + 4 * Math.sqrt(share / most);
  /** A line from a page at the side to the one in the middle. */
  const line = (isLeft: boolean, y: number) => {
    const [from, to] = isLeft ? [SIDE, MIDDLE - 8] : [WIDTH - SIDE, MIDDLE + 8];
    return `M${from} ${y}C${(from + to) / 2} ${y} ${(from + to) / 2} ${middle} ${to} ${middle}`;
  };
</script>

<svg viewBox="0 0 {WIDTH} {rows * ROW}" class="w-full max-w-md" font-size="11" role="group" aria-label={texts.around}>
  {#each sides as { parts, all, isLeft } (isLeft)}
    {@const count = parts.length + Number(all > parts.length)}
    {#each parts as part, i (`${part.address} ${part.by}`)}
      {@const y = rowOf(count, i)}
      <path
        d={line(isLeft, y)}
        fill="none"
        stroke="var(--color-primary)"
        opacity="0.55"
        stroke-width={thickness(part)}
      />
      <a href={hrefOf({ page: part.address, at: '' })} data-sveltekit-noscroll>
        <text
          x={isLeft ? SIDE - 4 : WIDTH - SIDE + 4}
          y={y + 4}
          text-anchor={isLeft ? 'end' : 'start'}
          fill="currentColor"
          class="hover:underline">{fitted(end(part.address), SIDE - 8)}<title>{part.address}</title></text
        >
      </a>
    {/each}
    {#if all > parts.length}
      <text
        x={isLeft ? SIDE - 4 : WIDTH - SIDE + 4}
        y={rowOf(count, parts.length) + 4}
        text-anchor={isLeft ? 'end' : 'start'}
        fill="var(--quiet)">{texts.moreAround(number(all - parts.length))}</text
      >
    {/if}
  {/each}
  <circle cx={MIDDLE} cy={middle} r="6" fill="var(--color-primary)" />
</svg>
