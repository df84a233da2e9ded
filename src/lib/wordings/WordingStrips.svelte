<!-- The words of the links to a page by how many have them: those of main content apart from those around it. -->
<script lang="ts">
  import { number } from '../shell/words';
  import { keyOf } from './shown';
  import type { ShownWording } from './shown';
  import { texts } from './texts';

  let { wordings, hrefOfLinks }: { wordings: readonly ShownWording[]; hrefOfLinks: (one: ShownWording) => string } =
    $props();

  /** Narrower pieces are drawn together. */
  const LEAST = 0.03;
  const strips = $derived(
    [
      { label: texts.strips.content, of: (one: ShownWording) => one.mainContent },
      { label: texts.strips.around, of: (one: ShownWording) => one.occurrences - one.mainContent },
    ].map(({ label, of }) => {
      const total = wordings.reduce((sum, one) => sum + of(one), 0);
      const wide = wordings.filter((one) => of(one) >= LEAST * total && of(one) > 0);
      const rest = total - wide.reduce((sum, one) => sum + of(one), 0);
      const pieces = wide.map((one) => ({ one, links: of(one) })).sort((a, b) => b.links - a.links);
      return { label, total, rest, pieces };
    }),
  );
</script>

<div class="grid grid-cols-[auto_minmax(0,1fr)_auto] items-center gap-x-2 gap-y-1 border-b border-base-300 px-3 py-2">
  {#each strips as { label, total, rest, pieces } (label)}
    <span class="quiet text-xs">{label}</span>
    <span class="flex h-6 min-w-0 gap-px overflow-hidden rounded-sm bg-base-200" role="group" aria-label={label}>
      {#each pieces as { one, links } (keyOf(one))}
        <a
          class="min-w-0 truncate px-1.5 font-serif text-[13px] leading-6 hover:underline {one.faults.length
            ? 'bg-secondary/25'
            : 'bg-primary/20'}"
          style:flex="{links} 1 0"
          href={hrefOfLinks(one)}
          title={texts.strips.piece(one.anchor || texts.empty, number(links), one.faults.length > 0)}
          >{one.anchor || texts.empty}</a
        >
      {/each}
      {#if rest > 0}
        <span class="quiet min-w-0 truncate px-1 text-xs leading-6" style:flex="{rest} 1 0" title={texts.strips.rest}
          >…</span
        >
      {/if}
    </span>
    <span class="tabular text-right text-xs">{number(total)}</span>
  {/each}
</div>
