<!-- Clusters of pages that name one address: what is wrong, the clusters, and one of them as a picture and side by side. -->
<script lang="ts">
  import type { CanonicalFlag, CanonicalOutcome } from '$core/rules';
  import { quote } from '$core/selection/language';
  import { number, shortAddress } from '../shell/words';
  import { texts } from './texts';

  interface Facts {
    title: string | null;
    h1: string | null;
    words: number | null;
  }
  interface Member extends Facts {
    address: string;
    canonical: string | null;
    outcome: CanonicalOutcome;
    flags: CanonicalFlag[];
    likeness: number | null;
  }
  interface Group {
    kind: CanonicalOutcome | CanonicalFlag;
    /** Null when nearly all pages have it. */
    template: string | null;
    pages: number;
    of: number;
    example: string;
  }
  interface Props {
    canonicals: {
      groups: Group[];
      total: number;
      clusters: { end: string; size: number; odd: number }[];
      shown: { end: string; own: Facts | null; size: number; members: Member[] } | null;
    };
    start: string;
    href: (select: string) => string;
    itemHref: (end: string) => string;
    pageHref: (address: string) => string;
  }
  let { canonicals, start, href, itemHref, pageHref }: Props = $props();

  /** What a kind selects; null where the selection language has no word for it. */
  const tests: Partial<Record<CanonicalOutcome | CanonicalFlag, string>> = {
    missing: 'canonical is unknown and html',
    chain: 'canonical_state = chain',
    loop: 'canonical_state = loop',
    outside: 'canonical_state = outside',
    several: 'canonicals > 1',
    to_redirect: 'canonical_state = chain',
    to_broken: 'canonical_state = not_indexable',
    to_noindex: 'canonical_state = not_indexable',
    to_blocked: 'canonical_state = not_indexable',
    to_other: 'canonical_state = not_indexable',
    unknown: 'canonical_state = unknown',
  };
  const selectOf = ({ kind, template }: Group) =>
    tests[kind] ? [tests[kind], ...(template === null ? [] : [`template = ${quote(template)}`])].join(' and ') : null;

  const ROW = 17;
  const DRAWN = 8;
  const isOdd = ({ outcome, flags }: Member) => outcome !== 'other' || flags.length > 0;
  const drawn = $derived(canonicals.shown?.members.slice(0, DRAWN) ?? []);
  const height = $derived(Math.max(1, drawn.length) * ROW + 6);
  const cut = (text: string, most: number) => (text.length > most ? `…${text.slice(1 - most)}` : text);
</script>

