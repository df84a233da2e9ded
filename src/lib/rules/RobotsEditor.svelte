<!-- One robots.txt in an editor, which is loaded when it is first shown. -->
<script lang="ts">
  import { onMount } from 'svelte';
  import type { Editor } from './editor';

  interface Props {
    text: string;
    label: string;
    readOnly?: boolean;
    /** How many addresses each rule decides, by its line. */
    decided: readonly (readonly [line: number, addresses: number])[];
    paths?: readonly string[];
    /** Says what a rule decides, line by line. */
    describe: (line: number) => Promise<readonly string[] | null>;
    onchange?: (text: string) => void;
    online?: (line: number) => void;
  }
  let { text, label, readOnly = false, decided, paths = [], describe, onchange, online }: Props = $props();
  let parent: HTMLElement;
  let editor = $state.raw<Editor | null>(null);

  onMount(() => {
    let isGone = false;
    void import('./editor').then(({ openEditor }) => {
      if (isGone) return;
      editor = openEditor({
        ...{ parent, text, label, readOnly },
        paths: () => paths,
        describe: (line) => describe(line),
        onChange: (next) => onchange?.(next),
        onLine: (line) => online?.(line),
      });
    });
    return () => {
      isGone = true;
      editor?.close();
    };
  });
  $effect(() => editor?.setText(text));
  $effect(() => editor?.setDecided(decided));
</script>

<div bind:this={parent} class="h-full min-h-0 overflow-hidden rounded border border-base-300"></div>
