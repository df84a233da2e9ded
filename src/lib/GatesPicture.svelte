<!-- The pages that are the only way to others. -->
<script lang="ts">
  import type { Gate } from '$core/answers';
  import { quote } from '$core/selection/language';
  import { number, shortAddress } from './words';

  interface Props {
    gates: Gate[];
    start: string;
    select: string;
    onpick: (address: string) => void;
    hrefOf: (address: string) => string;
  }
  let { gates, start, select, onpick, hrefOf }: Props = $props();
  const most = $derived(Math.max(1, ...gates.map(({ gateFor }) => gateFor)));
</script>

{#if gates.length === 0}
  <p class="quiet p-4">No page is the only way to another.</p>
{:else}
  <p class="quiet px-2 pt-1.5 text-xs">
    The only way to other pages: when one of these goes, so do all behind it. A bar selects what lies behind.
  </p>
  <ul class="max-h-40 overflow-y-auto px-2 py-1">
    {#each gates as { address, title, gateFor, depth } (address)}
      {@const here = select === `only through (url = ${quote(address)})`}
      <li
        class="grid grid-cols-[minmax(0,2fr)_3fr_4.5rem] items-center gap-3 border-t border-base-300/60 first:border-0"
      >
        <a
          class="truncate font-mono text-[0.8125rem] hover:underline"
          href={hrefOf(address)}
          data-sveltekit-noscroll
          title={title ?? address}>{shortAddress(address, start)}</a
        >
        <button
          type="button"
          class="h-6 rounded hover:bg-base-200"
          aria-pressed={here}
          aria-label="Select the {number(gateFor)} pages behind {shortAddress(address, start)}, depth {depth}"
          onclick={() => onpick(address)}
        >
          <span
            class="block h-3 rounded-sm {here ? 'bg-secondary' : 'bg-primary'}"
            style:width="{(100 * gateFor) / most}%"
          ></span>
        </button>
        <span class="tabular text-right">{number(gateFor)} {gateFor === 1 ? 'page' : 'pages'}</span>
      </li>
    {/each}
  </ul>
{/if}