<div class="flex gap-4">
  <div class="max-h-66 w-60 shrink-0 overflow-y-auto xl:w-72">
    <h3 class="heading">{texts.whatIsWrong}</h3>
    {#if canonicals.groups.length === 0}<p class="quiet py-1 text-xs">{texts.allCanonicalsFine}</p>{/if}
    <ul class="text-xs">
      {#each canonicals.groups as group (`${group.kind} ${group.template}`)}
        {@const select = selectOf(group)}
        {@const label = texts.kindOf(group.kind)}
        <li class="flex justify-between gap-2 border-t border-base-300/60 py-0.5" title={group.template}>
          <span class="min-w-0 truncate"
            >{#if select}<a class="hover:underline" href={href(select)}>{label}</a>{:else}{label}{/if}
            <span class="quiet"
              >{group.template === null
                ? texts.onAllTemplates
                : texts.likePage(shortAddress(group.example, start))}</span
            ></span
          ><span
            class="tabular shrink-0"
            title={group.template === null
              ? texts.ofSite(group.pages, group.of)
              : texts.ofTemplate(group.pages, group.of)}
            ><span class="lost">{number(group.pages)}</span><span class="quiet">/{number(group.of)}</span></span
          >
        </li>
      {/each}
    </ul>
    <h3 class="heading mt-2">{canonicals.total ? texts.clusters(canonicals.total) : texts.noClusters}</h3>
    <ul class="text-xs">
      {#each canonicals.clusters as { end, size, odd } (end)}
        {@const isHere = end === canonicals.shown?.end}
        <li class="border-t border-base-300/60">
          <a
            class="flex justify-between gap-2 py-0.5 hover:underline {isHere ? 'font-semibold' : ''}"
            aria-current={isHere}
            href={itemHref(end)}
            ><span class="min-w-0 truncate font-mono" title={end}>{cut(shortAddress(end, start), 30)}</span><span
              class="tabular {odd ? 'lost' : ''}">{number(size)}</span
            ></a
          >
        </li>
      {/each}
    </ul>
  </div>
  {#if canonicals.shown}
    {@const { end, own, size, members } = canonicals.shown}
    <div class="max-h-66 min-w-0 flex-1 overflow-auto">
      <h3 class="heading">{texts.clusterOf(size)} <span class="font-mono text-xs">{shortAddress(end, start)}</span></h3>
      <svg
        width="100%"
        viewBox="0 0 640 {height}"
        {height}
        preserveAspectRatio="xMinYMid meet"
        role="img"
        aria-label={texts.clusterOf(size)}
      >
        {#each drawn as member, i (member.address)}
          {@const y = i * ROW + ROW / 2 + 3}
          <path
            d="M 290 {y} C 360 {y}, 380 {height / 2}, 440 {height / 2}"
            fill="none"
            stroke={isOdd(member) ? 'var(--color-secondary)' : 'var(--color-primary)'}
            stroke-width="1.4"
            stroke-dasharray={member.outcome === 'outside' || member.outcome === 'unknown' ? '4 3' : undefined}
          />
          <text x="284" y={y + 4} text-anchor="end" font-size="11.5" fill="var(--color-base-content)"
            >{cut(shortAddress(member.address, start), 42)}<title>{member.address}</title></text
          >
        {/each}
        <circle cx="444" cy={height / 2} r="4" fill={own ? 'var(--color-primary)' : 'var(--color-secondary)'} />
        <text x="454" y={height / 2 + 4} font-size="11.5" fill="var(--color-base-content)"
          >{cut(shortAddress(end, start), 28)}<title>{end}</title></text
        >
      </svg>
      <table class="mt-1 w-full text-xs">
        <thead class="quiet">
          <tr>
            <th class="text-left font-normal">{texts.address}</th>
            <th class="pl-2 text-left font-normal">{texts.state}</th>
            <th class="pl-2 text-left font-normal">{texts.title}</th>
            <th class="pl-2 text-left font-normal">{texts.h1}</th>
            <th class="pl-2 text-right font-normal">{texts.words}</th>
            <th class="pl-2 text-right font-normal whitespace-nowrap" title={texts.likenessMeans}>{texts.likeness}</th>
          </tr>
        </thead>
        <tbody>
          <tr class="border-t border-base-300/60 bg-base-200/50">
            <td class="max-w-44 truncate py-0.5 font-mono" title={end}
              ><a class="hover:underline" href={pageHref(end)}>{shortAddress(end, start)}</a></td
            >
            <td class="pl-2">{own ? texts.theOne : texts.notCrawled}</td>
            <td class="max-w-44 truncate pl-2" title={own?.title}>{own?.title ?? '—'}</td>
            <td class="max-w-36 truncate pl-2" title={own?.h1}>{own?.h1 ?? '—'}</td>
            <td class="tabular pl-2 text-right">{number(own?.words)}</td>
            <td></td>
          </tr>
          {#each members as member (member.address)}
            <tr class="border-t border-base-300/60">
              <td class="max-w-44 truncate py-0.5 font-mono" title={member.address}
                ><a class="hover:underline" href={pageHref(member.address)}>{shortAddress(member.address, start)}</a
                ></td
              >
              <td class="max-w-48 truncate pl-2 {isOdd(member) ? 'lost' : ''}" title={member.canonical}
                >{[texts.outcomes[member.outcome], ...member.flags.map((flag) => texts.flags[flag])].join(', ')}</td
              >
              <td class="max-w-44 truncate pl-2" title={member.title}>{member.title ?? '—'}</td>
              <td class="max-w-36 truncate pl-2" title={member.h1}>{member.h1 ?? '—'}</td>
              <td class="tabular pl-2 text-right">{number(member.words)}</td>
              <td class="tabular pl-2 text-right {member.likeness !== null && member.likeness < 0.8 ? 'lost' : ''}"
                >{member.likeness === null ? '—' : texts.percent(member.likeness)}</td
              >
            </tr>
          {/each}
        </tbody>
      </table>
      {#if size > members.length}<p class="quiet text-xs">{texts.andMoreMembers(size - members.length)}</p>{/if}
    </div>
  {/if}
</div>
