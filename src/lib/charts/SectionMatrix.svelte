<!-- Links, or the share they carry, from section (row) to section (column). -->
<script lang="ts">
  import type { SectionFlow } from '$core/share';
  import { number } from '../shell/words';
  import Matrix from './Matrix.svelte';
  import { texts } from './texts';

  interface Props {
    flow: SectionFlow;
    of: 'links' | 'share';
    onpick: (from: string, to: string) => void;
  }
  let { flow, of, onpick }: Props = $props();

  const MOST = 12;
  const sections = $derived(flow.sections.slice(0, MOST));
  const cells = $derived(of === 'links' ? flow.links : flow.carried);
  const name = (section: string) => (section === '' ? '/' : section === '…' ? texts.allOthers : `/${section}`);
  const names = $derived(sections.map(name));
  const shown = (value: number) =>
    of === 'links'
      ? value >= 10_000
        ? `${Math.round(value / 1000)}k`
        : number(value)
      : value >= 10
        ? number(Math.round(value))
        : value.toFixed(1);
</script>

<Matrix
  label={texts.fromSectionToSection(of === 'links' ? texts.links : texts.share)}
  rows={names}
  columns={names}
  value={(i, j) => cells[i][j]}
  {shown}
  title={(i, j) => texts.cellInFull(names[i], names[j], number(flow.links[i][j]), flow.carried[i][j].toFixed(2))}
  canPick={(i, j) => sections[i] !== '…' && sections[j] !== '…'}
  onpick={(i, j) => onpick(sections[i], sections[j])}
/>
{#if flow.sections.length > sections.length}<p class="quiet px-2 text-xs">
    {texts.moreSections(flow.sections.length - sections.length)}
  </p>{/if}
