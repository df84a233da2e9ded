<!-- The answer of a screen: a sentence whose numbers select what they count. -->
<script lang="ts">
  import type { AnswerPiece } from '$core/answers';

  interface Props {
    pieces: AnswerPiece[];
    href: (select: string) => string;
    /** A sentence below the answer of the screen. */
    small?: boolean;
  }
  let { pieces, href, small = false }: Props = $props();
</script>

<p class="font-serif leading-snug {small ? 'text-base' : 'text-xl'}" data-tour={small ? undefined : 'answer'}>
  {#each pieces as { text, tone, select }, i (i)}{#if select === undefined}{text}{:else}<a
        href={href(select)}
        class="hover:underline decoration-1 underline-offset-4 {tone ? 'font-semibold' : ''} {tone === 'lost'
          ? 'lost'
          : 'text-primary'}">{text}</a
      >{/if}{/each}
</p>
