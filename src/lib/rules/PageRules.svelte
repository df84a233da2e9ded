<!-- Rules that pages give themselves, by value, crawler and place. -->
<script lang="ts">
  import { quote } from '$core/selection/language';
  import type { PageRuleGroup } from '$core/rules';
  import { number } from '../shell/words';
  import { texts } from './texts';
  import Table from '../table/Table.svelte';

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
  <Table
    columns={[
      { label: texts.directive },
      { label: texts.forCrawler },
      { label: texts.from },
      { label: texts.pages, isNumber: true },
      { label: texts.scope, isApart: true },
      { label: texts.outweighed, isNumber: true, means: texts.outweighedMeans },
    ]}
    rows={groups}
    key={(group) => `${group.agent} ${group.value} ${group.source}`}
  >
    {#snippet row(group)}
      <td class="py-0.5 font-mono text-xs"><a class="hover:underline" href={href(selectOf(group))}>{group.value}</a></td
      >
      <td class="py-0.5">{group.agent || texts.everyCrawler}</td>
      <td class="py-0.5">{group.source === 'meta' ? texts.fromMeta : texts.fromHeader}</td>
      <td class="tabular py-0.5 text-right">{number(group.pages)}</td>
      <td class="max-w-96 truncate py-0.5 pl-4" title={group.only}
        >{group.only === null ? texts.scopes[group.scope] : texts.onlyOf(group.scope, group.only)}</td
      >
      <td class="tabular py-0.5 text-right {group.outweighed ? 'lost' : 'quiet'}">{number(group.outweighed)}</td>
    {/snippet}
  </Table>
{/if}
