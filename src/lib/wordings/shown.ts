/** The wordings of one page, as a screen is given them. */
import type { Wording } from '$core/wordings';

export interface ShownWordings {
  address: string;
  title: string | null;
  /** All of them; a part is shown. */
  total: number;
  wordings: (Omit<Wording, 'target' | 'better'> & { better: { address: string; title: string | null } | null })[];
}
