<!-- Where share ends that can help no page: by cause. A bar selects the links that leak there. -->
<script lang="ts">
  import Term from '../shell/Term.svelte';
  import type { Leak } from '$core/share';
  import type { Verdict } from '$core/facts';
  import BarRows from './BarRows.svelte';
  import Picture from './Picture.svelte';
  import { number, verdictLabel } from '../shell/words';

  interface Props {
    leaks: Leak[];
    select: string;
    onpick: (select: string) => void;
  }
  let { leaks, select, onpick }: Props = $props();

  const labelOf = (cause: string) =>
    cause === 'nofollow' ? 'Links that are not followed' : verdictLabel[cause as Verdict];
  const selectionOf = (cause: string) =>
    cause === 'nofollow'
      ? 'kind = click and not followed and not external and not self'
      : `kind = click and followed and to (verdict = ${cause})`;
  const bars = $derived(
    leaks.map(({ cause, part, pages }) => {
      const percent = (100 * part).toLocaleString('en', { maximumSignificantDigits: 2 });
      const where = cause === 'nofollow' ? 'withhold it' : 'get it';
      return {
        key: cause,
        label: labelOf(cause),
        said: `${percent}% of all share; ${number(pages)} ${pages === 1 ? 'page' : 'pages'} ${where}`,
        value: part,
        here: select === selectionOf(cause),
      };
    }),
  );
</script>

{#if leaks.length === 0}
  <p class="quiet p-4">No share leaks: every followed link leads to an indexable page.</p>
{:else}
  <p class="quiet px-2 pt-1.5 text-xs">
    A <Term of="leak">leak</Term> is share that helps no page. Pick a bar to list the links through which it goes.
  </p>
  <Picture
    name="leaks"
    table={() => [['cause', 'part', 'pages'], ...leaks.map(({ cause, part, pages }) => [cause, part, pages])]}
  >
    <BarRows {bars} label="Leaks by cause" names={215} behind={280} onpick={(cause) => onpick(selectionOf(cause))} />
  </Picture>
{/if}
