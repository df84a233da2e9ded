<script lang="ts">
  import { onMount } from 'svelte';
  import Said from '$lib/shell/Said.svelte';
  import '../app.css';

  let { children } = $props();

  // Whoever drives a browser waits for it: from now on the page takes clicks and keys.
  onMount(() => document.documentElement.setAttribute('data-ready', ''));
</script>

{@render children()}
<Said />
