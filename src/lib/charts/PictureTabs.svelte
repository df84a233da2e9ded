<!-- Which picture of a screen is shown. -->
<script lang="ts">
  import { texts } from './texts';
  interface Props {
    pictures: readonly { picture: string; label: string }[];
    picture: string;
    onpick: (picture: string) => void;
  }
  let { pictures, picture: shown, onpick }: Props = $props();
</script>

<div class="flex overflow-hidden rounded border border-base-300" role="group" aria-label={texts.picture}>
  {#each pictures as { picture, label } (picture)}
    <button
      type="button"
      aria-pressed={picture === shown}
      class="px-2.5 leading-6 whitespace-nowrap {picture === shown
        ? 'bg-primary text-primary-content'
        : 'hover:bg-base-200'}"
      onclick={() => onpick(picture)}>{label}</button
    >
  {/each}
</div>
