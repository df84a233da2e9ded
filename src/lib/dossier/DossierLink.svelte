<!-- One link of a page: where it leads, what it says, and what is wrong with it, and why. -->
<script lang="ts">
  import type { DossierLink } from '$core/answers';
  import { sentence } from '$core/messages';
  import type { ScreenState } from '../shell/address';
  import { texts } from './texts';

  interface Props {
    link: DossierLink;
    short: (address: string) => string;
    hrefOf: (changes: Partial<ScreenState>) => string;
  }
  let { link, short, hrefOf }: Props = $props();
</script>

<!-- It stays in sight above the source, which is scrolled to the link. -->
<section
  class="sticky -top-3 z-10 mb-3 max-h-60 overflow-y-auto border-b border-base-300 bg-base-100 py-3"
  aria-label={texts.theLink}
>
  <p>
    {#if link.words}“{link.words}”{:else}<span class="quiet">{texts.aLinkWithoutWords}</span>{/if}
    {texts.leadsTo}
    <a
      class="font-mono text-xs break-all text-primary hover:underline"
      href={hrefOf({ page: link.target, at: '', part: '' })}
      data-sveltekit-noscroll>{short(link.target)}</a
    >
  </p>
  <ul class="mt-1 space-y-1">
    {#each link.findings as { id, name, rule, remedy, reason, worthALook } (id)}
      <li>
        <a class="font-semibold hover:underline" href="/findings/{id}">{name}</a>
        {#if worthALook}<span class="quiet text-xs">{texts.worthALook}</span>{/if}
        <span class="block text-xs">{reason ? sentence(reason) : rule}</span>
        <span class="quiet block text-xs">{remedy}</span>
      </li>
    {:else}
      <li class="quiet text-xs">{texts.nothingIsWrongWithThisLink}</li>
    {/each}
  </ul>
</section>
