<!-- Addresses that a person knows from elsewhere, one per line. -->
<script lang="ts">
  import { number } from '../shell/words';
  import { texts } from './texts';

  interface Props {
    typed: string;
    fault?: string;
    /** How many addresses are stored when they are too many to be shown; else 0. */
    hidden: number;
  }
  let { typed, fault, hidden }: Props = $props();
</script>

<div class="mt-3">
  <label class="block">
    <span class="font-semibold">{texts.knownUrls}</span>
    <textarea
      name="lists"
      rows="3"
      value={typed}
      spellcheck="false"
      autocomplete="off"
      placeholder={hidden ? texts.addressesAreStoredPasteOthers(number(hidden)) : ''}
      class="textarea textarea-sm w-full font-mono"
      aria-invalid={Boolean(fault)}></textarea>
    <span class={fault ? 'lost' : 'quiet'}>{fault ?? texts.urlsThatYouKnowFromElsewhere}</span>
  </label>
  {#if hidden}
    <input type="hidden" name="longList" value="on" />
    <label class="mt-1 flex items-center gap-2">
      <input type="checkbox" name="removeList" class="checkbox checkbox-xs" />
      {texts.removeTheStoredAddresses(number(hidden))}
    </label>
  {/if}
</div>
