<!-- Whose eyes the site is read with. -->
<script lang="ts">
  import type { Reader } from '$core/reach';
  import Term from './Term.svelte';

  let { reader, onread }: { reader: Reader; onread: (reader: Reader) => void } = $props();
  const choices: { value: Reader; label: string; title: string }[] = [
    { value: 'visitor', label: 'Visitor', title: 'Follows any link a person can click' },
    { value: 'crawler', label: 'Search crawler', title: 'Keeps to robots.txt and nofollow' },
  ];
</script>

<div class="flex shrink-0 items-center gap-2 text-xs" role="group" aria-label="Read as">
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
