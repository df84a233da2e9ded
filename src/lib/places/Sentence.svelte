<!-- A sentence with the words that would become a link; they can be chosen by dragging over them. -->
<script lang="ts">
  import { wholeWords } from './range';
  import type { Range } from './range';

  interface Props {
    text: string;
    range: Range;
    room: Range;
    onchoose: (range: Range) => void;
  }
  let { text, range, room, onchoose }: Props = $props();
  const [from, to] = $derived(range);

  function choose(event: MouseEvent) {
    const selection = getSelection();
    const box = event.currentTarget as HTMLElement;
    if (!selection || selection.isCollapsed || !box.contains(selection.anchorNode)) return;
    const dragged = selection.getRangeAt(0);
    const before = document.createRange();
    before.selectNodeContents(box);
    before.setEnd(dragged.startContainer, dragged.startOffset);
    const start = before.toString().length;
    const words = wholeWords(text, [start, start + dragged.toString().length], room);
    if (words) onchoose(words);
    selection.removeAllRanges();
  }
</script>

<!-- svelte-ignore a11y_no_static_element_interactions -->
<span dir="auto" class="block font-serif text-[15px] leading-snug break-words" onmouseup={choose}
  >{text.slice(0, from)}<mark class="rounded-xs bg-primary/20 text-inherit underline decoration-primary"
    >{text.slice(from, to)}</mark
  >{text.slice(to)}</span
>
