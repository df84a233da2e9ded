<!-- Two sources side by side, folder by folder: a part of the site that one of them does not know shows at once. -->
<script lang="ts">
  import type { FolderRow } from '$core/agreement';
  import { quote } from '$core/selection/language';
  import { number } from '../shell/words';
  import { sourceTest } from './sources';
  import { texts } from './texts';

  interface Props {
    rows: FolderRow[];
    first: string;
    second: string;
    href: (select: string) => string;
  }
  let { rows, first, second, href }: Props = $props();
  const most = $derived(
    Math.max(1, ...rows.filter(({ level }) => level > 0).flatMap((row) => [row.first, row.second])),
  );
  const part = (n: number) => Math.min(100, (100 * n) / most);
  const under = (path: string) => (path === '/' ? '' : ` and path starts ${quote(path)}`);
  const only = (one: string, other: string, path: string) =>
    `${sourceTest(one)} and not ${sourceTest(other)}${under(path)}`;
</script>

<p class="quiet px-2 pt-1 text-xs">{texts.chooseTwo}</p>
<table class="mx-2 w-[calc(100%-1rem)]">
  <thead class="quiet text-xs">
    <tr>
      <th class="py-1 text-left font-normal">{texts.folder}</th>
      <th class="text-right font-normal" colspan="2">{texts.sourceLabel(first)}</th>
      <th class="pl-3 text-left font-normal" colspan="2">{texts.sourceLabel(second)}</th>
      <th class="text-right font-normal">{texts.both}</th>
      <th class="text-right font-normal">{texts.onlyIn(texts.sourceLabel(first))}</th>
      <th class="text-right font-normal">{texts.onlyIn(texts.sourceLabel(second))}</th>
    </tr>
  </thead>
  <tbody>
    {#each rows as row (row.path)}
      {@const onlyFirst = row.first - row.both}
      {@const onlySecond = row.second - row.both}
      <tr class="border-t border-base-300/60">
        <td
          class="max-w-64 truncate py-0.5 font-mono text-[0.8125rem]"
          style:padding-left="{row.level * 16}px"
          title={row.path}
          >{row.level === 0 ? '/' : row.path.split('/').at(-2) + '/'}{#if row.more}<span
              class="quiet ml-2 font-sans text-xs">{texts.moreFolders(row.more)}</span
            >{/if}</td
        >
        <td class="tabular w-16 text-right">{number(row.first)}</td>
        <td class="w-28 pl-2"
          ><span class="ml-auto block h-3 bg-primary" style:width="{row.level ? part(row.first) : 0}%"></span></td
        >
        <td class="w-28 pl-3"
          ><span class="block h-3 bg-secondary" style:width="{row.level ? part(row.second) : 0}%"></span></td
        >
        <td class="tabular w-16 pr-3 text-right">{number(row.second)}</td>
        <td class="tabular text-right">{number(row.both)}</td>
        <td class="tabular text-right"
          >{#if onlyFirst}<a class="hover:underline" href={href(only(first, second, row.path))}>{number(onlyFirst)}</a
            >{:else}<span class="quiet">0</span>{/if}</td
        >
        <td class="tabular text-right"
          >{#if onlySecond}<a class="lost hover:underline" href={href(only(second, first, row.path))}
              >{number(onlySecond)}</a
            >{:else}<span class="quiet">0</span>{/if}</td
        >
      </tr>
    {/each}
  </tbody>
</table>
