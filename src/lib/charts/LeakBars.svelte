<!-- Where share ends that can help no page: by cause. A bar selects the links that leak there. -->
<script lang="ts">
  import Explained from '../shell/Explained.svelte';
  import type { Leak } from '$core/share';
  import type { Verdict } from '$core/facts';
  import BarRows from './BarRows.svelte';
  import Picture from './Picture.svelte';
  import { verdictLabel } from '../shell/words';
  import { texts } from './texts';

  interface Props {
    leaks: Leak[];
    select: string;
    onpick: (select: string) => void;
  }
  let { leaks, select, onpick }: Props = $props();

  const labelOf = (cause: string) =>
    cause === 'nofollow' ? texts.linksThatAreNotFollowed : verdictLabel[cause as Verdict];
  const selectionOf = (cause: string) =>
    cause === 'nofollow'
      ? 'kind = click and not followed and not external and not self'
      : `kind = click and followed and to (verdict = ${cause})`;
  const bars = $derived(
    leaks.map(({ cause, part, pages }) => {
      const percent = (100 * part).toLocaleString('en', { maximumSignificantDigits: 2 });
      return {
        key: cause,
        label: labelOf(cause),
        said: cause === 'nofollow' ? texts.pagesWithhold(percent, pages) : texts.pagesGet(percent, pages),
        value: part,
        here: select === selectionOf(cause),
      };
    }),
  );
</script>

{#if leaks.length === 0}
  <p class="quiet p-4">{texts.noShareLeaksEveryFollowedLink}</p>
{:else}
  <p class="quiet px-2 pt-1.5 text-xs">
    <Explained text={texts.aLeakIsShare} />
  </p>
  <Picture
    name="leaks"
    table={() => [['cause', 'part', 'pages'], ...leaks.map(({ cause, part, pages }) => [cause, part, pages])]}
  >
    <BarRows
      {bars}
      label={texts.leaksByCause}
      names={215}
      behind={280}
      onpick={(cause) => onpick(selectionOf(cause))}
    />
  </Picture>
{/if}
