<!-- Addresses, each leading to its dossier. -->
<script lang="ts">
  import { shortAddress } from '../shell/words';
  import { benchTexts as texts } from './benchTexts';

  interface Props {
    /** The first of them. */
    addresses: readonly string[];
    count: number;
    start: string;
    pageHref: (address: string) => string;
  }
  let { addresses, count, start, pageHref }: Props = $props();
</script>

<ul class="font-mono">
  {#each addresses as address (address)}
    <li class="truncate">
      <a class="hover:underline" title={address} href={pageHref(address)}>{shortAddress(address, start)}</a>
    </li>
  {/each}
  {#if count > addresses.length}<li class="quiet font-sans">{texts.andMore(count - addresses.length)}</li>{/if}
</ul>
