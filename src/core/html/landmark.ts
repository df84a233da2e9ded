/** The landmark that an element stands in (HTML-AAM). */
import type { Placement } from '../links';
import { elementSet, elementTable } from './elements';
import type { Tag } from './scan';

const placementOfElement = elementTable<Placement>({
  header: 'header',
  nav: 'nav',
  main: 'main',
  aside: 'aside',
  footer: 'footer',
});
const placementOfRole = new Map<string, Placement>([
  ['banner', 'header'],
  ['navigation', 'nav'],
  ['main', 'main'],
  ['complementary', 'aside'],
  ['contentinfo', 'footer'],
]);
/** Elements and roles in which header and footer are no landmarks (HTML-AAM, "header" and "footer"). */
const sectioning = elementSet('article aside main nav section');
const sectionRoles = new Set(['article', 'complementary', 'main', 'navigation', 'region']);

export interface Landmark {
  placement: Placement;
  /** Whether it is, or stands in, an element in which header and footer are no landmarks. */
  isSectioned: boolean;
}

export function landmarkOf(tag: Tag, parent: Landmark | null): Landmark {
  const role = tag.get('role')?.trim().toLowerCase() ?? '';
  const own = placementOfRole.get(role) ?? placementOfElement[tag.number];
  // HTML-AAM: header and footer belong to the nearest section, if they are in one.
  const isOfSection = parent?.isSectioned && !placementOfRole.has(role) && (own === 'header' || own === 'footer');
  return {
    placement: (isOfSection ? undefined : own) ?? parent?.placement ?? 'none',
    isSectioned: (parent?.isSectioned ?? false) || sectioning[tag.number] === 1 || sectionRoles.has(role),
  };
}
