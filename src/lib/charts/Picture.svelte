<!-- A chart that can be taken along: as PNG, as SVG, and its numbers as CSV. -->
<script lang="ts">
  import type { Snippet } from 'svelte';
  import type { Cell } from '$core/formats/csv';
  import Menu from '../shell/Menu.svelte';
  import { csvOf, pngOf, saveFile, standaloneSvg } from './picture';
  import { say } from '../shell/say.svelte';
  import { texts } from './texts';

  interface Props {
    /** Name of the files, without their ends. */
    name: string;
    /** The numbers, with a row of heads. */
    table: () => Cell[][];
    /** Draws it for a file, where what is shown is no SVG. */
    drawing?: () => Promise<SVGSVGElement>;
    children: Snippet;
  }
  let { name, table, drawing, children }: Props = $props();
  let box: HTMLDivElement;

  async function save(format: 'png' | 'svg' | 'csv') {
    try {
      const file = `${name}.${format}`;
      if (format === 'csv') saveFile(file, new Blob([await csvOf(table())], { type: 'text/csv' }));
      else {
        const svgElement = drawing ? await drawing() : box.querySelector('svg');
        if (!svgElement) throw new Error(texts.thePictureIsNotDrawnYet);
        const svg = standaloneSvg(svgElement);
        saveFile(file, format === 'svg' ? new Blob([svg], { type: 'image/svg+xml' }) : await pngOf(svg));
      }
      say(texts.isSaved(file));
    } catch (error) {
      say((error as Error).message, true);
    }
  }
</script>

<div class="group relative">
  <div class="absolute -top-6.5 right-0 z-10 text-xs">
    <Menu label={texts.save}>
      {#snippet children(close)}
        {#each ['png', 'svg', 'csv'] as const as format (format)}
          <button
            type="button"
            class="block w-full rounded px-2 py-1 text-left hover:bg-base-200"
            onclick={() => (void save(format), close())}
            >{format === 'csv' ? texts.numbersAsCsv : texts.pictureAs(format.toUpperCase())}</button
          >
        {/each}
      {/snippet}
    </Menu>
  </div>
  <div bind:this={box}>{@render children()}</div>
</div>
