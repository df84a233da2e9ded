import type { Snippet } from 'svelte';

/** One column of a table. */
export interface TableColumn {
  label: string | Snippet;
  /** Its cells are numbers, at the right. */
  isNumber?: boolean;
  /** It keeps away from the numbers before it. */
  isApart?: boolean;
  /** Its label is only for screen readers. */
  isHidden?: boolean;
  /** What it means, for whoever points at its head. */
  means?: string;
}
