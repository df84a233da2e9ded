<!-- Whose eyes the site is read with. -->
<script lang="ts">
  import type { Reader } from '$core/reach';
  import Term from './Term.svelte';
  import { texts } from './texts';

  let { reader, onread }: { reader: Reader; onread: (reader: Reader) => void } = $props();
  const choices: { value: Reader; label: string; title: string }[] = [
    { value: 'visitor', label: texts.visitor, title: texts.followsAnyLinkAPersonCan },
    { value: 'crawler', label: texts.searchCrawler, title: texts.obeysRobotsTxtAndNofollow },
  ];
</script>

<div class="flex shrink-0 items-center gap-2 text-xs" role="group" aria-label={texts.readAs}>
  <span class="quiet"><Term of="read_as" /></span>
  <span class="flex overflow-hidden rounded border border-base-300 bg-base-100">
    {#each choices as { value, label, title } (value)}
      <button
        type="button"
        {title}
        aria-pressed={reader === value}
        data-key={reader === value ? undefined : 'r'}
        class="px-2.5 leading-6 whitespace-nowrap {reader === value
          ? 'bg-primary text-primary-content'
          : 'hover:bg-base-200'}"
        onclick={() => onread(value)}>{label}</button
      >
    {/each}
  </span>
</div>
