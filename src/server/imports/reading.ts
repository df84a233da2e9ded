/** A file that is being read for an import. */
import type { Message } from '$core/messages';

/** What a person chooses of a list. */
export interface ListChoices {
  /** The column with the addresses, by its name or its 1-based number; null to guess it. */
  column: string | null;
}

/** A file that is being read. */
export interface Reading {
  start: string;
  /** The address of the site that an href names, or why it names none. */
  resolve: (href: string) => { address: string } | Message;
  /** Counts a line that could hold an address. */
  count: () => void;
  reject: (line: number, reason: Message) => void;
}
