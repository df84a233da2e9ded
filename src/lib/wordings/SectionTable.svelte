<!-- What the pages of one section say to those of another, in main content. -->
<script lang="ts">
  import type { SectionWords } from '$core/wordings';
  import { number } from '../shell/words';
  import { texts } from './texts';

  interface Props {
    sections: readonly SectionWords[];
    shown: string;
    href: (section: string) => string;
    /** The list of links from one section to another, with some words. */
    hrefOfLinks: (from: string, to: string, words: string) => string;
  }
  let { sections, shown, href, hrefOfLinks }: Props = $props();
  const from = $derived(
    [...new Set(sections.map((one) => one.from))]
      .map((name) => ({
        name,
        links: sections.reduce((sum, one) => sum + (one.from === name ? one.links : 0), 0),
      }))
      .sort((a, b) => b.links - a.links),
  );
  /** How the address of the screen calls a section: pages at the top level are in none. */
  const itemOf = (section: string) => section || '-';
  const open = $derived(from.find(({ name }) => itemOf(name) === shown)?.name ?? from[0]?.name);
  const rows = $derived(sections.filter((one) => one.from === open));
  const most = $derived(Math.max(1, ...rows.map(({ links }) => links)));
  const nameOf = (section: string) => section || texts.sections.none;
</script>

<section class="panel flex min-h-0 flex-col" aria-label={texts.sections.from}>
  <h2 class="border-b border-base-300 px-3 py-2 text-sm font-semibold">{texts.sections.from}</h2>
  <ul class="min-h-0 flex-1 overflow-y-auto text-xs">
    {#each from as { name, links } (name)}
      <li>
        <a
          class="flex justify-between gap-3 border-b border-base-300/70 px-3 py-1.5 {name === open
            ? 'border-l-3 border-l-primary bg-base-200/60'
            : 'hover:bg-base-200/60'}"
          href={href(itemOf(name))}
          aria-current={name === open}
          data-sveltekit-keepfocus
          ><span class="truncate">{nameOf(name)}</span><span class="tabular quiet">{texts.links(links)}</span></a
        >
      </li>
    {:else}
      <li class="quiet px-3 py-3">{texts.sections.nothing}</li>
    {/each}
  </ul>
</section>
<section class="panel flex min-h-0 min-w-0 flex-col" aria-label={texts.sections.to(nameOf(open ?? ''))}>
  <h2 class="border-b border-base-300 px-3 py-2 text-sm font-semibold">{texts.sections.to(nameOf(open ?? ''))}</h2>
  <div class="min-h-0 flex-1 overflow-y-auto">
    {#each rows as { to, links, words } (to)}
      <div class="border-b border-base-300/70 px-3 py-2">
        <div class="flex items-center gap-3 text-xs">
          <b class="w-40 truncate">{to === open ? texts.sections.itself : nameOf(to)}</b>
          <span class="h-2 flex-1 bg-base-200"
            ><span class="block h-2 bg-primary/60" style:width="{(100 * links) / most}%"></span></span
          >
          <span class="tabular w-20 text-right">{texts.links(links)}</span>
        </div>
        <p class="mt-1 leading-relaxed">
          {#each words as [anchor, many], i (anchor)}{i ? ' · ' : ''}<a
              class="font-serif text-[15px] hover:underline"
              dir="auto"
              href={hrefOfLinks(open ?? '', to, anchor)}>{anchor || texts.empty}</a
            >&nbsp;<span class="quiet tabular text-xs">{number(many)}</span>{/each}
        </p>
      </div>
    {/each}
  </div>
</section>
