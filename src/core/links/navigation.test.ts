import { describe, expect, it } from 'vitest';
import { isAroundContent, isContentPlacement, placements, templatePages } from '.';

describe('navigation', () => {
  it('is what stands in a landmark other than main', () =>
    expect(placements.filter((_, i) => isContentPlacement[i])).toEqual(['none', 'main']));
  it.each([
    ['body>div.breadcrumbs>a', true],
    ['body>ul.main-nav', false],
    ['body>div.nav>ul', true],
    ['body>div.page.toc', true],
    ['body>main>p.navy', false],
    ['body>div>footer', false],
  ])('is told by the classes of %s: %s', (path, is) => expect(isAroundContent(path)).toBe(is));
  it.each([
    [10, 20],
    [100, 20],
    [1000, 200],
  ])('on a site of %d pages is what %d of them have', (pages, least) => expect(templatePages(pages)).toBe(least));
});
