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
  /** So many are drawn at every keystroke; the rest when a person asks for them. */
  const FIRST = 20;
  let isWhole = $state(false);
  const shown = $derived(isWhole ? addresses : addresses.slice(0, FIRST));
</script>

<ul class="font-mono">
  <!-- By their places: another address is another text in the same row, which takes a fraction of the time of other rows. -->
  {#each shown as address, row (row)}
    <li class="truncate">
      <a class="hover:underline" title={address} href={pageHref(address)}>{shortAddress(address, start)}</a>
    </li>
  {/each}
  {#if shown.length < addresses.length}
    <li class="font-sans">
      <button type="button" class="text-primary hover:underline" onclick={() => (isWhole = true)}
        >{texts.showFirst(addresses.length)}</button
      >
    </li>
  {/if}
  {#if count > addresses.length}<li class="quiet font-sans">{texts.andMore(count - addresses.length)}</li>{/if}
</ul>
