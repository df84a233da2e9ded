<!-- The pages that are the only way to others. A bar selects what lies behind it. -->
<script lang="ts">
  import type { Gate } from '$core/answers';
  import { quote } from '$core/selection/language';
  import Explained from '../shell/Explained.svelte';
  import BarRows from './BarRows.svelte';
  import Picture from './Picture.svelte';
  import { shortAddress } from '../shell/words';
  import { texts } from './texts';

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
      said: texts.pagesBehind(gateFor, depth),
      value: gateFor,
      here: select === behind(address),
      mono: true,
    })),
  );
</script>

{#if gates.length === 0}
  <p class="quiet p-4">{texts.noPageIsTheOnlyRoute}</p>
{:else}
  <p class="quiet px-2 pt-1.5 text-xs">
    <Explained text={texts.eachOfThesePages} />
  </p>
  <Picture
    name="gates"
    table={() => [
      ['url', 'title', 'gate_for', 'depth'],
      ...gates.map(({ address, title, gateFor, depth }) => [address, title, gateFor, depth]),
    ]}
  >
    <div class="max-h-44 overflow-y-auto">
      <BarRows
        {bars}
        label={texts.gates}
        names={380}
        behind={190}
        onpick={(address) => onpick(behind(address), address)}
      />
    </div>
  </Picture>
{/if}
