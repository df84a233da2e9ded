<!-- The pages that are the only way to others. A bar selects what lies behind it. -->
<script lang="ts">
  import type { Gate } from '$core/answers';
  import { quote } from '$core/selection/language';
  import Term from '../shell/Term.svelte';
  import BarRows from './BarRows.svelte';
  import Picture from './Picture.svelte';
  import { number, shortAddress } from '../shell/words';

  interface Props {
    gates: Gate[];
    start: string;
    select: string;
    onpick: (select: string, address: string) => void;
  }
  let { gates, start, select, onpick }: Props = $props();

  const behind = (address: string) => `only through (url = ${quote(address)})`;
  const bars = $derived(
    gates.map(({ address, gateFor, depth }) => ({
      key: address,
      label: shortAddress(address, start),
      said: `${number(gateFor)} ${gateFor === 1 ? 'page' : 'pages'} behind, depth ${depth}`,
      value: gateFor,
      here: select === behind(address),
      mono: true,
    })),
  );
</script>

{#if gates.length === 0}
  <p class="quiet p-4">No page is the only route to another page: every page has at least two ways to it.</p>
{:else}
  <p class="quiet px-2 pt-1.5 text-xs">
    Each of these pages is a <Term of="gate">gate</Term>, the only route to others: without it, all pages behind it are
    lost. Pick a bar to list them.
  </p>
  <Picture
    name="gates"
    table={() => [
      ['url', 'title', 'gate_for', 'depth'],
      ...gates.map(({ address, title, gateFor, depth }) => [address, title, gateFor, depth]),
    ]}
  >
    <div class="max-h-44 overflow-y-auto">
      <BarRows {bars} label="Gates" names={380} behind={190} onpick={(address) => onpick(behind(address), address)} />
    </div>
  </Picture>
{/if}
