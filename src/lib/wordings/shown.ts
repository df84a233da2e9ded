/** Wordings of a page, or of a site's pages with the same words, as a screen is given them. */
import type { Wording } from '$core/wordings';

interface NamedPage {
  address: string;
  title: string | null;
}

export interface ShownWording extends Omit<Wording, 'target' | 'better'> {
  target: NamedPage;
  better: NamedPage | null;
  /** When a crawl had them first, in seconds since 1970; null where that is not known. */
  since: number | null;
}

export interface ShownWordings {
  /** Of the page that they are of; null where they are the same words. */
  address: string | null;
  title: string | null;
  /** All of them; a part is shown. */
  total: number;
  wordings: ShownWording[];
}

/** What tells a wording from others. */
export const keyOf = ({ target, anchor, fragment }: ShownWording) => `${target.address} ${anchor} ${fragment}`;
