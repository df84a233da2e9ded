<!-- Findings with how much of the site they touch: each selects what it is about. -->
<script lang="ts">
  import type { Found } from '$core/findings';
  import { number } from '../shell/words';
  import Explained from '../shell/Explained.svelte';
  import Term from '../shell/Term.svelte';
  import FindingHelp from './FindingHelp.svelte';
  import { texts } from './texts';

  interface Props {
    /** With how many key pages each is about. */
    findings: (Found & { keyPages?: number })[];
    /** Whether a finding is what is selected now. */
    isHere?: (finding: Found) => boolean;
    href: (finding: Found) => string;
    /** Shows why each matters. */
    why?: boolean;
    /** The site in which a finding can be ignored. */
    site: number;
  }
  let { findings, isHere = () => false, href, why = false, site }: Props = $props();
  /** Where most of it comes from. */
  const blockText = ({ placement, pages }: NonNullable<Found['block']>, all: number) => {
    const where = placement === 'none' ? texts.template : placement === 'main' ? texts.mainContent : placement;
    return pages === all ? texts.onAllByOneLink(where) : texts.onSomeByOneLink(number(pages), where);
  };
  /** Those of its places that are on key pages, or lead to them. */
  function keyHref(finding: Found): string {
    const [path, query] = href(finding).split('?');
    const params = new URLSearchParams(query);
    const only = finding.over === 'pages' ? 'key' : '(from (key) or to (key))';
    params.set('select', `(${params.get('select') ?? ''}) and ${only}`);
    return `${path}?${params}`;
  }
  const percent = (part: number) =>
    part > 0 && part < 0.001 ? '<0.1%' : `${(100 * part).toFixed(part < 0.1 ? 1 : 0)}%`;
</script>

<table class="w-full">
  <thead class="quiet text-xs">
    <tr>
      <th class="text-left font-normal"><Explained text={texts.findingByCost} /></th>
      {#if why}<th class="text-left font-normal">{texts.whyItMatters}</th>{/if}
      <th class="pl-2.5 text-right font-normal">{texts.pages}</th>
      <th class="pl-2.5 text-right font-normal">{texts.places}</th>
      <th class="pl-2.5 text-right font-normal whitespace-nowrap"><Term of="one_edit" /></th>
      <th class="pl-2.5 text-right font-normal whitespace-nowrap" title={texts.shareOfThePages}><Term of="share" /></th>
      <th><span class="sr-only">{texts.about}</span></th>
    </tr>
  </thead>
  <tbody>
    {#each findings as finding (finding.id)}
      <tr class="border-t border-base-300/60 align-baseline {isHere(finding) ? 'bg-primary/10' : ''}">
        <td class="py-1 pr-2">
          <a
            href={href(finding)}
            class="hover:underline"
            title="{finding.rule} {finding.why} {finding.remedy}"
            data-sveltekit-noscroll>{finding.name}</a
          >
          {#if finding.worthALook}<span class="quiet ml-1 text-xs whitespace-nowrap"
              ><Explained text={texts.worthALook} /></span
            >{/if}
          {#if finding.keyPages}<a
              class="ml-1 rounded border border-primary/40 px-1 text-xs whitespace-nowrap text-primary hover:underline"
              href={keyHref(finding)}
              title={texts.keyPagesMean}
              data-sveltekit-noscroll>{texts.keyPages(finding.keyPages)}</a
            >{/if}
          {#if finding.block}<span
              class="quiet block max-w-88 truncate text-xs"
              title={texts.theSameLinkOnOfPages(
                finding.block.above,
                number(finding.block.pages),
                number(finding.pages),
              )}>{blockText(finding.block, finding.pages)}</span
            >{/if}
        </td>
        {#if why}<td class="quiet max-w-0 w-1/2 truncate pr-2 text-xs" title="{finding.why} {finding.remedy}"
            >{finding.why}</td
          >{/if}
        <td class="tabular pl-2.5 text-right">{number(finding.pages)}</td>
        <td class="tabular pl-2.5 text-right">{number(finding.occurrences)}</td>
        <td class="tabular pl-2.5 text-right font-semibold">{number(finding.edits)}</td>
        <td class="tabular pl-2.5 text-right">{percent(finding.share)}</td>
        <td class="w-8 pl-1 text-right"><FindingHelp {finding} {site} /></td>
      </tr>
    {:else}
      <tr><td class="quiet py-1" colspan="7">{texts.nothingWasFound}</td></tr>
    {/each}
  </tbody>
</table>
