import type { ColumnName } from '../../facts';

export type Question = 'Reach' | 'Flow' | 'Words' | 'Rules' | 'Roll call';

/** Where findings begin; settings of the site. */
export interface Thresholds {
  /** Clicks up to which a page counts as near. */
  deepClicks: number;
  /** Share below which an indexable page starves, as a multiple of an even split. */
  starvingShare: number;
  /** Links on a page from which on it is crowded. */
  crowdedLinks: number;
  /** Pages behind a gate from which on it is told. */
  gatePages: number;
  /** Words below which a page is thin. */
  thinWords: number;
}

/** What a person reads of a finding. */
export interface FindingTexts {
  /** The fault, in a few words. */
  name: string;
  question: Question;
  /** What had to be so for it to be reported: why it is told of this page or link. */
  rule: string;
  /** What it means for people or search engines. */
  why: string;
  /** What to change, and where. */
  remedy: string;
  /** A rule of thumb, which is often wrong: told apart from the faults, after them. */
  worthALook?: true;
  /** Other findings that may be the cause of this one, or come of it. */
  related?: readonly string[];
}

interface FindingBase extends FindingTexts {
  /** In addresses and files; never changes. */
  id: string;
  /** How much it matters for each page and each share it touches, 0 to 1. */
  weight: number;
  /** It can be a fault only where the site has a sitemap. */
  needsSitemap?: true;
}

interface OverPages extends FindingBase {
  over: 'pages';
  select: (thresholds: Thresholds) => string;
  /** Pages of equal value are fixed by one edit; without it each page is its own. */
  oneEdit?: ColumnName;
}
interface OverLinks extends FindingBase {
  over: 'links';
  select: (thresholds: Thresholds) => string;
  /**
   * What is one edit, where it is not the same link in one block: all links with the same words, to one target, or in
   * one place of a template.
   */
  editBy?: 'words' | 'target' | 'place';
}
interface OverFiles extends FindingBase {
  over: 'files';
  /** It is about all pages of the site. */
  wholeSite?: true;
}
export type Finding = OverPages | OverLinks | OverFiles;

type Row<F extends Finding> = Omit<F, 'question'>;
/** A finding as it stands in the file of its question. */
export type FindingRow = Row<OverPages> | Row<OverLinks> | Row<OverFiles>;

const over =
  <F extends Finding>(over: F['over']) =>
  (id: string, told: Omit<F, 'over' | 'id' | 'question'>) =>
    ({ over, id, ...told }) as Row<F>;
/** A row of the catalogue: a finding over pages, links or files. */
export const pages = over<OverPages>('pages');
export const links = over<OverLinks>('links');
export const files = over<OverFiles>('files');
