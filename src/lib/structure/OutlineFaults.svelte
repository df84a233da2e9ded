<!-- What of an outline could not be read, line by line. -->
<script lang="ts">
  import { texts } from './texts';

  let { faults, count, pages }: { faults: { line: number; text: string }[]; count: number; pages: number } = $props();
</script>

<div class="text-xs" role="status">
  <p class={count ? 'lost' : 'quiet'}>{texts.read(pages, count)}</p>
  {#if faults.length}
    <ul class="mt-1 max-h-40 overflow-y-auto">
      {#each faults as { line, text } (line)}<li><b class="tabular">{texts.line(line)}</b> {text}</li>{/each}
    </ul>
    {#if count > faults.length}<p class="quiet">{texts.more(count - faults.length)}</p>{/if}
  {/if}
</div>
