<!-- Shows, while patterns are typed, which addresses they would keep and which they would leave out. -->
<script lang="ts">
  import { scopeOf } from '$core/scope';
  import type { ScopeSettings } from '$core/scope';
  import { number } from '../shell/words';
  import { texts } from './texts';

  interface Props {
    /** What stands in the fields now. */
    scope: ScopeSettings | null;
    /** Known addresses of the site; empty when it was never crawled. */
    known: string[];
    /** Whether more are known than are given. */
    more: boolean;
  }
  let { scope, known, more }: Props = $props();

  const SHOWN = 200;
  let typed = $state('');
  let show = $state<'kept' | 'left out' | 'outside'>('left out');

  const addresses = $derived(typed.trim() ? typed.split(/\s+/).filter(Boolean) : known);
  const judged = $derived.by(() => {
    const groups: Record<typeof show, { address: string; pattern: string | null }[]> = {
      kept: [],
      'left out': [],
      outside: [],
    };
    if (!scope) return groups;
    const { inside, keeps, identify } = scopeOf(scope);
    for (const written of addresses) {
      const address = identify(written, scope.start)?.address ?? written;
      const { keeps: kept, pattern } = keeps(address);
      groups[!inside(address) ? 'outside' : kept ? 'kept' : 'left out'].push({ address, pattern });
    }
    return groups;
  });
  const choices = ['kept', 'left out', 'outside'] as const;
</script>

<div class="mt-4 border-t border-base-300 pt-3">
  <h3 class="font-semibold">{texts.whatTheseSettingsWouldDo}</h3>
  <p class="quiet">
    {#if typed.trim()}{texts.toTheAddressesBelow}{:else if known.length}{more
        ? texts.toTheFirstKnown(known.length)
        : texts.toTheKnown(known.length)}{:else}{texts.nothingIsKnownOfThisSite}{/if}
  </p>
  <div class="mt-2 grid grid-cols-2 gap-4">
    <label>
      <span class="sr-only">{texts.addressesToTest}</span>
      <textarea
        bind:value={typed}
        rows="6"
        spellcheck="false"
        placeholder={texts.visitPricesShopSortPrice}
        class="textarea textarea-sm h-44 w-full font-mono"></textarea>
    </label>
    <div class="flex h-44 min-w-0 flex-col">
      <div class="flex gap-1.5 pb-1" role="group" aria-label={texts.show}>
        {#each choices as choice (choice)}
          <button
            type="button"
            aria-pressed={show === choice}
            class="rounded-full border px-2 text-xs leading-5 {show === choice
              ? 'border-primary bg-primary text-primary-content'
              : 'border-base-300 hover:border-primary'}"
            onclick={() => (show = choice)}
            >{choice[0].toUpperCase() + choice.slice(1)}
            <span class="tabular">{number(judged[choice].length)}</span></button
          >
        {/each}
      </div>
      <ul
        class="min-h-0 flex-1 overflow-y-auto rounded border border-base-300 px-2 py-1 font-mono text-xs leading-5"
        aria-live="polite"
      >
        {#each judged[show].slice(0, SHOWN) as { address, pattern }, i (i)}
          <li class="flex gap-2" title={address}>
            <span class="min-w-0 flex-1 truncate">{address}</span>
            {#if pattern}<span class="quiet max-w-32 truncate">{pattern}</span>{/if}
          </li>
        {:else}
          <li class="quiet font-sans">{texts.none}</li>
        {/each}
        {#if judged[show].length > SHOWN}<li class="quiet font-sans">
            {texts.andMore(number(judged[show].length - SHOWN))}
          </li>{/if}
      </ul>
    </div>
  </div>
</div>
