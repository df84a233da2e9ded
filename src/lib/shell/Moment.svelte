<!-- A moment in the time of whoever reads it, with the zone on hover. -->
<script lang="ts">
  import { moment, zoned } from './words';

  let { at }: { at: Date } = $props();
</script>

<time datetime={at.toISOString()} title={zoned(at)}>{moment(at)}</time>
