<!-- Rules that pages give themselves, by value, crawler and place. -->
<script lang="ts">
  import { quote } from '$core/selection/language';
  import type { PageRuleGroup } from '$core/rules';
  import { number } from '../shell/words';
  import { texts } from './texts';

  let { groups, href }: { groups: PageRuleGroup[]; href: (select: string) => string } = $props();
  const selectOf = ({ value }: PageRuleGroup) => `page_rules has ${quote(value)}`;
  const more = [
    ['noindex and share > 1', texts.noindexWithShare],
    ['noindex and pages_linking >= 10', texts.noindexLinked],
    ['page_nofollow', texts.nofollowPages],
  ] as const;
</script>

{#if groups.length === 0}
  <p class="quiet py-2">{texts.noPageRules}</p>
{:else}
  <p class="py-1 text-xs">
    {#each more as [select, label], i (select)}{i ? ' · ' : ''}<a
        class="text-primary hover:underline"
        href={href(select)}>{label}</a
      >{/each}
  </p>
  <table class="w-full">
    <thead class="quiet text-xs">
      <tr>
        <th class="text-left font-normal">{texts.directive}</th>
        <th class="text-left font-normal">{texts.forCrawler}</th>
        <th class="text-left font-normal">{texts.from}</th>
        <th class="text-right font-normal">{texts.pages}</th>
        <th class="pl-4 text-left font-normal">{texts.scope}</th>
        <th class="text-right font-normal" title={texts.outweighedMeans}>{texts.outweighed}</th>
      </tr>
    </thead>
    <tbody>
      {#each groups as group (`${group.agent} ${group.value} ${group.source}`)}
        <tr class="border-t border-base-300/60">
          <td class="py-0.5 font-mono text-xs"
            ><a class="hover:underline" href={href(selectOf(group))}>{group.value}</a></td
          >
          <td class="py-0.5">{group.agent || texts.everyCrawler}</td>
          <td class="py-0.5">{group.source === 'meta' ? texts.fromMeta : texts.fromHeader}</td>
          <td class="tabular py-0.5 text-right">{number(group.pages)}</td>
          <td class="max-w-96 truncate py-0.5 pl-4" title={group.only}
            >{group.only === null ? texts.scopes[group.scope] : texts.onlyOf(group.scope, group.only)}</td
          >
          <td class="tabular py-0.5 text-right {group.outweighed ? 'lost' : 'quiet'}">{number(group.outweighed)}</td>
        </tr>
      {/each}
    </tbody>
  </table>
{/if}
