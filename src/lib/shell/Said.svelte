<!-- What was just done, or could not be, with a button to undo it where that is possible. -->
<script lang="ts">
  import { said, unsay } from './say.svelte';
</script>

<div class="pointer-events-none fixed inset-x-0 bottom-4 z-40 flex justify-center" role="status" aria-live="polite">
  {#if said()}
    <p
      class="panel pointer-events-auto flex max-w-xl items-center gap-4 px-4 py-2 shadow-lg {said()?.wrong
        ? 'lost'
        : ''}"
    >
      {said()?.text}
      {#if said()?.action}
        <button
          type="button"
          class="btn btn-outline btn-xs"
          onclick={() => {
            said()?.action?.run();
            unsay();
          }}>{said()?.action?.label}</button
        >
      {/if}
    </p>
  {/if}
</div>
