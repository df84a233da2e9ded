<!-- The answer of a screen: a sentence whose numbers select what they count. -->
<script lang="ts">
  import type { AnswerPiece } from '$core/answers';

  let { pieces, href }: { pieces: AnswerPiece[]; href: (select: string) => string } = $props();
</script>

<p class="font-serif text-xl leading-snug" data-tour="answer">
  {#each pieces as { text, tone, select }, i (i)}{#if select === undefined}{text}{:else}<a
        href={href(select)}
        class="hover:underline decoration-1 underline-offset-4 {tone ? 'font-semibold' : ''} {tone === 'lost'
          ? 'lost'
          : 'text-primary'}">{text}</a
      >{/if}{/each}
</p>
